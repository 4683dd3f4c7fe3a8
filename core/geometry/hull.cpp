#include "geometry/hull.hpp"

#include <algorithm>

namespace doyen {

// Andrew's monotone chain (A. M. Andrew, 1979).
Ring convex_hull(std::vector<Point> points) {
  std::sort(points.begin(), points.end(), [](Point a, Point b) { return a.x < b.x || (a.x == b.x && a.y < b.y); });
  points.erase(std::unique(points.begin(), points.end()), points.end());
  if (points.size() < 3) return points;
  Ring hull(2 * points.size());
  std::size_t n = 0;
  const auto add = [&](Point p, std::size_t least) {
    while (n >= least && cross(hull[n - 1] - hull[n - 2], p - hull[n - 2]) <= 0) --n;
    hull[n++] = p;
  };
  for (const Point& p : points) add(p, 2);
  const std::size_t lower = n + 1;
  for (std::size_t i = points.size() - 1; i-- > 0;) add(points[i], lower);
  hull.resize(n - 1);
  return hull;
}

}  // namespace doyen
