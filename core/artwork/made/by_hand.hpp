// A line drawn by hand: straight from point to point, or along the hand's own way, smoothed.
#pragma once

#include "geometry/path.hpp"

namespace doyen {

struct HandStroke {
  std::vector<Point> way;  // mm on the board, from where the last stroke ended; two points: straight
};

// One path through all strokes. The hand's trembling goes: no curve leaves its stroke's way by more than about
// `tolerance` mm. Curves pass through what is left of the points with the direction from each one's neighbour to the
// other's (E. Catmull and R. Rom, 1974). `closed`: back to where it began.
Path hand_path(const std::vector<HandStroke>& strokes, bool closed, double tolerance);

}  // namespace doyen
