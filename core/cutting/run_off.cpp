#include "cutting/run_off.hpp"

#include <algorithm>
#include <optional>
#include <utility>

namespace doyen {
namespace {

Point3 between(const Point3& a, const Point3& b, double t) {
  return {a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t, a.z + (b.z - a.z) * t};
}

// Which part of a move lies in the box, as shares of it (Liang and Barsky, 1984).
std::optional<std::pair<double, double>> share_inside(const Point3& a, const Point3& b, const Box& box) {
  double from = 0, to = 1;
  const auto clip = [&](double way, double room) {  // stays while way · t <= room
    if (way == 0) return room >= 0;
    const double t = room / way;
    if (way < 0)
      from = std::max(from, t);
    else
      to = std::min(to, t);
    return from <= to;
  };
  const double dx = b.x - a.x, dy = b.y - a.y;
  if (clip(-dx, a.x - box.left) && clip(dx, box.right - a.x) && clip(-dy, a.y - box.bottom) && clip(dy, box.top - a.y))
    return std::pair(from, to);
  return {};
}

bool inside(const Pass& pass, const Box& box) {
  return std::all_of(pass.points.begin(), pass.points.end(), [&](const Point3& p) { return box.contains(p.flat()); });
}

void add_parts(const Pass& pass, const Box& box, std::vector<Pass>& out) {
  constexpr double kHair = 1e-6;  // mm
  Pass part;
  const auto finish = [&] {
    double way = 0;
    for (std::size_t i = 1; i < part.points.size(); ++i) way += distance(part.points[i - 1], part.points[i]);
    if (way > kHair) out.push_back(std::move(part));
    part = {};
  };
  for (std::size_t i = 1; i < pass.points.size(); ++i) {
    const Point3 &a = pass.points[i - 1], &b = pass.points[i];
    const auto share = share_inside(a, b, box);
    if (!share) {
      finish();
      continue;
    }
    if (share->first > 0) finish();
    if (part.points.empty()) {
      part.points.push_back(share->first > 0 ? between(a, b, share->first) : a);
      // Where it comes down as before, what is known of the place holds; elsewhere nothing is.
      part.gone_above = i == 1 && share->first <= 0 ? pass.gone_above : Pass::kFace;
    }
    const Point3 end = share->second < 1 ? between(a, b, share->second) : b;
    if (distance(part.points.back(), end) > 0) part.points.push_back(end);
    if (share->second < 1) finish();
  }
  finish();
}

}  // namespace

std::vector<Pass> kept_inside(std::vector<Pass> passes, const Box& box) {
  std::vector<Pass> out;
  out.reserve(passes.size());
  for (Pass& pass : passes) {
    if (inside(pass, box))
      out.push_back(std::move(pass));
    else
      add_parts(pass, box, out);
  }
  return out;
}

}  // namespace doyen
