// How long moves take: acceleration per axis and corner speed, not length over feed (geometry.md, Time).
#pragma once

#include <optional>
#include <vector>

#include "cutting/pass.hpp"
#include "machine/profile.hpp"
#include "rack/bit.hpp"

namespace doyen {

// v_j² = a·δ·sin(θ/2) / (1 − sin(θ/2)), θ the angle between the two segments (180° straight on). mm/s.
double junction_speed(double acceleration, double deviation, double theta);

// From rest to rest over `length` mm at `feed` mm/s: L ≥ v²/a → L/v + v/a, else 2·√(L/a). Seconds.
double rest_to_rest(double length, double feed, double acceleration);

// The feed along a move: never above `feeds.feed`, nor sinking faster than `feeds.plunge`, nor beyond the axes. mm/min.
double feed_along(const Point3& from, const Point3& to, const Feeds& feeds, const MachineProfile& machine);

// Seconds for one pass in the wood, plunge to the first point not included; starts and ends at rest.
double pass_seconds(const Pass& pass, const Feeds& feeds, const MachineProfile& machine);

// For a whole list of passes with lifts, travel and plunges from just above the face.
struct RunTime {
  double seconds = 0;  // everything
  double in_wood = 0;  // seconds along the passes
  double length = 0;   // mm along the passes
  int lifts = 0;
  double travel = 0;  // mm in the air, sideways
  [[nodiscard]] double reached_feed() const { return in_wood > 0 ? length / in_wood * 60 : 0; }  // mm/min
};
// How high the bit travels from one pass to the next: just above the face where nothing of metal stands near its way.
inline constexpr double kApproach = 0.5;  // mm above the highest wood where the plunge feed begins

struct Travel {
  struct Metal {
    Box box;          // of a clamp or a screw, with some room round it
    double over = 0;  // mm above the face that travel over it stands
  };
  double approach = kApproach;  // mm above the nominal face
  double high = 6, low = 6;     // mm above the face
  std::vector<Metal> in_the_way{};
  [[nodiscard]] double between(Point from, Point to) const;  // low where nothing stands, else over all that does
  [[nodiscard]] double highest() const;                      // from wherever the bit stands before, and to there
};

// To which height the bit comes down fast before it plunges: to just above what is cut already, where that is worth it;
// else `approach`.
double fast_down_to(const Pass& pass, double approach);

// What one bit does without the spindle stopping between.
struct TimedPasses {
  const std::vector<Pass>* passes = nullptr;
  Feeds feeds;
  // Which bit it is tells which stretches the file says as one arc; only slow controllers ask. None: chords.
  std::optional<BitKind> bit{};
};

// What a controller that takes so many moves a second, or knows so few ahead, makes slower (MachineProfile).
bool slow_controller(const MachineProfile& machine);

// One look-ahead over all of it: corners through lifts, travel and plunges are taken as fast as any others. `travel` as
// above; null: always at the machine's clearance. What has no feeds is left out.
RunTime run_time(const std::vector<TimedPasses>& work, const MachineProfile& machine, Point from,
                 const Travel* travel = nullptr);
RunTime run_time(const std::vector<Pass>& passes, const Feeds& feeds, const MachineProfile& machine, Point from,
                 const Travel* travel = nullptr, std::optional<BitKind> bit = {});

}  // namespace doyen
