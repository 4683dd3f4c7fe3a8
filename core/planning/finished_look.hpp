// The board as it leaves the shop: the relief that the plan's moves leave, and what the finish takes off by hand. For
// pictures and sections; the judge and the figures look at what the machine leaves.
#pragma once

#include "planning/plan.hpp"
#include "relief/height_field.hpp"

namespace doyen {

// All that is cut out; the board, where nothing is. Empty for a board whose own outline is none.
Region sign_of(const Plan& plan);

// Rounds the front edges of `field`, which is of the front, over by what the job says.
void take_off_by_hand(HeightField& field, const Plan& plan);

// relief_of() with that.
HeightField finished_relief_of(const Plan& plan, const Box& area, double cell, const Cancel& cancel = {},
                               Side side = Side::Front);

}  // namespace doyen
