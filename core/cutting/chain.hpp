// Lines that a bit follows at one depth, chained so that it stays down from one to the next.
#pragma once

#include <vector>

#include "cancel.hpp"
#include "geometry/polyline.hpp"

namespace doyen {

// mm along a floor that cost a bit less time than a lift, a travel move and a plunge do.
inline constexpr double kStaysDown = 12;

// The lines in an order in which each begins near where the last one ends, joined to it where the straight way between
// them is no longer than `farthest` mm and lies inside `within`, where the bit may go at that depth. Closed lines begin
// at whichever of their points is nearest, open ones at either end. Every line is there once, whole. Throws Cancelled.
std::vector<Line2> chained(std::vector<Line2> lines, const Region& within, double farthest, const Cancel& cancel = {});

}  // namespace doyen
