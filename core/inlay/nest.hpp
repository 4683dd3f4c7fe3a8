// Laying shapes out on a board with little waste.
#pragma once

#include <vector>

#include "cancel.hpp"
#include "geometry/region.hpp"

namespace doyen {

struct SetOut {
  struct Place {
    Point at;                // mm, where the middle of the shape's box comes to lie
    bool half_turn = false;  // turned by 180°: the grain still runs the same way
  };
  std::vector<Place> places;     // along the shapes
  double width = 0, height = 0;  // mm of the board, its left front corner at 0, 0
};

// Round every shape `clear` mm stay free of the others' own, and so many to the board's edges. Shapes are set largest
// first, each as far to the front and then to the left as it fits, inside one another's hollows too, on boards of
// several widths; the one with the least area is taken. A raster of about a 200th of the board: never overlapping, and
// up to two cells wasteful.
SetOut nest(const std::vector<Region>& shapes, double clear, bool may_turn = true, const Cancel& cancel = {});

}  // namespace doyen
