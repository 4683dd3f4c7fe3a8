#include "machine/motion.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "machine/arcs.hpp"

namespace doyen {
namespace {

struct Direction {
  std::array<double, 3> u{};
  double len = 0;
};

Direction direction(const Point3& a, const Point3& b) {
  Direction d;
  d.len = distance(a, b);
  if (d.len > 0) d.u = {(b.x - a.x) / d.len, (b.y - a.y) / d.len, (b.z - a.z) / d.len};
  return d;
}

// The largest value along a direction that keeps every axis within its own.
double along(const Direction& d, const std::array<double, 3>& per_axis) {
  double least = 1e300;
  for (std::size_t i = 0; i < 3; ++i) {
    if (std::abs(d.u[i]) > 1e-9) least = std::min(least, per_axis[i] / std::abs(d.u[i]));
  }
  return least;
}

// One way after another from rest to rest, with one look-ahead over all of them.
class Motion {
 public:
  explicit Motion(const MachineProfile& machine) : machine_(machine) {}
  // `top`: mm/min, along the way. Each is a move of the file of its own, but for an arc's, which are one together.
  void go(const Point3& from, const Point3& to, double top, bool cuts) {
    const Direction d = direction(from, to);
    if (d.len < 1e-9) return;
    if (!arc_ || moves_.empty()) moves_.push_back(0);
    moves_.back() += d.len;
    way_.push_back({d, top / 60, along(d, machine_.acceleration), cuts, moves_.size() - 1});
  }
  void begin_arc() {
    arc_ = true;
    moves_.push_back(0);
  }
  void end_arc() { arc_ = false; }
  void rapid(const Point3& from, const Point3& to) {
    const Direction d = direction(from, to);
    if (d.len >= 1e-9) go(from, to, along(d, machine_.rapid), false);
  }
  struct Seconds {
    double all = 0, cut = 0;
  };
  [[nodiscard]] Seconds seconds() {
    const std::size_t n = way_.size();
    if (machine_.moves_per_second > 0) {
      for (Way& w : way_) w.top = std::min(w.top, moves_[w.move] * machine_.moves_per_second);
    }
    std::vector<double> corner(n + 1, 0.0);  // speed at the start of each; rest at both ends
    for (std::size_t i = 1; i < n; ++i) corner[i] = corner_speed(way_[i - 1], way_[i]);
    if (machine_.moves_ahead > 0) stop_in_time(corner);
    for (std::size_t i = n; i-- > 0;)
      corner[i] = std::min(corner[i], std::sqrt(corner[i + 1] * corner[i + 1] + 2 * way_[i].accel * way_[i].d.len));
    Seconds sum;
    for (std::size_t i = 0; i < n; ++i) {
      const double in = corner[i], a = way_[i].accel, len = way_[i].d.len;
      corner[i + 1] = std::min(corner[i + 1], std::sqrt(in * in + 2 * a * len));
      const double out = corner[i + 1];
      const double peak = std::min(way_[i].top, std::sqrt((2 * a * len + in * in + out * out) / 2));
      const double up = std::max(0.0, peak * peak - in * in) / (2 * a),
                   down = std::max(0.0, peak * peak - out * out) / (2 * a);
      const double level = std::max(0.0, len - up - down);
      const double took = (peak - in) / a + (peak - out) / a + (peak > 0 ? level / peak : 0);
      sum.all += took;
      if (way_[i].cuts) sum.cut += took;
    }
    return sum;
  }

 private:
  struct Way {
    Direction d;
    double top;    // mm/s
    double accel;  // mm/s²
    bool cuts;
    std::size_t move;  // of the file
  };
  // While a move runs the controller knows so many beyond it, and must be able to come to rest where they end: at its
  // end v² ≤ Σ 2·a·L over those.
  void stop_in_time(std::vector<double>& corner) const {
    const std::size_t n = way_.size();
    std::size_t end = 0;  // the first that is not known yet
    double known = 0;     // mm²/s²
    for (std::size_t i = 0; i < n; ++i) {
      const std::size_t running = i == 0 ? 0 : way_[i - 1].move;
      while (end < n && way_[end].move <= running + static_cast<std::size_t>(machine_.moves_ahead)) {
        known += 2 * way_[end].accel * way_[end].d.len;
        ++end;
      }
      corner[i] = std::min(corner[i], std::sqrt(std::max(0.0, known)));
      known -= 2 * way_[i].accel * way_[i].d.len;
    }
  }
  [[nodiscard]] double corner_speed(const Way& before, const Way& after) const {
    double cosine = 0;
    for (std::size_t k = 0; k < 3; ++k) cosine -= before.d.u[k] * after.d.u[k];
    const double theta = std::acos(std::clamp(cosine, -1.0, 1.0));
    return std::min(
        {junction_speed(std::min(before.accel, after.accel), machine_.corner_deviation, theta), before.top, after.top});
  }

  const MachineProfile& machine_;
  std::vector<Way> way_;
  std::vector<double> moves_;  // mm
  bool arc_ = false;
};

// The circle through three points, seen from above; endless where they lie on a line, mm.
double radius_through(Point a, Point b, Point c) {
  const double twice = std::abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
  return twice < 1e-12 ? 1e300 : distance(a, b) * distance(b, c) * distance(a, c) / (2 * twice);
}

// Arcs so tight that they hold the feed back where the file says them as arcs: v² ≤ a·r. A corner rule between short
// chords does not see that.
class TightArcs {
 public:
  TightArcs(const Pass& pass, const Feeds& feeds, const MachineProfile& machine, std::optional<BitKind> bit)
      : pass_(pass),
        said_(machine.arcs && bit.has_value()),
        bit_(bit.value_or(BitKind::Flat)),
        accel_(std::min(machine.acceleration[0], machine.acceleration[1])),
        tight_(feeds.feed * feeds.feed / 3600 / accel_) {}
  // The most that the stretch to point `i` allows, mm/min; to be asked in their order.
  double most(std::size_t i) {
    if (said_ && i > end_ && i + 1 < pass_.points.size() &&
        radius_through(pass_.points[i - 1].flat(), pass_.points[i].flat(), pass_.points[i + 1].flat()) <
            1.05 * tight_) {
      const Arc arc = arc_from(pass_.points, i - 1, bit_);
      if (arc.last > i) {
        end_ = arc.last;
        speed_ = 60 * std::sqrt(accel_ * distance(arc.centre, pass_.points[i - 1].flat()));
      }
    }
    return i <= end_ ? speed_ : 1e300;
  }

 private:
  const Pass& pass_;
  bool said_;  // the file says arcs as such
  BitKind bit_;
  double accel_, tight_;  // mm/s²; mm, from where on the feed is reached
  std::size_t end_ = 0;
  double speed_ = 1e300;
};

void follow(Motion& motion, const Pass& pass, const Feeds& feeds, const MachineProfile& machine,
            std::optional<BitKind> bit) {
  TightArcs tight(pass, feeds, machine, bit);
  const bool arcs = bit && machine.arcs && slow_controller(machine);
  std::size_t arc_ends = 0;
  for (std::size_t i = 1; i < pass.points.size(); ++i) {
    if (arcs && i > arc_ends) {
      motion.end_arc();
      arc_ends = arc_from(pass.points, i - 1, *bit).last;
      if (arc_ends > i) motion.begin_arc();
    }
    const Point3 &a = pass.points[i - 1], &b = pass.points[i];
    motion.go(a, b, std::min(tight.most(i), feed_along(a, b, feeds, machine)), true);
  }
  motion.end_arc();
}

}  // namespace

bool slow_controller(const MachineProfile& machine) { return machine.moves_per_second > 0 || machine.moves_ahead > 0; }

double junction_speed(double acceleration, double deviation, double theta) {
  const double s = std::sin(theta / 2);
  if (s >= 1 - 1e-12) return 1e9;
  return std::sqrt(std::max(0.0, acceleration * deviation * s / (1 - s)));
}

double rest_to_rest(double length, double feed, double acceleration) {
  if (length <= 0) return 0;
  if (length >= feed * feed / acceleration) return length / feed + feed / acceleration;
  return 2 * std::sqrt(length / acceleration);
}

double feed_along(const Point3& from, const Point3& to, const Feeds& feeds, const MachineProfile& machine) {
  const Direction d = direction(from, to);
  double feed = feeds.feed;
  if (d.u[2] < -1e-9) feed = std::min(feed, feeds.plunge / -d.u[2]);
  return std::min(feed, along(d, machine.feed_most));
}

double pass_seconds(const Pass& pass, const Feeds& feeds, const MachineProfile& machine) {
  if (feeds.feed <= 0 || feeds.plunge <= 0) return 0;
  Motion motion(machine);
  follow(motion, pass, feeds, machine, {});
  return motion.seconds().all;
}

double fast_down_to(const Pass& pass, double approach) {
  constexpr double kWorthIt = 0.3;  // mm
  const double to = std::max(pass.points.front().z, pass.gone_above + kApproach);
  return to < approach - kWorthIt ? to : approach;
}

namespace {

// Part of the way lies within the box.
bool crosses(Point from, Point to, const Box& box) {
  // The part of the way that lies within the box's span, axis by axis.
  double enter = 0, leave = 1;
  const double starts[] = {from.x, from.y}, ways[] = {to.x - from.x, to.y - from.y};
  const double least[] = {box.left, box.bottom}, most[] = {box.right, box.top};
  for (int axis = 0; axis < 2; ++axis) {
    if (std::abs(ways[axis]) < 1e-9) {
      if (starts[axis] < least[axis] || starts[axis] > most[axis]) return false;
      continue;
    }
    const double a = (least[axis] - starts[axis]) / ways[axis], b = (most[axis] - starts[axis]) / ways[axis];
    enter = std::max(enter, std::min(a, b));
    leave = std::min(leave, std::max(a, b));
  }
  return enter <= leave;
}

}  // namespace

double Travel::between(Point from, Point to) const {
  double height = low;
  for (const Metal& metal : in_the_way) {
    const double over = std::max(high, metal.over);
    if (over > height && crosses(from, to, metal.box)) height = over;
  }
  return height;
}

double Travel::highest() const {
  double height = high;
  for (const Metal& metal : in_the_way) height = std::max(height, metal.over);
  return height;
}

RunTime run_time(const std::vector<TimedPasses>& work, const MachineProfile& machine, Point from,
                 const Travel* travel) {
  RunTime time;
  Motion motion(machine);
  const double approach = travel == nullptr ? kApproach : travel->approach;
  const double highest = travel == nullptr ? machine.clearance : std::max(machine.clearance, travel->highest());
  Point3 here{from.x, from.y, highest};
  bool in_wood = false;  // the bit stands at the end of a pass, not yet lifted
  const auto rapid = [&](const Point3& to) {
    motion.rapid(here, to);
    here = to;
  };
  const auto down = [&](double z, double feed) {
    const Point3 to{here.x, here.y, z};
    motion.go(here, to, std::min(feed, machine.feed_most[2]), false);
    here = to;
  };
  for (const TimedPasses& each : work) {
    if (!each.feeds.known()) continue;
    for (const Pass& pass : *each.passes) {
      const Point3& first = pass.points.front();
      const double high = travel == nullptr || !in_wood ? highest : travel->between(here.flat(), first.flat());
      if (in_wood) rapid({here.x, here.y, high});
      in_wood = true;
      time.travel += distance(here.flat(), first.flat());
      rapid({first.x, first.y, high});
      rapid({first.x, first.y, approach});
      const double fast = fast_down_to(pass, approach);
      if (fast < approach) down(fast, machine.feed_most[2]);
      if (first.z < here.z) down(first.z, each.feeds.plunge);
      follow(motion, pass, each.feeds, machine, each.bit);
      time.length += path_length(pass);
      here = pass.points.back();
      ++time.lifts;
    }
  }
  if (in_wood) rapid({here.x, here.y, highest});
  const Motion::Seconds seconds = motion.seconds();
  time.seconds = seconds.all;
  time.in_wood = seconds.cut;
  return time;
}

RunTime run_time(const std::vector<Pass>& passes, const Feeds& feeds, const MachineProfile& machine, Point from,
                 const Travel* travel, std::optional<BitKind> bit) {
  return run_time({{&passes, feeds, bit}}, machine, from, travel);
}

}  // namespace doyen
