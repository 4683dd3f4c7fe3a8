#include <charconv>
#include <cmath>
#include <cstdint>
#include <numbers>
#include <string_view>

#include "cancel.hpp"
#include "measure/whole.hpp"
#include "problem.hpp"
#include "run/gcode.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct Word {
  char letter;
  double value;
};

class Reader {
 public:
  Reader(const std::string& text, const std::string& where, double face) : text_(text), where_(where), face_(face) {}

  GcodeProgram read() {
    program_.sections.emplace_back();
    std::size_t begin = 0;
    while (begin < text_.size() && !program_.ended) {
      Cancel::check_here();
      std::size_t end = text_.find('\n', begin);
      if (end == std::string::npos) end = text_.size();
      ++line_;
      take_words(std::string_view(text_).substr(begin, end - begin));
      obey();
      begin = end + 1;
    }
    finish_pass();
    std::erase_if(program_.sections, [](const GcodeSection& s) { return s.passes.empty(); });
    return std::move(program_);
  }

 private:
  [[nodiscard]] Problem complain(const std::string& why) const {
    return bad_input(say("{0}, line {1}: {2}.", where_, line_, why));
  }

  // The number of what comes next, where a comment says it.
  void take_work(std::string_view s, std::size_t at, std::string_view begins, std::size_t close) {
    if (s.substr(at, begins.size()) != begins) return;
    int number = 0;
    const char* first = s.data() + at + begins.size();
    const auto [end, error] = std::from_chars(first, s.data() + close, number);
    if (error == std::errc() && end > first) work_ = number;
  }

  void take_words(std::string_view s) {
    words_.clear();
    if (s.size() > 2000) throw complain(say("the line is longer than any machine takes"));
    for (std::size_t i = 0; i < s.size();) {
      const char c = s[i];
      if (c == '(') {
        const std::size_t close = s.find(')', i);
        if (close == std::string_view::npos) throw complain(say("a comment is not closed"));
        take_work(s, i, "(work ", close);
        i = close + 1;
      } else if (c == ';') {
        take_work(s, i, "; work ", s.size());
        break;
      } else if (c == '%') {
        break;
      } else if (c == ' ' || c == '\t' || c == '\r') {
        ++i;
      } else {
        const char letter = static_cast<char>(c >= 'a' && c <= 'z' ? c - 32 : c);
        if (letter < 'A' || letter > 'Z')
          throw complain(say("“{0}” is not a word of G-code", std::string(s.substr(i, 12))));
        ++i;
        while (i < s.size() && (s[i] == ' ' || s[i] == '+')) ++i;
        double value = 0;
        const auto [end, error] = std::from_chars(s.data() + i, s.data() + s.size(), value, std::chars_format::fixed);
        if (error != std::errc()) throw complain(say("a number was expected after ") + letter);
        if (!std::isfinite(value) || std::abs(value) > 1e7)
          throw complain(say("the number after {0} is far too large", letter));
        i = static_cast<std::size_t>(end - s.data());
        words_.push_back({letter, value});
      }
    }
  }

  // What the words of one line ask for together.
  struct Line {
    double x = NAN, y = NAN, z = NAN, i = 0, j = 0, r = NAN;
    bool moves = false, has_centre = false, dwell = false, change = false, stop = false;
  };

  // NISTIR 6556, 3.3.1.2: a word but G and M comes once a line, one motion at a time.
  void refuse_twice() const {
    std::uint32_t seen = 0;  // letters, a bit each
    int motions = 0;
    for (const Word& w : words_) {
      if (w.letter != 'G' && w.letter != 'M') {
        const std::uint32_t bit = std::uint32_t{1} << (w.letter - 'A');
        if ((seen & bit) != 0) throw complain(say("the word {0} comes twice in one line", w.letter));
        seen |= bit;
      }
      if (w.letter == 'G' && w.value >= 0 && w.value < 3.5 && ++motions > 1)
        throw complain(say("two motions are asked for in one line"));
    }
  }

  void miscellaneous(int m, Line& line) const {
    if (m == 0 || m == 1 || m == 6)
      line.change = true;
    else if (m == 2 || m == 30)
      line.stop = true;
    else if (m != 3 && m != 4 && m != 5 && (m < 7 || m > 9))
      throw complain(say("M{0} is not known here", m));
  }

  void take(const Word& w, Line& line) {
    switch (w.letter) {
      case 'N':
      case 'O':
      case 'T':
      case 'P':
      case 'H':
      case 'D':
        break;
      case 'G':
        line.dwell = group(w.value) || line.dwell;
        break;
      case 'M':
        miscellaneous(static_cast<int>(w.value), line);
        break;
      case 'F':
        if (w.value <= 0) throw complain(say("a feed above zero was expected"));
        feed_ = w.value * unit_;
        break;
      case 'S':
        now().spindle = w.value;
        break;
      case 'X':
      case 'Y':
      case 'Z':
        (w.letter == 'X' ? line.x : w.letter == 'Y' ? line.y : line.z) = w.value * unit_;
        line.moves = true;
        break;
      case 'I':
      case 'J':
        (w.letter == 'I' ? line.i : line.j) = w.value * unit_;
        line.has_centre = true;
        break;
      case 'R':
        line.r = w.value * unit_;
        break;
      default:
        throw complain(say("the word {0} is not known here", w.letter));
    }
  }

  void obey() {
    refuse_twice();
    Line line;
    for (const Word& w : words_) take(w, line);
    if (line.change) {
      finish_pass();
      if (!now().passes.empty()) program_.sections.emplace_back();
      work_ = 0;
    }
    if (line.moves && !line.dwell) move(line.x, line.y, line.z, {line.i, line.j}, line.has_centre, line.r);
    if (line.stop) program_.ended = true;
  }

  // Returns true for a dwell, whose words are no move.
  bool group(double value) {
    const int tenths = static_cast<int>(std::lround(value * 10));
    switch (tenths) {
      case 0:
      case 10:
      case 20:
      case 30:
        motion_ = tenths / 10;
        return false;
      case 40:
        return true;
      case 170:
      case 400:
      case 490:
      case 540:
      case 800:
      case 940:
      case 911:
        return false;
      case 200:
        unit_ = kMmPerInch;
        return false;
      case 210:
        unit_ = 1;
        return false;
      case 900:
        absolute_ = true;
        return false;
      case 910:
        absolute_ = false;
        return false;
      default:
        throw complain(say("G{0} is not known here", tenths / 10));
    }
  }

  GcodeSection& now() { return program_.sections.back(); }

  void move(double x, double y, double z, Point centre, bool has_centre, double r) {
    const auto to_axis = [&](double wanted, double here) {
      return std::isnan(wanted) ? here : absolute_ ? wanted : here + wanted;
    };
    const Point3 to{to_axis(x, at_.x), to_axis(y, at_.y), to_axis(z, at_.z)};
    if (motion_ == 0) {
      finish_pass();
      now().rapids.push_back({at_, to, now().passes.size()});
      if (to.z < face_ - 1e-6 || (at_.z < face_ - 1e-6 && (to.x != at_.x || to.y != at_.y))) ++now().rapid_in_wood;
      at_ = to;
      return;
    }
    if (feed_ <= 0) throw complain(say("a feed is missing before the first cut"));
    if (to.x != at_.x || to.y != at_.y) now().fastest_feed = std::max(now().fastest_feed, feed_);
    if (pass_.points.empty()) {
      pass_.points.push_back(at_);
      pass_work_ = work_;
    }
    if (motion_ == 1) {
      pass_.points.push_back(to);
    } else {
      arc(to, centre, has_centre, r);
    }
    pass_feeds_.resize(pass_.points.size(), feed_);
    now().deepest = std::min(now().deepest, to.z);
    at_ = to;
  }

  // NISTIR 6556, 3.5.3: centre form with I and J from the start; radius form, negative for more than half a turn.
  void arc(const Point3& to, Point off, bool has_centre, double r) {
    const Point a = at_.flat(), b = to.flat();
    const bool clockwise = motion_ == 2;
    Point centre = a + off;
    if (!has_centre) {
      if (std::isnan(r)) throw complain(say("an arc needs I and J, or R"));
      const Point half = (b - a) * 0.5;
      const double d = length(half);
      if (d < 1e-9 || std::abs(r) < d * (1 - 1e-6)) throw complain(say("no circle of this R passes both ends"));
      const double h = std::sqrt(std::max(0.0, r * r - d * d));
      const double side = (clockwise ? -1 : 1) * (r < 0 ? -1 : 1);
      centre = a + half + Point{-half.y, half.x} * (side * h / d);
    }
    const double r0 = distance(centre, a), r1 = distance(centre, b);
    if (r0 < 1e-9 || std::abs(r0 - r1) > std::max(0.05, 0.001 * r0))
      throw complain(say("the arc's ends lie at different distances from its centre"));
    const double from = std::atan2(a.y - centre.y, a.x - centre.x);
    double turn = std::atan2(b.y - centre.y, b.x - centre.x) - from;
    if (clockwise && turn >= -1e-9) turn -= 2 * std::numbers::pi;
    if (!clockwise && turn <= 1e-9) turn += 2 * std::numbers::pi;
    const double step = 2 * std::acos(std::max(0.5, 1 - 0.001 / r0));
    const int n = whole_up(std::abs(turn) / step, 2, 1'000'000);
    constexpr std::size_t kMostPoints = 50'000'000;
    points_ += static_cast<std::size_t>(n);
    if (points_ > kMostPoints) throw complain(say("the arcs up to here are larger and more than any sign's"));
    for (int k = 1; k <= n; ++k) {
      const double t = static_cast<double>(k) / n, angle = from + turn * t, radius = r0 + (r1 - r0) * t;
      pass_.points.push_back(k == n ? to
                                    : Point3{centre.x + radius * std::cos(angle), centre.y + radius * std::sin(angle),
                                             at_.z + (to.z - at_.z) * t});
    }
  }

  void finish_pass() {
    if (pass_.points.size() > 1) {
      now().passes.push_back(std::move(pass_));
      now().feeds.push_back(std::move(pass_feeds_));
      now().work.push_back(pass_work_);
    }
    pass_ = {};
    pass_feeds_ = {};
  }

  const std::string& text_;
  const std::string& where_;
  double face_;
  GcodeProgram program_;
  std::vector<Word> words_;  // of the line
  Pass pass_;
  std::vector<double> pass_feeds_;
  int pass_work_ = 0;
  int work_ = 0;  // what the last comment of that kind said
  Point3 at_{0, 0, 1e6};
  std::size_t line_ = 0, points_ = 0;
  int motion_ = 0;
  double unit_ = 1, feed_ = 0;
  bool absolute_ = true;
};

}  // namespace

GcodeProgram read_gcode(const std::string& text, const std::string& where, double face) {
  return Reader(text, where, face).read();
}

}  // namespace doyen
