// What a piece would come to if it were cut otherwise: each way is planned for itself, and nothing of the job changes.
#pragma once

#include <functional>
#include <string>

#include "planning/plan.hpp"

namespace doyen {

struct Trial {
  double seconds = 0;    // at the machine, with its lifts, without travel from other pieces and bit changes
  double unreached = 0;  // mm² that stay, as PieceCuts says it
};

// The piece `id` of the plan's job, cut so. Throws Cancelled.
Trial try_cut(const Plan& plan, const Rack& rack, const std::string& id, const Treatment& cut,
              const Cancel& cancel = {});

// What each of the rack's flat bits with figures for this wood would do if it alone cleared the piece's floors, told
// bit by bit in the rack's order; those too short for it are left out. Throws Cancelled.
void try_clearing(const Plan& plan, const Rack& rack, const std::string& id, const Cancel& cancel,
                  const std::function<void(const std::string& bit, const Trial&)>& tell);

}  // namespace doyen
