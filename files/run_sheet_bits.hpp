// The run sheet's list of bits: a block for each, with what is done by hand before it.
#pragma once

#include "files/paper.hpp"
#include "planning/plan.hpp"

namespace doyen {

void bits_table(Paper& sheet, const Plan& plan);

}  // namespace doyen
