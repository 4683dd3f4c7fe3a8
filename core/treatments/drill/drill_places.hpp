// Where a piece's holes lie.
#pragma once

#include <vector>

#include "artwork/piece.hpp"
#include "treatments/drill/drill.hpp"

namespace doyen {

// The islands' middles and the lines' beginnings, or evenly along outlines and lines when a spacing is set.
std::vector<Point> drill_points(const Outlines& outlines, const DrillChoices& drill);

}  // namespace doyen
