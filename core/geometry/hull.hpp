// Convex hulls.
#pragma once

#include "geometry/polyline.hpp"

namespace doyen {

// Counter-clockwise, without points along its sides; fewer than three points come back as they are.
Ring convex_hull(std::vector<Point> points);

}  // namespace doyen
