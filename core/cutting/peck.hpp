// Holes straight down.
#pragma once

#include "cutting/pass.hpp"

namespace doyen {

// Straight down from one height to another (mm) in even steps of at most `step`, up between them so that the chips come
// out.
Pass pecked(Point hole, double from, double to, double step);

}  // namespace doyen
