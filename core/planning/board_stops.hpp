// What stops the boards that a job is made as (sheets, strips, panels, parts), told with the job: they are cut, not it.
#pragma once

#include <vector>

#include "planning/plan.hpp"
#include "planning/plan_cache.hpp"

namespace doyen {

// Of panels and parts the first of them; of more sheets or strips than these none. The others are looked at where they
// are written.
inline constexpr std::size_t kMostBoardsLookedAt = 12;

// A verdict for each board that has a stop, code “board-stops”, with the gravest's words; none for other jobs.
std::vector<Verdict> board_stops(const Plan& plan, const Rack& rack, PlanCache* cache, const Cancel& cancel = {});

}  // namespace doyen
