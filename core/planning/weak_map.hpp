// The weak places of a planned board, with the limits of its wood.
#pragma once

#include "planning/plan.hpp"
#include "relief/weak_wood.hpp"

namespace doyen {

// Of the wood that stays: what is cut out, or the board where nothing is. As it is carved from both sides.
WeakMap weak_places(const Plan& plan, const Cancel& cancel = {});

// Short, such as “neck 3.2 mm, grain across; 14.4 mm hold”.
std::string weak_in_words(const WeakPlace& place, const LengthStyle& lengths);

}  // namespace doyen
