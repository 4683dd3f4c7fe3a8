// A drill template for the wall, true to size: the sign's outline seen from the front, crosses where screws go, a level
// line through them, on as many A4 pages as it takes.
#pragma once

#include <string>

#include "finish/hanging.hpp"

namespace doyen {

// A PDF. Pages are numbered by row and column and overlap; each has a ruler of 100 mm to check the printer by.
std::string hanging_template_pdf(const Plan& plan, const Hanging& hanging);

}  // namespace doyen
