#include "geometry/path.hpp"

#include <algorithm>
#include <charconv>
#include <numbers>

#include "geometry/polyline.hpp"
#include "measure/length.hpp"
#include "measure/whole.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = PathStep::Kind;

constexpr std::size_t kMostSteps = 4'000'000;

class PathReader {
 public:
  explicit PathReader(std::string_view text) : text_(text) {}

  void read(Path& path) {
    skip();
    while (at_ < text_.size()) {
      const char c = text_[at_];
      if (std::string_view("MmLlHhVvCcSsQqTtAaZz").find(c) != std::string_view::npos) {
        command_ = c;
        ++at_;
        if (path.steps.empty() && c != 'M' && c != 'm') throw complain(say("a path begins with M"));
        if (c == 'Z' || c == 'z') {
          path.close();
          here_ = start_;
          skip();
          last_ = c;
          continue;
        }
      } else if (command_ == 0 || command_ == 'Z' || command_ == 'z') {
        throw complain(say("a command letter was expected"));
      }
      step(path);
      skip();
      if (path.steps.size() > kMostSteps) throw complain(say("the path has more than four million steps"));
    }
  }

 private:
  [[nodiscard]] Problem complain(const std::string& why) const {
    return bad_input(say("Path data, character {0}: {1}.", at_ + 1, why));
  }
  void skip() {
    while (at_ < text_.size() && std::string_view(" \t\r\n\f,").find(text_[at_]) != std::string_view::npos) ++at_;
  }
  double number() {
    skip();
    if (at_ < text_.size() && text_[at_] == '+') ++at_;
    double value = 0;
    const auto [end, error] = std::from_chars(text_.data() + at_, text_.data() + text_.size(), value);
    if (error != std::errc() || !std::isfinite(value)) throw complain(say("a number was expected"));
    if (std::abs(value) > 1e9) throw complain(say("a number is far too large"));
    at_ = static_cast<std::size_t>(end - text_.data());
    return value;
  }
  bool flag() {
    skip();
    if (at_ >= text_.size() || (text_[at_] != '0' && text_[at_] != '1')) throw complain(say("0 or 1 was expected"));
    return text_[at_++] == '1';
  }
  Point point(bool relative) {
    const double x = number();
    const double y = number();
    return relative ? here_ + Point{x, y} : Point{x, y};
  }

  void step(Path& path) {
    const bool relative = command_ >= 'a';
    const char upper = relative ? static_cast<char>(command_ - 32) : command_;
    const auto last_was = [&](std::string_view set) { return set.find(last_) != std::string_view::npos; };
    switch (upper) {
      case 'M':
        here_ = start_ = point(relative);
        path.move(here_);
        command_ = relative ? 'l' : 'L';
        break;
      case 'L':
        path.line(here_ = point(relative));
        break;
      case 'H':
        here_.x = number() + (relative ? here_.x : 0);
        path.line(here_);
        break;
      case 'V':
        here_.y = number() + (relative ? here_.y : 0);
        path.line(here_);
        break;
      case 'C':
      case 'S': {
        const Point c1 = upper == 'C' ? point(relative) : last_was("CcSs") ? here_ * 2 - control_ : here_;
        control_ = point(relative);
        here_ = point(relative);
        path.curve(c1, control_, here_);
        break;
      }
      case 'Q':
      case 'T': {
        const Point from = here_;
        control_ = upper == 'Q' ? point(relative) : last_was("QqTt") ? here_ * 2 - control_ : here_;
        here_ = point(relative);
        path.quadratic(from, control_, here_);
        break;
      }
      default:
        arc(path, relative);
        break;
    }
    last_ = upper;
  }

  // W3C SVG 1.1, appendix F.6: from end points to centre, then cubics of at most a quarter turn.
  void arc(Path& path, bool relative) {
    double rx = std::abs(number());
    double ry = std::abs(number());
    const double tilt = number() * std::numbers::pi / 180;
    const bool large = flag();
    const bool sweep = flag();
    const Point from = here_;
    here_ = point(relative);
    if (from == here_) return;
    if (rx < 1e-12 || ry < 1e-12) {
      path.line(here_);
      return;
    }
    const double c = std::cos(tilt);
    const double s = std::sin(tilt);
    const Point half = (from - here_) * 0.5;
    const Point p{c * half.x + s * half.y, -s * half.x + c * half.y};
    const double over = (p.x * p.x) / (rx * rx) + (p.y * p.y) / (ry * ry);
    if (over > 1) {
      rx *= std::sqrt(over);
      ry *= std::sqrt(over);
    }
    const double below = rx * rx * p.y * p.y + ry * ry * p.x * p.x;
    const double k = std::sqrt(std::max(0.0, (rx * rx * ry * ry - below) / below)) * (large == sweep ? -1 : 1);
    const Point centre_turned{k * rx * p.y / ry, -k * ry * p.x / rx};
    const Point middle = (from + here_) * 0.5;
    const Point centre{c * centre_turned.x - s * centre_turned.y + middle.x,
                       s * centre_turned.x + c * centre_turned.y + middle.y};
    const double start = std::atan2((p.y - centre_turned.y) / ry, (p.x - centre_turned.x) / rx);
    double turn = std::atan2((-p.y - centre_turned.y) / ry, (-p.x - centre_turned.x) / rx) - start;
    if (sweep && turn < 0) turn += 2 * std::numbers::pi;
    if (!sweep && turn > 0) turn -= 2 * std::numbers::pi;
    const int parts = whole_up(std::abs(turn) / (std::numbers::pi / 2) - 1e-9, 1, 5);
    const double each = turn / parts;
    const double bow = 4.0 / 3 * std::tan(each / 4);
    const auto on = [&](double ux, double uy) {
      return Point{centre.x + c * rx * ux - s * ry * uy, centre.y + s * rx * ux + c * ry * uy};
    };
    for (int i = 0; i < parts; ++i) {
      const double a = start + each * i;
      const double b = a + each;
      const Point to = i + 1 == parts ? here_ : on(std::cos(b), std::sin(b));
      path.curve(on(std::cos(a) - bow * std::sin(a), std::sin(a) + bow * std::cos(a)),
                 on(std::cos(b) + bow * std::sin(b), std::sin(b) - bow * std::cos(b)), to);
    }
  }

  std::string_view text_;
  std::size_t at_ = 0;
  char command_ = 0;
  char last_ = 0;
  Point here_, start_, control_;
};

// Chord error of n equal parts of a cubic is at most |second difference| * sqrt(3)/18 ... bounded here by 6·d/(8 n²).
int parts_for(const Point& p0, const PathStep& s, double flatness) {
  const Point d1 = p0 - s.c1 * 2 + s.c2;
  const Point d2 = s.c1 - s.c2 * 2 + s.to;
  const double d = std::max(length(d1), length(d2));
  const double n = std::sqrt(6 * d / (8 * flatness));
  return whole_up(n, 1, 2000);
}

}  // namespace

void Path::quadratic(Point from, Point control, Point p) {
  curve(from + (control - from) * (2.0 / 3), p + (control - p) * (2.0 / 3), p);
}

Path parse_path(std::string_view data, bool until_error) {
  Path path;
  try {
    PathReader(data).read(path);
  } catch (const Problem&) {
    if (!until_error) throw;
  }
  return path;
}

std::string path_data(const Path& path, int decimals) {
  std::string out;
  const auto put = [&](Point p) {
    out += format_number(p.x, decimals);
    out += ' ';
    out += format_number(p.y, decimals);
  };
  for (const PathStep& s : path.steps) {
    if (!out.empty()) out += ' ';
    switch (s.kind) {
      case Kind::Move:
        out += "M";
        put(s.to);
        break;
      case Kind::Line:
        out += "L";
        put(s.to);
        break;
      case Kind::Curve:
        out += "C";
        put(s.c1);
        out += ' ';
        put(s.c2);
        out += ' ';
        put(s.to);
        break;
      case Kind::Close:
        out += "Z";
        break;
    }
  }
  return out;
}

Path transformed(const Path& path, const Transform& by) {
  Path out = path;
  for (PathStep& s : out.steps) {
    s.c1 = by.apply(s.c1);
    s.c2 = by.apply(s.c2);
    s.to = by.apply(s.to);
  }
  return out;
}

Flat flatten(const Path& path, double flatness, bool close_all) {
  Flat flat;
  std::vector<Point> now;
  Point start;
  const auto finish = [&](bool closed) {
    if (now.size() > 3) now = thinned(now, std::min(kNeedless, flatness / 4));
    if (now.size() > 1 && now.front() == now.back()) {
      now.pop_back();
      closed = true;
    }
    if (now.size() >= 3 && (closed || close_all)) {
      flat.closed.push_back(now);
    } else if (now.size() >= 2 && !close_all) {
      flat.open.push_back(now);
    }
    now.clear();
  };
  for (const PathStep& s : path.steps) {
    if (s.kind == Kind::Move) {
      finish(false);
      now.push_back(start = s.to);
      continue;
    }
    if (s.kind == Kind::Close) {
      finish(true);
      continue;
    }
    if (now.empty()) now.push_back(start);
    const Point p0 = now.back();
    if (s.kind == Kind::Line) {
      if (!(s.to == p0)) now.push_back(s.to);
      continue;
    }
    const int n = parts_for(p0, s, flatness);
    for (int i = 1; i <= n; ++i) {
      const double t = static_cast<double>(i) / n;
      const double u = 1 - t;
      now.push_back(i == n ? s.to
                           : p0 * (u * u * u) + s.c1 * (3 * u * u * t) + s.c2 * (3 * u * t * t) + s.to * (t * t * t));
    }
  }
  finish(false);
  return flat;
}

}  // namespace doyen
