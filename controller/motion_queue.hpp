// Moves that wait, and the one that runs: a look-ahead of its own that shares nothing with the planner's.
#pragma once

#include <array>
#include <deque>
#include <vector>

namespace controller {

struct At {
  double x = 0, y = 0, z = 0;  // mm
  friend bool operator==(const At&, const At&) = default;
};

struct Figures {
  std::array<double, 3> travel{800, 600, 90};         // mm
  std::array<double, 3> rapid{5000, 5000, 2000};      // mm/min
  std::array<double, 3> feed_most{5000, 5000, 2000};  // mm/min
  std::array<double, 3> acceleration{400, 400, 200};  // mm/s²
  double corner = 0.02;                               // mm, how far a corner may be rounded
  int ahead = 64;                                     // lines that it holds at most
  double lines_a_second = 0;                          // that it takes in; 0: as many as come
  bool dwell_in_ms = false;                           // G4's P counts milliseconds
  double step = 0;                                    // mm that its drives go at once; 0: as finely as asked
  At origin{};  // where the work's zero lies in the machine, from its lowest corner
};

struct Block {
  enum class Kind { Move, Dwell, Wait, End };
  Kind kind = Kind::Move;
  At from, to;
  double length = 0;  // mm
  std::array<double, 3> direction{};
  double fastest = 0;       // mm/s, as asked and as its axes allow
  double acceleration = 0;  // mm/s², along it
  double entry_most = 0;    // mm/s, by the corner before it
  double entry = 0;         // mm/s, so that it can still come to rest behind the last
  bool fast = false;        // G0: no override
  double seconds = 0;       // of a dwell
  int line = 0;
  int change = 0;      // of a wait: the bit that is to be put in; 0: only a pause
  bool probe = false;  // stops where it touches
};

// Straight from where the last one ends. `fastest` in mm/min.
class MotionQueue {
 public:
  explicit MotionQueue(const Figures& figures) : figures_(figures) {}
  void add_move(const At& asked, double mm_per_minute, bool fast, int line, bool probe = false, double radius = 0);
  void add(Block block);  // a dwell, a wait or an end: everything comes to rest before it
  void clear();
  [[nodiscard]] bool empty() const { return blocks_.empty(); }
  [[nodiscard]] int lines() const;  // how many different ones wait or run
  [[nodiscard]] const Block* running() const { return blocks_.empty() ? nullptr : &blocks_.front(); }
  void drop_running();
  [[nodiscard]] At end() const { return end_; }  // where everything that was added will have led
  void set_place(const At& at);                  // while nothing waits

  // Goes on for so many seconds at most, until a wait or an end stands first. Places passed on the way are added to
  // `way`. Returns the seconds that were used.
  double advance(double seconds, double override_share, bool hold, std::vector<At>& way);
  [[nodiscard]] At place() const { return place_; }
  [[nodiscard]] double speed() const { return speed_; }  // mm/s

 private:
  void look_back();
  Figures figures_;
  std::deque<Block> blocks_;
  At end_, place_;
  double gone_ = 0, speed_ = 0;  // along the one that runs
};

}  // namespace controller
