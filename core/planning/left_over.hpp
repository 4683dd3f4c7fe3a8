// What is left of the board when the sign is cut out of it, in pieces worth keeping.
#pragma once

#include <vector>

#include "cancel.hpp"
#include "job/off_cuts.hpp"
#include "planning/plan.hpp"

namespace doyen {

struct LeftOver {
  Box box;         // mm on the board
  OffCut off_cut;  // of the board's wood and thickness, without an id or a place
};

// Common practice, no source.
inline constexpr double kBesideCuts = 2;            // mm
inline constexpr double kLeastLeftOver = 50;        // mm
inline constexpr double kLeastLeftOverArea = 6000;  // mm²

// Rectangles of the board that nothing cuts and no cut-out takes, so far from both, the largest first; none overlaps
// another. So wide and large at least, three at most. None where nothing is cut
// out of the board, or where it stands for other boards (plates, strips, panels).
std::vector<LeftOver> left_over(const Plan& plan, const Cancel& cancel = {});

}  // namespace doyen
