// The run sheet's list of bits: a block for each, with what is done by hand before it.
#pragma once

#include "files/paper.hpp"
#include "planning/plan.hpp"

namespace doyen {

// `back`: its picture, where something is cut from the back.
void bits_table(Paper& sheet, const Plan& plan, const Picture& front, const Picture* back);

}  // namespace doyen
