#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <limits>

#include "cancel.hpp"
#include "machine/arcs.hpp"
#include "machine/motion.hpp"
#include "problem.hpp"
#include "run/gcode.hpp"
#include "run/plain_words.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::string comment_line(const std::string& text, const MachineProfile& machine) {
  return machine.semicolons ? "; " + plain_for_machine(text) + "\n" : "(" + plain_for_machine(text) + ")\n";
}

std::string framed(const std::string& text, const MachineProfile& machine) {
  return machine.percent_lines ? "%\n" + text + "%\n" : text;
}

class Writer {
 public:
  Writer(const GcodeJob& job, const MachineProfile& machine)
      : job_(job), machine_(machine), along_board_(machine_along_board(machine, job.placed.turn)) {
    unit_ = machine_.unit == Unit::Inch ? kMmPerInch : 1;
    for (int k = 0; k < machine_.decimals; ++k) scale_ *= 10;
  }

  std::string write() {
    comment("job " + job_.title);
    comment("zero " + job_.zero);
    bool first = true;
    for (const GcodeJob::Part& part : job_.parts) {
      if (!part.feeds.known())
        throw bad_input(say("The {0} has no feeds for this wood; no file is written with a guess.", part.bit->name));
      comment("bit " + std::to_string(part.number) + " " + part.bit->name);
      if (first)
        line(std::string(machine_.unit == Unit::Inch ? "G20" : "G21") + " G90 G17 G94");
      else
        change_to(part);
      if (first && machine_.bit_change == BitChange::ToolNumber)
        line("T" + std::to_string(machine_.tool_of(part.bit->id, part.number)) + " M6");
      first = false;
      start(part);
      for (std::size_t i = 0; i < part.passes.size(); ++i) {
        Feeds feeds = part.feeds;
        feeds.feed *= i < part.feed_shares.size() ? part.feed_shares[i] : 1;
        if (part.passes[i]->empty()) continue;
        comment("work " + std::to_string(i + 1));
        for (const Pass& pass : *part.passes[i]) {
          Cancel::check_here();
          write_pass(pass, feeds, part);
        }
      }
      if (last_) rapid_z(clearance());
      last_.reset();
    }
    line("M5");
    line(machine_.end_word);
    return framed(text_, machine_);
  }

 private:
  void begin_line() {
    if (!machine_.line_numbers) return;
    text_ += "N" + std::to_string(number_) + " ";
    number_ += 10;
  }
  void line(const std::string& words) {
    begin_line();
    text_ += words;
    text_ += '\n';
  }
  // It always begins with a word of ours: some controllers take a comment's first word for an order.
  void comment(const std::string& text) { text_ += comment_line(text, machine_); }

  void start(const GcodeJob::Part& part) {
    const double rpm = std::clamp(part.feeds.rpm, machine_.spindle_least, machine_.spindle_most);
    line("M3 S" + format_number(rpm, 0));
    if (machine_.spin_up_seconds > 0)
      line("G4 P" + (machine_.dwell_in_ms ? format_number(machine_.spin_up_seconds * 1000, 0)
                                          : format_number(machine_.spin_up_seconds, 1)));
    feed_ = -1;
    x_ = y_ = z_ = kUnknown;
    rapid_z(clearance());
  }

  [[nodiscard]] double clearance() const {
    return job_.travel ? std::max(machine_.clearance, job_.travel->highest()) : machine_.clearance;
  }
  // Room for hands and a longer bit, as far as the machine surely goes.
  [[nodiscard]] double change_height() const {
    constexpr double kRoom = 50;  // mm (common practice, no source)
    double lowest = 0;
    for (const GcodeJob::Part& part : job_.parts) {
      for (const std::vector<Pass>* passes : part.passes) lowest = std::min(lowest, deepest(*passes));
    }
    return std::max(clearance(), std::min(kRoom, machine_.travel[2] + lowest - 1));
  }

  // Where bits come nearest to who stands in front, in the middle: a hand gets in there, and the machine reaches it.
  void park() {
    Box middles;
    for (const GcodeJob::Part& part : job_.parts) {
      for (const std::vector<Pass>* passes : part.passes) {
        for (const Pass& pass : *passes) {
          for (const Point3& p : pass.points) middles.add(job_.placed.at_machine(p.flat()));
        }
      }
    }
    line("G0" + word('X', steps((middles.left + middles.right) / 2)) +
         word('Y', steps(job_.placed.y_near ? middles.top : middles.bottom)));
  }

  void change_to(const GcodeJob::Part& part) {
    if (machine_.bit_change != BitChange::ToolNumber) {
      rapid_z(change_height());
      park();
    }
    line("M5");
    if (machine_.bit_change == BitChange::ToolNumber) {
      line("T" + std::to_string(machine_.tool_of(part.bit->id, part.number)) + " M6");
    } else {
      comment("change to bit " + std::to_string(part.number) + " " + part.bit->name);
      line(machine_.pause_word);
    }
  }

  // In units of the last place that is written: none is rounded away by more than half of it, and z is rounded up, so
  // that rounding never cuts deeper.
  [[nodiscard]] std::int64_t steps(double mm) const { return std::llround(mm / unit_ * scale_); }
  [[nodiscard]] std::int64_t steps_up(double mm) const { return std::llround(std::ceil(mm / unit_ * scale_ - 1e-6)); }
  void add_word(std::string& to, char letter, std::int64_t steps) const {
    const auto scale = static_cast<std::int64_t>(scale_);
    char buffer[32];
    char* end = buffer;
    *end++ = ' ';
    *end++ = letter;
    if (steps < 0) *end++ = '-';
    const std::int64_t size = std::abs(steps);
    end = std::to_chars(end, buffer + sizeof buffer, size / scale).ptr;
    std::int64_t rest = size % scale;
    if (rest != 0) {
      *end++ = '.';
      for (std::int64_t place = scale / 10; rest != 0; place /= 10) {
        *end++ = static_cast<char>('0' + rest / place);
        rest %= place;
      }
    }
    to.append(buffer, end);
  }
  [[nodiscard]] std::string word(char letter, std::int64_t steps) const {
    std::string out;
    add_word(out, letter, steps);
    return out;
  }

  void check(const Point3& p) const {
    const bool fine = std::isfinite(p.x) && std::isfinite(p.y) && std::isfinite(p.z);
    if (!fine) throw bad_input(say("A coordinate is not a number; no file is written."));
    const double slack = machine_.travel[0] + machine_.travel[1];
    if (std::abs(p.x) > slack || std::abs(p.y) > slack || -p.z > machine_.travel[2] + 100) {
      throw bad_input(say("A cut lies outside the machine's travel; no file is written."));
    }
  }

  void rapid_z(double z) { line("G0" + word('Z', steps(z + job_.placed.z))); }

  // The words for a move from what was last written; no line where nothing moves at this precision. `off`: of an arc's
  // centre from where it begins.
  void feed_to(const char* g, const Point3& p, double feed, const Point* off = nullptr) {
    check(p);
    const Point3 at = job_.placed.at_machine(p);
    const std::int64_t x = steps(at.x), y = steps(at.y), z = steps_up(at.z);
    if (x == x_ && y == y_ && z == z_ && off == nullptr) return;
    begin_line();
    text_ += g;
    if (x != x_) add_word(text_, 'X', x_ = x);
    if (y != y_) add_word(text_, 'Y', y_ = y);
    if (z != z_) add_word(text_, 'Z', z_ = z);
    if (off != nullptr) {
      add_word(text_, 'I', steps(off->x));
      add_word(text_, 'J', steps(off->y));
    }
    const double shown = std::max(1.0, std::floor(feed / unit_ * 10) / 10);
    if (std::abs(shown - feed_) > 0.02 * feed_ || feed_ < 0 || shown < feed_ * 0.98) {
      text_ += " F" + format_number(shown, 1);
      feed_ = shown;
    }
    text_ += '\n';
  }

  void write_pass(const Pass& pass, const Feeds& feeds, const GcodeJob::Part& part) {
    const Point3& first = pass.points.front();
    check(first);
    if (last_) rapid_z(job_.travel ? job_.travel->between(*last_, first.flat()) : clearance());
    last_ = pass.points.back().flat();
    const Point above = job_.placed.at_machine(first.flat());
    x_ = steps(above.x);
    y_ = steps(above.y);
    line("G0" + word('X', x_) + word('Y', y_));
    z_ = steps_up((job_.travel ? job_.travel->approach : kApproach) + job_.placed.z);
    line("G0" + word('Z', z_));
    // Fast through what is cut away already; not at rapid speed, which stays above the face.
    const double approach = job_.travel ? job_.travel->approach : kApproach;
    const double down = fast_down_to(pass, approach);
    if (down < approach) feed_to("G1", {first.x, first.y, down}, machine_.feed_most[2]);
    feed_to("G1", first, std::min(feeds.plunge, machine_.feed_most[2]));
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      const Point3& from = pass.points[i - 1];
      if (part.arcs && machine_.arcs) {
        const Arc arc = arc_from(pass.points, i - 1, part.bit->kind);
        if (arc.last > i) {
          const Point off = job_.placed.turned(arc.centre - from.flat());
          x_ = y_ = kUnknown;
          feed_to(arc.clockwise != job_.placed.mirrors() ? "G2" : "G3", pass.points[arc.last],
                  feed_along(from, pass.points[i], feeds, along_board_), &off);
          i = arc.last;
          continue;
        }
      }
      feed_to("G1", pass.points[i], feed_along(from, pass.points[i], feeds, along_board_));
    }
    z_ = kUnknown;
  }

  const GcodeJob& job_;
  const MachineProfile& machine_;
  MachineProfile along_board_;
  std::string text_;
  static constexpr std::int64_t kUnknown = std::numeric_limits<std::int64_t>::min();
  std::int64_t x_ = kUnknown, y_ = kUnknown, z_ = kUnknown;  // where the last line went, in units of the last place
  std::optional<Point> last_;  // where the part's last pass ended, the bit still in the wood
  double unit_ = 1, scale_ = 1;
  double feed_ = -1;
  int number_ = 10;
};

}  // namespace

std::string write_look_round(const LookRound& look, const MachineProfile& machine) {
  const double unit = machine.unit == Unit::Inch ? kMmPerInch : 1;
  std::string text;
  int number = 10;
  const auto line = [&](const std::string& words) {
    if (machine.line_numbers) text += "N" + std::to_string(number) + " ";
    number += 10;
    text += words + "\n";
  };
  const auto words_of = [&](double mm) { return format_number(mm / unit, machine.decimals); };
  const auto to = [&](Point p) { return " X" + words_of(p.x) + " Y" + words_of(p.y); };
  const auto comment = [&](const std::string& words) { text += comment_line(words, machine); };
  comment("job " + look.title);
  comment("zero " + look.zero);
  comment("in the air, spindle off: nothing is cut");
  line(std::string(machine.unit == Unit::Inch ? "G20" : "G21") + " G90 G17 G94");
  line("M5");
  line("G0 Z" + words_of(look.height));
  const Box& b = look.box;
  line("G0" + to({b.left, b.bottom}));
  const double pace = std::min(machine.feed_most[0], machine.feed_most[1]) / 2 / unit;
  line("G1" + to({b.right, b.bottom}) + " F" + format_number(pace, 1));
  for (const Point p : {Point{b.right, b.top}, Point{b.left, b.top}, Point{b.left, b.bottom}}) line("G1" + to(p));
  line("G0" + to({0, 0}));
  line(machine.end_word);
  return framed(text, machine);
}

std::string write_gcode(const GcodeJob& job, const MachineProfile& machine) { return Writer(job, machine).write(); }

}  // namespace doyen
