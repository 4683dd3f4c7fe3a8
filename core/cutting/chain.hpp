// Lines that a bit follows at one depth, chained so that it stays down from one to the next.
#pragma once

#include <vector>

#include "cancel.hpp"
#include "cutting/keep_away.hpp"
#include "geometry/polyline.hpp"

namespace doyen {

// Which straight ways stay inside a region, with whatever looks at many of them: those that cross no edge of it.
class StraightWays {
 public:
  explicit StraightWays(const Region& region) : edges_(region, 1e-6) {}
  [[nodiscard]] bool inside(Point a, Point b) const { return edges_.keeps(a, b); }  // of two points inside

 private:
  KeepAway edges_;
};

// The lines in an order in which each begins near where the last one ends, joined to it where the straight way between
// them is no longer than `farthest` mm and lies inside `within`, where the bit may go at that depth. Closed lines begin
// at whichever of their points is nearest, open ones at either end. Every line is there once, whole. Throws Cancelled.
std::vector<Line2> chained(std::vector<Line2> lines, const Region& within, double farthest, const Cancel& cancel = {});

}  // namespace doyen
