// A large sign's panels on paper: which is which, how large and heavy, and how their edges meet.
#pragma once

#include <string>
#include <vector>

#include "cancel.hpp"
#include "planning/plan.hpp"

namespace doyen {

// A PDF of A4 pages. `panels`: their plans, along panels_of(). Throws Cancelled.
std::string panel_list_pdf(const Plan& sign, const std::vector<const Plan*>& panels, const Cancel& cancel = {});

}  // namespace doyen
