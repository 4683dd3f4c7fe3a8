// A simulated controller: what a machine's own computer would say to each line, and where the bit would be. It knows
// nothing of Doyen. Time is given to it; it never looks at a clock.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "motion_queue.hpp"

namespace controller {

// What is said to it (docs/rehearsal.md): lines, each answered by “ok” or “error …” when it was taken in; and the
// single characters ? (a report), ! (hold), ~ (go on), and 0x18 (stop and forget everything).
class Controller {
 public:
  explicit Controller(const Figures& figures, double speed = 1);
  void receive(std::string_view bytes);
  std::string take_replies();  // what was said since
  void advance(double seconds);

  enum class State { Idle, Run, Hold, Wait, Alarm };
  [[nodiscard]] State state() const;
  [[nodiscard]] At place() const { return queue_.place(); }  // in the work's coordinates, mm
  [[nodiscard]] double seconds() const { return seconds_; }  // that it moved or dwelt, without waiting for anybody
  // It has little left to do and was not told that this is the end.
  [[nodiscard]] bool hungry() const;
  [[nodiscard]] double speed() const { return speed_; }  // how many times faster than a machine it is to run

 private:
  void take_lines();
  void take_own_word();                       // at once, whatever waits: the line that was just ended, if it is one
  std::string take(const std::string& line);  // empty: fine; else what is wrong
  std::string own_word(const std::string& line);
  std::string move(int mode, const At& to, std::optional<double> i, std::optional<double> j);
  [[nodiscard]] std::string outside(const At& to) const;
  void say(const std::string& line) { replies_ += line + "\n"; }
  void report();
  void fail(const std::string& words);

  Figures figures_;
  MotionQueue queue_;
  std::string incoming_, replies_;
  std::vector<At> way_;
  bool hold_ = false, alarm_ = false, ended_ = true;
  double override_ = 1, seconds_ = 0, credit_ = 0, speed_ = 1;
  std::optional<double> surface_;  // z of what a probe touches
  // How lines are meant:
  double unit_ = 1, feed_ = 0;
  bool absolute_ = true;
  int mode_ = 0, line_ = 0, tool_ = 0;
};

}  // namespace controller
