// Incise: a V-groove whose depth follows the stroke (geometry.md, Incise). The heart of Doyen.
#pragma once

#include <limits>
#include <map>
#include <memory>
#include <vector>

#include "cancel.hpp"
#include "cutting/pass.hpp"
#include "geometry/medial_axis.hpp"

namespace doyen {

// The bit's part in a groove: depth = (clearance − tip/2) / tan(angle/2).
struct GrooveShape {
  double tan_half = 1;                                     // tan(α/2), α the included angle
  double tip = 0;                                          // mm, the tip flat's diameter
  double limit = std::numeric_limits<double>::infinity();  // mm below the ground: the floor limit

  [[nodiscard]] double depth_at(double clearance) const;  // mm, never below 0 nor past the limit
  [[nodiscard]] double limit_radius() const { return limit * tan_half + tip / 2; }  // r_L
  friend bool operator==(const GrooveShape&, const GrooveShape&) = default;
};

// One connected part, worked out. Everything is relative to `axis.origin` and to the ground (z = 0).
struct IslandGroove {
  MedialAxis axis;
  std::vector<Pass> passes;  // along the axis, above the floor limit
  double widest = 0;         // mm, the largest clearance r; twice this is the widest stroke
  Point widest_at;
  double narrowest = 0;  // mm, the least clearance along the strokes' cores (corner branches left out)
  Point narrowest_at;
  double cut_length = 0;       // mm along the axis, each stretch once
  double retraced_length = 0;  // mm walked a second time inside the groove, instead of lifting
};

struct Groove {
  struct Place {
    std::shared_ptr<const IslandGroove> island;
    Point origin;        // mm on the board
    Point across{1, 0};  // where the island's own x points to on the board, of length one
    [[nodiscard]] Point on_board(Point of_island) const {
      return origin +
             Point{of_island.x * across.x - of_island.y * across.y, of_island.x * across.y + of_island.y * across.x};
    }
  };
  GrooveShape shape;
  std::vector<Place> places;  // in the region's order; equal islands share their working

  [[nodiscard]] double widest_stroke() const;  // mm
  [[nodiscard]] Point widest_at() const;
  [[nodiscard]] double narrowest_stroke() const;                // mm
  [[nodiscard]] double deepest() const;                         // mm below the ground, positive
  [[nodiscard]] bool has_floor() const;                         // a stroke is wide enough to end in a flat floor
  [[nodiscard]] std::vector<Pass> passes(double ground) const;  // on the board
};

enum class Threads { One, All };

// Works out every island, equal ones once, on all processors unless told otherwise.
Groove plan_groove(const Region& region, const GrooveShape& shape, Threads threads = Threads::All,
                   const Cancel& cancel = {});

IslandGroove plan_island(const Island& island, const GrooveShape& shape);

// Passes that go no deeper than `step` mm more than what was cut before: for V bits that cannot take the groove at
// once.
std::vector<Pass> in_levels(const std::vector<Pass>& passes, double ground, double step);

}  // namespace doyen
