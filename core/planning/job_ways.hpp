// Ways to cut a whole job, a part of planning/ways.hpp.
#pragma once

#include "planning/ways.hpp"

namespace doyen {

inline constexpr std::size_t kMostWays = 5;  // the one it is cut now included

// For the whole job: like bits as one; a bit fewer, each of those that clear floors, the least worked first; Doyen's
// own order; a thinner board; the sign a little smaller.
std::vector<Way> job_ways(const Plan& plan);

}  // namespace doyen
