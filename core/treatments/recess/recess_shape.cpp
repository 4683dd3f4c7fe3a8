#include "treatments/recess/recess_shape.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/polyline.hpp"

namespace doyen {
namespace {

Region disc(Point middle, double radius) {
  Ring ring;
  constexpr int kParts = 180;
  for (int i = 0; i < kParts; ++i) {
    const double a = 2 * std::numbers::pi * i / kParts;
    ring.push_back(middle + Point{radius * std::cos(a), radius * std::sin(a)});
  }
  return clean({ring});
}

// Room for a square insert's corners where a round bit leaves them full: a round hole through the corner, or one drawn
// out along the longer side.
Region corner_relief(const Region& region, double radius, Insert::Corners form) {
  Region holes;
  for (const Island& island : region.islands) {
    const Ring& ring = island.rings.front();
    const std::size_t n = ring.size();
    for (std::size_t i = 0; i < n; ++i) {
      const Point before = ring[i] - ring[(i + n - 1) % n], after = ring[(i + 1) % n] - ring[i];
      const double a = length(before), b = length(after);
      if (a < radius || b < radius) continue;  // a flattened curve, not a corner
      const double turn = std::atan2(cross(before, after), dot(before, after));
      if (turn < std::numbers::pi / 6) continue;
      const Point back = before * (-1 / a), on = after * (1 / b);
      Point way = form == Insert::Corners::Slot ? (a > b ? back : on) : back + on;
      way = way * (1 / length(way));
      holes = unite(holes, disc(ring[i] + way * radius, radius));
    }
  }
  return holes;
}

// The nearest place of the outline to the middle of its front side.
Point notch_place(const Region& region) {
  const Box box = bounds(region);
  const Ring& ring = region.islands.front().rings.front();
  return on_ring(ring, share_nearest(ring, {box.centre().x, box.bottom})).at;
}

}  // namespace

Region recess_shape(const Region& outline, const Insert& insert, double grown, double corner_radius) {
  const bool has_insert = insert.thickness > 0;
  Region region = outline;
  const double by = (has_insert ? insert.clearance : 0) + grown;
  if (by != 0) region = grow(region, by, Corner::Sharp);
  if (region.empty() || !has_insert) return region;
  // A little wider than the bit, so that it gets in.
  if (relieves_corners(insert) && corner_radius > 0)
    region = unite(region, corner_relief(region, corner_radius + 0.02, insert.corners));
  if (insert.notch > 0) region = unite(region, disc(notch_place(region), insert.notch / 2));
  return region;
}

}  // namespace doyen
