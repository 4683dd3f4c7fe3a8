#include "machine/arcs.hpp"

#include <cmath>
#include <numbers>

namespace doyen {
namespace {

// How far the points may lie off an arc, and it off their chords, mm. What pointed bits are off by sideways they are
// off by several times as much in depth.
struct ArcOff {
  double circle, chord, level;
};
constexpr ArcOff kFlatOff{0.003, 0.012, 0.002}, kPointedOff{0.001, 0.002, 0.001};

}  // namespace

Arc arc_from(const std::vector<Point3>& p, std::size_t begin, BitKind kind) {
  const ArcOff& off_by = kind == BitKind::Flat ? kFlatOff : kPointedOff;
  Arc arc;
  if (begin + 3 >= p.size()) return arc;
  const Point a = p[begin].flat(), b = p[begin + 1].flat(), c = p[begin + 3].flat();
  const double d = 2 * cross(b - a, c - a);
  if (std::abs(d) < 1e-9) return arc;
  const double b2 = dot(b - a, b - a), c2 = dot(c - a, c - a);
  const Point off{((c.y - a.y) * b2 - (b.y - a.y) * c2) / d, ((b.x - a.x) * c2 - (c.x - a.x) * b2) / d};
  const double radius = length(off);
  if (radius < 0.3 || radius > 2000) return arc;
  arc.centre = a + off;
  arc.clockwise = d < 0;
  double turned = 0, sinks = 0;  // radians; mm a radian
  std::size_t last = begin;
  for (std::size_t i = begin + 1; i < p.size(); ++i) {
    const Point u = p[i - 1].flat() - arc.centre, v = p[i].flat() - arc.centre;
    if (std::abs(length(v) - radius) > off_by.circle) break;
    const double step = std::atan2(cross(u, v), dot(u, v));
    if ((step < 0) != arc.clockwise || std::abs(step) > 0.5) break;
    if (radius * (1 - std::cos(step / 2)) > off_by.chord) break;
    turned += std::abs(step);
    if (turned > std::numbers::pi * 0.98) break;
    if (i == begin + 1) sinks = (p[i].z - p[begin].z) / turned;
    if (std::abs(p[begin].z + sinks * turned - p[i].z) > off_by.level) break;
    last = i;
  }
  if (last >= begin + 3) arc.last = last;
  return arc;
}

}  // namespace doyen
