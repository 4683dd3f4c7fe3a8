#include "cutting/merge.hpp"

#include <algorithm>

namespace doyen {
namespace {

double away_from(const Point3& p, const Point3& a, const Point3& b) {
  const double x = b.x - a.x, y = b.y - a.y, z = b.z - a.z;
  const double square = x * x + y * y + z * z;
  double t = square > 0 ? ((p.x - a.x) * x + (p.y - a.y) * y + (p.z - a.z) * z) / square : 0;
  t = std::clamp(t, 0.0, 1.0);
  return distance(p, {a.x + x * t, a.y + y * t, a.z + z * t});
}

// Whether the points between the two lie near enough to the straight way.
bool straight(const std::vector<Point3>& p, std::size_t from, std::size_t to, double merged) {
  const double off = distance(p[from], p[to]) < kShortMove ? 2 * merged : merged;
  for (std::size_t i = from + 1; i < to; ++i) {
    if (away_from(p[i], p[from], p[to]) > off) return false;
  }
  return true;
}

}  // namespace

Pass merged(const Pass& pass, double off) {
  constexpr std::size_t kMostAtOnce = 256;  // a longer straight stretch is cut in two: it is looked at again and again
  const std::vector<Point3>& p = pass.points;
  if (p.size() < 3) return pass;
  Pass out;
  out.gone_above = pass.gone_above;
  out.points.push_back(p.front());
  std::size_t at = 0;
  while (at + 1 < p.size()) {
    // Twice as far each time, then back to the farthest that is straight.
    std::size_t good = at + 1, step = 1;
    const std::size_t last = std::min(p.size() - 1, at + kMostAtOnce);
    while (good < last && straight(p, at, std::min(last, good + step), off)) {
      good = std::min(last, good + step);
      step *= 2;
    }
    for (; step > 0; step /= 2) {
      if (good + step <= last && straight(p, at, good + step, off)) good += step;
    }
    out.points.push_back(p[good]);
    at = good;
  }
  return out;
}

}  // namespace doyen
