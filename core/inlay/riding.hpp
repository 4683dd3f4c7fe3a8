// Inlays whose plug would not go home: both halves mated, and the easing of corners that comes nearest.
#pragma once

#include "planning/plan.hpp"

namespace doyen {

// For every sloped inlay of the plan's job whose V has a tip flat: a stop where its plug rides more than 0.3 mm high, a
// warning from 0.05 mm on, with the easing that seats it, or the best one and what then remains. Mating takes some
// tenths of a second an inlay, and up to seven easings are tried for one: `trying` is told before each which it
// is. Throws Cancelled.
std::vector<Verdict> riding_inlays(const Plan& pocket, const Rack& rack, const Cancel& cancel = {},
                                   const std::function<void(int)>& trying = {});

}  // namespace doyen
