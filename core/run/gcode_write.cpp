#include <algorithm>
#include <cmath>

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
      : job_(job), machine_(machine), along_board_(machine_along_board(machine, job.placed.turn)) {}

  std::string write() {
    // Without rounding away more than half a unit of the last place; z is rounded up, so that rounding never cuts
    // deeper.
    unit_ = machine_.unit == Unit::Inch ? kMmPerInch : 1;
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
  void line(const std::string& words) {
    if (machine_.line_numbers) {
      text_ += "N" + std::to_string(number_) + " ";
      number_ += 10;
    }
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
    at_known_ = false;
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
    line("G0 X" + number((middles.left + middles.right) / 2) + " Y" +
         number(job_.placed.y_near ? middles.top : middles.bottom));
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

  [[nodiscard]] std::string number(double mm, bool up = false) const {
    const double scale = std::pow(10.0, machine_.decimals);
    double v = mm / unit_ * scale;
    v = up ? std::ceil(v - 1e-6) : std::round(v);
    return format_number(v / scale, machine_.decimals);
  }

  void check(const Point3& p) const {
    const bool fine = std::isfinite(p.x) && std::isfinite(p.y) && std::isfinite(p.z);
    if (!fine) throw bad_input(say("A coordinate is not a number; no file is written."));
    const double slack = machine_.travel[0] + machine_.travel[1];
    if (std::abs(p.x) > slack || std::abs(p.y) > slack || -p.z > machine_.travel[2] + 100) {
      throw bad_input(say("A cut lies outside the machine's travel; no file is written."));
    }
  }

  void rapid_z(double z) { line("G0 Z" + number(z + job_.placed.z)); }

  // The words for a move from what was last written; empty when nothing moves at this precision.
  std::string axes(const Point3& p) {
    std::string words;
    const Point3 at = job_.placed.at_machine(p);
    const std::string x = number(at.x), y = number(at.y), z = number(at.z, true);
    if (!at_known_ || x != x_) words += " X" + (x_ = x);
    if (!at_known_ || y != y_) words += " Y" + (y_ = y);
    if (!at_known_ || z != z_) words += " Z" + (z_ = z);
    at_known_ = true;
    return words;
  }

  void feed_to(const std::string& g, const Point3& p, double feed, const std::string& centre = "") {
    check(p);
    const std::string words = axes(p);
    if (words.empty() && centre.empty()) return;
    const double shown = std::max(1.0, std::floor(feed / unit_ * 10) / 10);
    std::string f;
    if (std::abs(shown - feed_) > 0.02 * feed_ || feed_ < 0 || shown < feed_ * 0.98) {
      f = " F" + format_number(shown, 1);
      feed_ = shown;
    }
    line(g + words + centre + f);
  }

  void write_pass(const Pass& pass, const Feeds& feeds, const GcodeJob::Part& part) {
    const Point3& first = pass.points.front();
    check(first);
    if (last_) rapid_z(job_.travel ? job_.travel->between(*last_, first.flat()) : clearance());
    last_ = pass.points.back().flat();
    const Point above = job_.placed.at_machine(first.flat());
    x_ = number(above.x);
    y_ = number(above.y);
    line("G0 X" + x_ + " Y" + y_);
    z_ = number((job_.travel ? job_.travel->approach : kApproach) + job_.placed.z, true);
    line("G0 Z" + z_);
    at_known_ = true;
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
          x_.clear();
          y_.clear();
          feed_to(arc.clockwise != job_.placed.mirrors() ? "G2" : "G3", pass.points[arc.last],
                  feed_along(from, pass.points[i], feeds, along_board_), " I" + number(off.x) + " J" + number(off.y));
          i = arc.last;
          continue;
        }
      }
      feed_to("G1", pass.points[i], feed_along(from, pass.points[i], feeds, along_board_));
    }
    z_.clear();
  }

  const GcodeJob& job_;
  const MachineProfile& machine_;
  MachineProfile along_board_;
  std::string text_;
  std::string x_, y_, z_;
  bool at_known_ = false;
  std::optional<Point> last_;  // where the part's last pass ended, the bit still in the wood
  double unit_ = 1;
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
