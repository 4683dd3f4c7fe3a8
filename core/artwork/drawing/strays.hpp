// What was left behind in a drawing, far from all the rest.
#pragma once

#include "artwork/piece.hpp"

namespace doyen {

struct Strays {
  std::vector<std::size_t> parts;  // of Drawing::parts, in order
  double largest = 0;              // mm at the drawing's scale: the largest side of any
  double nearest = 0;              // mm: how far the nearest lies from the rest
};

// Parts that are small (every side under a tenth of the rest's) and lie apart from the rest by more than half of its
// larger side (common sense, no source). Never more than a fifth of all parts. Parts that cannot be read, and those
// left out already, are not looked at.
Strays strays_of(const Drawing& drawing);

}  // namespace doyen
