// Onto the grid that the polygon library works on; for geometry/ alone.
#pragma once

#include <clipper.hpp>
#include <cmath>
#include <vector>

#include "geometry/region.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {

inline constexpr double kPerMm = 1.0 / kGrid;

// Throws Problem{BadInput}: the library answers only for what lies on its grid.
inline ClipperLib::Path to_clipper(const std::vector<Point>& points) {
  ClipperLib::Path path;
  path.reserve(points.size());
  for (const Point& p : points) {
    if (!std::isfinite(p.x) || !std::isfinite(p.y) || std::abs(p.x) > kFarthest || std::abs(p.y) > kFarthest)
      throw bad_input(say("An outline has a point that is not a number or lies more than 100 m away."));
    path.emplace_back(std::llround(p.x * kPerMm), std::llround(p.y * kPerMm));
  }
  return path;
}

}  // namespace doyen
