// Where a shape is narrow between two wider parts of itself.
#pragma once

#include <vector>

#include "geometry/region.hpp"

namespace doyen {

struct Neck {
  double width = 0;  // mm, at its narrowest, to 0.05 mm
  Point at;          // its middle
  Point along;       // unit vector from the one part to the other
};

// Every place narrower than so many mm that ties wider parts together (or one to itself, as the narrow side of a frame
// does); the narrowest first. Parts count from the area of a square of that width on. What a disc of that width cannot
// pass is looked at (opening by a disc), then each place by itself. May be cancelled.
std::vector<Neck> necks_of(const Region& region, double narrower_than);

}  // namespace doyen
