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

// Rectangles of the board that nothing cuts and no cut-out takes, 2 mm from both, the largest first; none overlaps
// another. At least 50 mm wide and 60 cm² large, three at most (common practice, no source). None where nothing is cut
// out of the board, or where it stands for other boards (plates, strips, panels).
std::vector<LeftOver> left_over(const Plan& plan, const Cancel& cancel = {});

}  // namespace doyen
