// What a bit does in one go: it comes down at the first point, follows the line, and is lifted at the last.
#pragma once

#include <vector>

#include "geometry/region.hpp"

namespace doyen {

struct Point3 {
  double x = 0, y = 0, z = 0;  // mm; z = 0 at the blank's face, down negative
  [[nodiscard]] Point flat() const { return {x, y}; }
  friend bool operator==(const Point3&, const Point3&) = default;
};

inline double distance(const Point3& a, const Point3& b) {
  return std::sqrt((a.x - b.x) * (a.x - b.x) + (a.y - b.y) * (a.y - b.y) + (a.z - b.z) * (a.z - b.z));
}

struct Pass {
  static constexpr double kFace = 1e9;
  std::vector<Point3> points;  // at least one; consecutive points differ
  // mm: where the bit comes down, no wood stands in its way above this height; kFace: as much as anywhere.
  double gone_above = kFace;
};

// Whether `says(from, to)` holds of any of its moves; of where it comes down, from there to there, too.
template <typename Says>
bool any_move(const Pass& pass, const Says& says) {
  for (std::size_t i = 0; i < pass.points.size(); ++i) {
    if (says(pass.points[i > 0 ? i - 1 : 0], pass.points[i])) return true;
  }
  return false;
}

double path_length(const Pass& pass);                 // mm, in the wood
double path_length(const std::vector<Pass>& passes);  // mm
double deepest(const std::vector<Pass>& passes);      // mm, the lowest z; 0 when there is none

}  // namespace doyen
