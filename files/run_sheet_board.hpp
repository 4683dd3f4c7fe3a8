// The run sheet's pictures of the board: as it lies on the bed with zero and axes, and as it is turned over.
#pragma once

#include "files/paper.hpp"
#include "planning/plan.hpp"

namespace doyen {

// One side, up to so many points high, with its size, zero and axes.
void draw_board(Paper& sheet, const Plan& plan, const Picture& side, double most_high);

// Both sides beside each other, the edge that it is turned about, and one corner of the wood marked in both.
void draw_turning(Paper& sheet, const Plan& plan, const Picture& front, const Picture& back, Side from);

// Where the board lies on the machine's bed and against what, as far as that was said.
void draw_bed(Paper& sheet, const Plan& plan, const Picture& front);

}  // namespace doyen
