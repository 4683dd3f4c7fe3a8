// From two boards to one: what is done in which order, with the board and the files that each step is for.
#pragma once

#include <string>
#include <vector>

#include "planning/plan.hpp"

namespace doyen {

struct InlayStep {
  std::string board;  // which board lies there, such as “Carrying board” or “Plugs of Sugar maple”
  std::string words;
  std::string caution;  // where the step can hurt someone; may be empty
};

// Of a board with inlays; empty without any. `plan` is the carrying board's own.
std::vector<InlayStep> inlay_steps(const Plan& plan);

// Puts two witness marks, or two holes for pins, into the waste at the board's ends, and says so in the job; what was
// there of either before goes. Returns how many found a clear place.
int keep_zero_by(Job& job, KeepZero how, const Rack& rack);

bool is_zero_mark(const Item& item);  // one of those

}  // namespace doyen
