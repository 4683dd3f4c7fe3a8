// Deep passes in several goes.
#include <algorithm>
#include <cmath>
#include <utility>

#include "cutting/groove.hpp"
#include "measure/whole.hpp"

namespace doyen {
namespace {

// The same line with a point wherever it passes one of the two heights.
std::vector<Point3> split_at_heights(const std::vector<Point3>& line, double high, double low) {
  std::vector<Point3> out;
  for (std::size_t i = 0; i < line.size(); ++i) {
    if (i > 0) {
      const Point3& q = line[i - 1];
      const Point3& p = line[i];
      const auto crossing = [&](double z) {
        if ((q.z < z) == (p.z < z)) return;
        const double t = (z - q.z) / (p.z - q.z);
        out.push_back({q.x + (p.x - q.x) * t, q.y + (p.y - q.y) * t, z});
      };
      crossing(p.z < q.z ? high : low);
      crossing(p.z < q.z ? low : high);
    }
    out.push_back(line[i]);
  }
  return out;
}

// One of the stretches of a line, those before it from `first` on. Between two of them the line went up into what is
// done and came back: where it left off the bit stays down.
void add_stretch(std::vector<Pass>& out, std::size_t first, Pass now) {
  if (now.points.empty()) return;
  if (out.size() > first && out.back().points.back() == now.points.front())
    out.back().points.insert(out.back().points.end(), now.points.begin() + 1, now.points.end());
  else
    out.push_back(std::move(now));
}

}  // namespace

std::vector<Pass> in_levels(const std::vector<Pass>& passes, double ground, double step) {
  const double bottom = deepest(passes);
  if (step <= 0 || ground - bottom <= step * 1.0001) return passes;
  const int levels = whole_up((ground - bottom) / step - 1e-9, 0, 100'000);
  std::vector<Pass> out;
  for (int level = 1; level <= levels; ++level) {
    const double above = ground - (ground - bottom) * (level - 1) / levels;
    const double floor = ground - (ground - bottom) * level / levels;
    for (const Pass& pass : passes) {
      // Only the stretches that lie below what earlier levels took, held at this level's floor.
      const std::vector<Point3> points = split_at_heights(pass.points, above, floor);
      Pass now;
      const auto add = [&](Point3 p) {
        p.z = std::max(p.z, floor);
        if (now.points.empty() || !(now.points.back() == p)) now.points.push_back(p);
      };
      const std::size_t first = out.size();
      const auto flush = [&] { add_stretch(out, first, std::exchange(now, {})); };
      if (points.size() == 1 && (level == 1 || points[0].z < above)) add(points[0]);
      for (std::size_t i = 1; i < points.size(); ++i) {
        if (level > 1 && (points[i - 1].z + points[i].z) / 2 >= above) {
          flush();
          continue;
        }
        if (now.points.empty()) add(points[i - 1]);
        add(points[i]);
      }
      flush();
    }
  }
  return out;
}

}  // namespace doyen
