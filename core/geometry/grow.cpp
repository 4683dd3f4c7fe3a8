// Regions grown and shrunk, in one go or, where they are rough or jagged, in strides.
#include <algorithm>
#include <cmath>

#include "cancel.hpp"
#include "geometry/clipper_regions.hpp"
#include "geometry/polyline.hpp"

namespace doyen {

namespace cl = ClipperLib;
using clipping::from_paths;
using clipping::from_tree;
using clipping::kManyPaths;

bool rough(const Region& region) {
  constexpr std::size_t kMany = 4000;
  constexpr double kClose = 0.05;  // mm
  std::size_t points = 0;
  double around = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      points += ring.size();
      for (std::size_t i = 0; i < ring.size(); ++i) around += distance(ring[i], ring[(i + 1) % ring.size()]);
    }
  }
  return points > kMany && around < kClose * static_cast<double>(points);
}

namespace {

// How far apart an outline's sharp corners stand on the average, mm, where it has many; as good as infinite else.
double corners_apart(const Region& region) {
  constexpr std::size_t kMany = 1500;
  constexpr double kSharp = 0.94;  // the cosine of 20°: what is flattened finely turns less
  std::size_t sharp = 0;
  double around = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point before = ring[i] - ring[(i + ring.size() - 1) % ring.size()],
                    after = ring[(i + 1) % ring.size()] - ring[i];
        const double a = length(before), b = length(after);
        around += b;
        if (a > 0 && b > 0 && dot(before, after) < kSharp * a * b) ++sharp;
      }
    }
  }
  return sharp < kMany ? 1e300 : around / static_cast<double>(sharp);
}

// The first of the strides in which an outline is grown, mm; 0 for in one go. Where corners stand close to each other,
// for so much growing, each throws an arc over all of its neighbours, and Clipper looks at every pair of them.
double first_stride(const Region& region, double mm) {
  constexpr double kFirst = 0.02;  // mm
  if (mm > 2 * kFirst && rough(region)) return kFirst;
  const double apart = corners_apart(region);
  return mm > 2 * apart ? std::max(kFirst, apart) : 0;
}

// Without the teeth that growing by `mm` swallows: outward ones where it shrinks, inward ones where it grows. Across a
// tooth from a to b what is kept is the nearer by at most |ab|² / 8 |mm|, the sagitta of a circle of that radius round
// any place of the new outline: a and b themselves lay on the old one.
Region without_teeth(const Region& region, double mm) {
  constexpr double kOff = 0.001;  // mm
  const double widest = std::sqrt(8 * std::abs(mm) * kOff);
  Region out;
  for (const Island& island : region.islands) {
    Island& kept = out.islands.emplace_back();
    for (const Ring& ring : island.rings) {
      Ring way;
      for (const Point& p : ring) {
        while (way.size() > 1 && distance(way[way.size() - 2], p) <= widest &&
               cross(way.back() - way[way.size() - 2], p - way.back()) * mm <= 0)
          way.pop_back();
        way.push_back(p);
      }
      if (way.size() < 3) way = ring;
      kept.rings.push_back(std::move(way));
    }
  }
  return out;
}

}  // namespace

Region grow(const Region& region, double mm, Corner corner, double arc_error) {
  if (mm == 0) return region;
  if (double stride = corner == Corner::Round ? first_stride(region, std::abs(mm)) : 0; stride > 0) {
    // In strides that double, thinned between them: the outline is smooth to what its strides so far are after each.
    Region at = without_teeth(region, mm);
    if (point_count(at) < point_count(region)) stride = first_stride(at, std::abs(mm));
    if (stride == 0) return grow(at, mm, corner, arc_error);
    for (double left = std::abs(mm); left > 1e-9 && !at.empty(); stride *= 2) {
      const double now = left < 1.5 * stride ? left : stride;
      at = grow(rough(at) ? thinned(at, 0.001) : at, std::copysign(now, mm), corner, arc_error);
      left -= now;
      if (left > 1e-9 && first_stride(at, left) == 0) return grow(at, std::copysign(left, mm), corner, arc_error);
    }
    return at;
  }
  Cancel::check_here();
  cl::ClipperOffset offset(4.0, arc_error * kPerMm);
  const cl::Paths outlines = clipping::to_clipper(region);
  offset.AddPaths(outlines,
                  corner == Corner::Round   ? cl::jtRound
                  : corner == Corner::Sharp ? cl::jtMiter
                                            : cl::jtSquare,
                  cl::etClosedPolygon);
  if (outlines.size() > kManyPaths) {
    cl::Paths flat;
    offset.Execute(flat, mm * kPerMm);
    return from_paths(flat);
  }
  cl::PolyTree tree;
  offset.Execute(tree, mm * kPerMm);
  return from_tree(tree);
}

Region opening(const Region& region, double radius, double arc_error) {
  // Not cut back to the region: that would let outlines run along each other to the last micrometre, which costs
  // Clipper minutes where it does not hang it.
  return grow(grow(region, -radius, Corner::Round, arc_error), radius, Corner::Round, arc_error);
}

// The opening is grown a little more than it was shrunk: outlines that run along each other to the last micrometre cost
// Clipper minutes.
Region lost_in_opening(const Region& region, double radius, double arc_error) {
  constexpr double kMore = 0.003;  // mm
  return subtract(region,
                  grow(grow(region, -radius, Corner::Round, arc_error), radius + kMore, Corner::Round, arc_error));
}

}  // namespace doyen
