#include "controller.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <map>
#include <numbers>

namespace controller {
namespace {

constexpr double kChord = 0.002;  // mm, how far an arc's chords may lie off it

std::string number(double value) {
  char text[40];
  std::snprintf(text, sizeof text, "%.4f", value);
  return text;
}

// A line's words: letters with their figures; several G and M may stand in one.
struct Words {
  std::vector<double> g, m;
  std::map<char, double> others;
  std::string wrong;
};

std::string without_comments(const std::string& line) {
  std::string text;
  bool inside = false;
  for (const char c : line) {
    if (c == ';' || (c == '%' && text.empty())) break;  // NISTIR 6556, 3.1: a line of % frames a file
    if (c == '(') inside = true;
    if (!inside && c != ' ' && c != '\t' && c != '\r')
      text += c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c;
    if (c == ')') inside = false;
  }
  return text;
}

Words words_of(const std::string& text) {
  Words words;
  std::size_t at = 0;
  while (at < text.size()) {
    const char letter = text[at++];
    if (letter < 'A' || letter > 'Z') {
      words.wrong = std::string("a letter was expected, not ") + letter;
      return words;
    }
    if (at < text.size() && text[at] == '+') ++at;
    double value = 0;
    const auto [end, fault] = std::from_chars(text.data() + at, text.data() + text.size(), value);
    if (fault != std::errc() || !std::isfinite(value)) {
      words.wrong = std::string("a figure was expected after ") + letter;
      return words;
    }
    at = static_cast<std::size_t>(end - text.data());
    if (letter == 'G')
      words.g.push_back(value);
    else if (letter == 'M')
      words.m.push_back(value);
    else
      words.others[letter] = value;
  }
  return words;
}

}  // namespace

Controller::Controller(const Figures& figures, double speed) : figures_(figures), queue_(figures), speed_(speed) {
  say("ready");
}

void Controller::receive(std::string_view bytes) {
  for (const char c : bytes) {
    switch (c) {
      case '?':
        report();
        break;
      case '!':
        hold_ = !queue_.empty();
        break;
      case '~':
        hold_ = false;
        if (const Block* b = queue_.running(); b != nullptr && b->kind == Block::Kind::Wait) queue_.drop_running();
        break;
      case '\x18':
        queue_.clear();
        incoming_.clear();
        hold_ = alarm_ = false;
        ended_ = true;
        line_ = 0;
        mode_ = 0;
        say("ready");
        break;
      default:
        incoming_ += c;
        if (c == '\n') take_own_word();
    }
  }
  take_lines();
}

std::string Controller::take_replies() {
  std::string out;
  out.swap(replies_);
  return out;
}

Controller::State Controller::state() const {
  if (alarm_) return State::Alarm;
  const Block* b = queue_.running();
  if (b != nullptr && b->kind == Block::Kind::Wait) return State::Wait;
  if (hold_) return State::Hold;
  return b == nullptr ? State::Idle : State::Run;
}

bool Controller::hungry() const { return !ended_ && !alarm_ && queue_.lines() < figures_.ahead / 2; }

void Controller::take_lines() {
  while (true) {
    const std::size_t end = incoming_.find('\n');
    if (end == std::string::npos) return;
    std::string line = incoming_.substr(0, end);
    if (alarm_) {
      say("error an alarm stands: stop first");
      incoming_.erase(0, end + 1);
      continue;
    }
    if (queue_.lines() >= figures_.ahead) return;  // answered when there is room
    if (figures_.lines_a_second > 0) {
      if (credit_ < 1) return;
      credit_ -= 1;
    }
    incoming_.erase(0, end + 1);
    ++line_;
    const std::string wrong = take(line);
    say(wrong.empty() ? "ok" : "error line " + std::to_string(line_) + ": " + wrong);
  }
}

void Controller::take_own_word() {
  const std::size_t before = incoming_.size() < 2 ? std::string::npos : incoming_.rfind('\n', incoming_.size() - 2);
  const std::size_t begin = before == std::string::npos ? 0 : before + 1;
  if (incoming_[begin] != '#') return;
  const std::string wrong = own_word(incoming_.substr(begin, incoming_.size() - 1 - begin));
  incoming_.erase(begin);
  say(wrong.empty() ? "ok" : "error " + wrong);
}

// What is said to the simulation, not to a machine.
std::string Controller::own_word(const std::string& line) {
  double a = 0, b = 0, c = 0;
  if (std::sscanf(line.c_str(), "#override %lf", &a) == 1 && a >= 10 && a <= 200) {
    override_ = a / 100;
    return {};
  }
  if (std::sscanf(line.c_str(), "#speed %lf", &a) == 1 && a > 0 && a <= 10'000) {
    speed_ = a;
    return {};
  }
  if (std::sscanf(line.c_str(), "#surface %lf", &a) == 1) {
    surface_ = a;
    return {};
  }
  if (std::sscanf(line.c_str(), "#place %lf %lf %lf", &a, &b, &c) == 3 && queue_.empty()) {
    queue_.set_place({a, b, c});
    way_.push_back({a, b, c});
    return {};
  }
  return "not known: " + line;
}

std::string Controller::outside(const At& to) const {
  const std::array<double, 3> at{to.x + figures_.origin.x, to.y + figures_.origin.y, to.z + figures_.origin.z};
  for (std::size_t i = 0; i < 3; ++i) {
    if (at[i] < -1e-6 || at[i] > figures_.travel[i] + 1e-6)
      return std::string("past the end of ") + "xyz"[i] + ", at " + number(at[i]) + " of " + number(figures_.travel[i]);
  }
  return {};
}

std::string Controller::move(int mode, const At& to, std::optional<double> i, std::optional<double> j) {
  if (const std::string past = outside(to); !past.empty()) {
    fail(past);
    return "past the end";
  }
  if (mode != 0 && feed_ <= 0) return "no feed was said";
  if (mode < 2) {
    queue_.add_move(to, feed_, mode == 0, line_);
    return {};
  }
  const At from = queue_.end();
  if (!i && !j) return "an arc needs I or J";
  const double cx = from.x + i.value_or(0), cy = from.y + j.value_or(0);
  const double r = std::hypot(from.x - cx, from.y - cy), r2 = std::hypot(to.x - cx, to.y - cy);
  if (r < 1e-6 || std::abs(r - r2) > 0.02 + 0.001 * r)
    return "the arc's ends lie at different distances from its middle";
  const double start = std::atan2(from.y - cy, from.x - cx), end = std::atan2(to.y - cy, to.x - cx);
  double turn = mode == 2 ? start - end : end - start;
  while (turn <= 1e-9) turn += 2 * std::numbers::pi;
  const double step = 2 * std::acos(std::max(0.0, 1 - kChord / r));
  const int parts = std::max(2, static_cast<int>(std::ceil(turn / step)));
  for (int k = 1; k <= parts; ++k) {
    const double share = static_cast<double>(k) / parts;
    const double angle = start + (mode == 2 ? -1 : 1) * turn * share;
    const At at =
        k == parts ? to : At{cx + r * std::cos(angle), cy + r * std::sin(angle), from.z + (to.z - from.z) * share};
    queue_.add_move(at, feed_, false, line_, false, r);
  }
  return {};
}

std::string Controller::take(const std::string& line) {
  const std::string text = without_comments(line);
  if (text.empty() || text == "%") return {};
  const Words words = words_of(text);
  if (!words.wrong.empty()) return words.wrong;
  ended_ = false;
  bool dwell = false, probe = false;
  for (const double g : words.g) {
    if (g == 0 || g == 1 || g == 2 || g == 3)
      mode_ = static_cast<int>(g);
    else if (g == 4)
      dwell = true;
    else if (g == 20 || g == 21)
      unit_ = g == 20 ? 25.4 : 1;
    else if (g == 90 || g == 91)
      absolute_ = g == 90;
    else if (std::abs(g - 38.2) < 1e-9)
      probe = true;
    else if (g != 17 && g != 94 && g != 54)
      return "G" + number(g) + " is not known here";
  }
  const auto word = [&](char c) -> std::optional<double> {
    const auto found = words.others.find(c);
    return found == words.others.end() ? std::nullopt : std::optional(found->second);
  };
  if (const auto f = word('F')) feed_ = *f * unit_;
  if (const auto t = word('T')) tool_ = static_cast<int>(*t);
  if (dwell) {
    Block b;
    b.kind = Block::Kind::Dwell;
    b.seconds = std::clamp(word('P').value_or(0) / (figures_.dwell_in_ms ? 1000 : 1), 0.0, 3600.0);
    b.line = line_;
    queue_.add(b);
  }
  if (!dwell && (word('X') || word('Y') || word('Z'))) {
    At to = absolute_ ? queue_.end() : At{};
    if (const auto x = word('X')) to.x = *x * unit_;
    if (const auto y = word('Y')) to.y = *y * unit_;
    if (const auto z = word('Z')) to.z = *z * unit_;
    if (!absolute_) to = {to.x + queue_.end().x, to.y + queue_.end().y, to.z + queue_.end().z};
    if (probe) {
      if (surface_ && *surface_ < queue_.end().z) to.z = std::max(to.z, *surface_);
      queue_.add_move(to, feed_, false, line_, true);
      say("touched " + number(to.x) + " " + number(to.y) + " " + number(to.z));
    } else {
      const auto off = [&](char c) -> std::optional<double> {
        const auto v = word(c);
        return v ? std::optional(*v * unit_) : std::nullopt;
      };
      if (std::string wrong = move(mode_, to, off('I'), off('J')); !wrong.empty()) return wrong;
    }
  }
  for (const double m : words.m) {
    Block b;
    b.line = line_;
    if (m == 0 || m == 1 || m == 6) {
      b.kind = Block::Kind::Wait;
      b.change = m == 6 ? tool_ : 0;
    } else if (m == 2 || m == 30) {
      b.kind = Block::Kind::End;
      ended_ = true;
    } else if (m == 3 || m == 4 || m == 5) {
      b.kind = Block::Kind::Dwell;  // everything comes to rest before the spindle changes
    } else if (m != 7 && m != 8 && m != 9) {
      return "M" + number(m) + " is not known here";
    } else {
      continue;
    }
    queue_.add(b);
  }
  return {};
}

void Controller::fail(const std::string& words) {
  queue_.clear();
  alarm_ = true;
  say("alarm " + words);
}

void Controller::advance(double seconds) {
  // In small parts, so that lines are taken in as soon as there is room.
  constexpr double kPart = 0.01;
  for (double left = seconds; left > 1e-12;) {
    const double part = std::min(kPart, left);
    left -= part;
    if (figures_.lines_a_second > 0)
      credit_ = std::min(credit_ + part * figures_.lines_a_second, static_cast<double>(figures_.ahead));
    take_lines();
    if (alarm_) return;
    seconds_ += queue_.advance(part, override_, hold_, way_);
    if (const Block* b = queue_.running(); b != nullptr && b->kind == Block::Kind::End) {
      queue_.drop_running();
      line_ = 0;
      say("end");
    }
    if (queue_.empty() && incoming_.empty()) return;
  }
}

void Controller::report() {
  static const char* const kStates[] = {"idle", "run", "hold", "wait", "alarm"};
  const At at = queue_.place();
  const Block* b = queue_.running();
  std::string text = std::string("<") + kStates[static_cast<int>(state())] + " at " + number(at.x) + " " +
                     number(at.y) + " " + number(at.z) + " feed " + number(queue_.speed() * 60) + " line " +
                     std::to_string(b == nullptr ? 0 : b->line) + " seconds " + number(seconds_);
  if (b != nullptr && b->kind == Block::Kind::Wait && b->change > 0) text += " change " + std::to_string(b->change);
  text += " way";
  for (const At& p : way_) text += " " + number(p.x) + "," + number(p.y) + "," + number(p.z);
  way_.clear();
  say(text + ">");
}

}  // namespace controller
