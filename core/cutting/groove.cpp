#include "cutting/groove.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>

#include "cutting/axis_walk.hpp"
#include "cutting/island_memory.hpp"

namespace doyen {
namespace {

constexpr double kUnderCut = 0.016;  // mm of depth that peeled hairs may leave
// mm: so much past the radius at which the floor limit holds, the axis is still walked. A stroke that just closes at
// the limit has no floor that a ring could follow, and neither has one that is wider by the rounding of an offset.
constexpr double kJustCloses = 0.01;

}  // namespace

double GrooveShape::depth_at(double clearance) const {
  return std::min(limit, std::max(0.0, (clearance - tip / 2) / tan_half));
}

IslandGroove plan_island(const Island& island, const GrooveShape& shape) {
  IslandGroove out;
  out.axis = medial_axis(island);
  AxisWalk walk(out.axis, shape);
  walk.peel_hairs(std::min(0.02, kUnderCut * shape.tan_half));
  walk.measure(out);
  const double least = shape.tip / 2;
  const double kink = shape.limit_radius();
  if (least > 0 || out.widest > kink) walk.clip_to(least, kink, kink + kJustCloses);
  walk.chain(out);
  return out;
}

Groove plan_groove(const Region& region, const GrooveShape& shape, Threads threads, const Cancel& cancel) {
  Groove groove;
  groove.shape = shape;
  std::map<std::vector<std::int32_t>, std::size_t> known;
  std::vector<const Island*> distinct;
  std::vector<std::size_t> which;
  for (const Island& island : region.islands) {
    const auto [it, fresh] = known.try_emplace(island_key(island), distinct.size());
    if (fresh) distinct.push_back(&island);
    which.push_back(it->second);
  }
  known.clear();
  std::vector<std::shared_ptr<const IslandGroove>> worked(distinct.size());
  std::vector<std::size_t> largest_first(distinct.size());
  for (std::size_t i = 0; i < distinct.size(); ++i) largest_first[i] = i;
  const auto size = [&](std::size_t i) {
    std::size_t n = 0;
    for (const Ring& ring : distinct[i]->rings) n += ring.size();
    return n;
  };
  std::sort(largest_first.begin(), largest_first.end(),
            [&](std::size_t a, std::size_t b) { return size(a) > size(b); });
  const auto work = [&](std::size_t k) {
    cancel.check();
    const Cancel::Scope stops(cancel);
    const std::size_t i = largest_first[k];
    worked[i] = remembered_island(*distinct[i], shape);
  };
  if (threads == Threads::One) {
    for (std::size_t k = 0; k < distinct.size(); ++k) work(k);
  } else {
    tbb::parallel_for(std::size_t{0}, distinct.size(), work, tbb::simple_partitioner());
  }
  for (std::size_t i = 0; i < region.islands.size(); ++i) {
    const Box box = bounds(region.islands[i]);
    groove.places.push_back({worked[which[i]], {snap_to_grid(box.left), snap_to_grid(box.bottom)}});
  }
  return groove;
}

double Groove::widest_stroke() const {
  double r = 0;
  for (const Place& place : places) r = std::max(r, place.island->widest);
  return 2 * r;
}

Point Groove::widest_at() const {
  double r = -1;
  Point p;
  for (const Place& place : places) {
    if (place.island->widest > r) {
      r = place.island->widest;
      p = place.on_board(place.island->widest_at);
    }
  }
  return p;
}

double Groove::narrowest_stroke() const {
  double r = std::numeric_limits<double>::infinity();
  for (const Place& place : places) r = std::min(r, place.island->narrowest);
  return places.empty() ? 0 : 2 * r;
}

double Groove::deepest() const { return shape.depth_at(widest_stroke() / 2); }

bool Groove::has_floor() const { return widest_stroke() / 2 > shape.limit_radius() + kGrid; }

std::vector<Pass> Groove::passes(double ground) const {
  std::vector<Pass> all;
  for (const Place& place : places) {
    for (const Pass& pass : place.island->passes) {
      Pass& moved = all.emplace_back();
      moved.points.reserve(pass.points.size());
      for (const Point3& p : pass.points) {
        const Point q = place.on_board(p.flat());
        moved.points.push_back({q.x, q.y, p.z + ground});
      }
    }
  }
  return all;
}

}  // namespace doyen
