// The arithmetic of what goes right through.
#pragma once

#include "planning/sums.hpp"

namespace doyen {

Sum through_sum(const Plan& plan, const std::string& piece);  // how deep a cut-out goes
Sum bed_sum(const Plan& plan, const std::string& piece);      // how far the bed is marked

}  // namespace doyen
