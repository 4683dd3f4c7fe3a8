// Points that one arc goes through: what the G-code says as a single move.
#pragma once

#include <vector>

#include "cutting/pass.hpp"
#include "rack/bit.hpp"

namespace doyen {

struct Arc {
  std::size_t last = 0;  // index of the end point; 0 when no arc fits
  Point centre;
  bool clockwise = false;
};

// The longest run from `begin` that one circle, or a helix that sinks or rises evenly, follows within a few microns,
// at most half a turn.
Arc arc_from(const std::vector<Point3>& points, std::size_t begin, BitKind kind);

}  // namespace doyen
