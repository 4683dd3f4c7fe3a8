// The run sheet's last part: what comes after the machine.
#pragma once

#include "files/paper.hpp"
#include "planning/plan.hpp"

namespace doyen {

// Nothing where the job says no finish.
void finish_steps(Paper& sheet, const Plan& plan);

}  // namespace doyen
