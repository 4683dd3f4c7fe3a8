#include "geometry/necks.hpp"

#include <algorithm>
#include <cmath>

#include "cancel.hpp"

namespace doyen {
namespace {

constexpr double kTouch = 0.05;     // mm: an opened body is a little off what was taken from it
constexpr double kArcError = 0.01;  // mm
constexpr double kCrumb = 0.002;    // mm²

// The parts that are bodies and no crumbs.
std::vector<Region> bodies_of(const Region& region, double width) {
  std::vector<Region> bodies;
  for (const Island& island : region.islands) {
    Region one{{island}};
    if (area(one) >= width * width) bodies.push_back(std::move(one));
  }
  return bodies;
}

// How many bodies a disc of that width leaves within a box of the region.
std::size_t bodies_left(const Region& near, double width, double body) {
  return bodies_of(opening(near, width / 2, kArcError), body).size();
}

// A region of which small places are asked for: holes elsewhere are left out, and with them most of what a boolean
// would have to go through.
class Places {
 public:
  explicit Places(const Region& region) : region_(region) {
    for (const Island& island : region.islands) {
      boxes_.emplace_back();
      for (const Ring& ring : island.rings) boxes_.back().push_back(bounds(ring));
    }
  }

  // What of it can matter within the box.
  [[nodiscard]] Region about(const Box& box) const {
    Region near;
    for (std::size_t k = 0; k < boxes_.size(); ++k) {
      if (!boxes_[k].front().meets(box)) continue;
      Island one;
      for (std::size_t i = 0; i < boxes_[k].size(); ++i) {
        if (i == 0 || boxes_[k][i].meets(box)) one.rings.push_back(region_.islands[k].rings[i]);
      }
      near.islands.push_back(std::move(one));
    }
    return near;
  }

 private:
  const Region& region_;
  std::vector<std::vector<Box>> boxes_;
};

}  // namespace

std::vector<Neck> necks_of(const Region& region, double narrower_than) {
  std::vector<Neck> necks;
  if (region.empty() || narrower_than <= 0) return necks;
  const Region opened = opening(region, narrower_than / 2, kArcError);
  const std::vector<Region> bodies = bodies_of(opened, narrower_than);
  std::vector<Box> boxes;
  const Places whole_region(region);
  std::vector<Places> places;
  for (const Region& body : bodies) {
    boxes.push_back(bounds(body).grown(kTouch));
    places.emplace_back(body);
  }
  for (const Island& lost : lost_in_opening(region, narrower_than / 2, kArcError).islands) {
    Cancel::current().check();
    const Region touch = grow({{lost}}, kTouch);
    const Box here = bounds(touch);
    std::vector<Point> ends;
    for (std::size_t b = 0; b < bodies.size(); ++b) {
      if (!boxes[b].meets(here)) continue;
      // A body may meet it at both ends: a frame with a narrow side.
      for (const Island& end : intersect(touch, places[b].about(here)).islands) {
        if (area({{end}}) > kCrumb) ends.push_back(bounds(end).centre());
      }
    }
    if (ends.size() < 2) continue;
    Neck neck;
    const Point way = ends[1] - ends[0];
    const double length = std::hypot(way.x, way.y);
    if (length > 1e-9) neck.along = {way.x / length, way.y / length};
    neck.at = (ends[0] + ends[1]) * 0.5;
    // By halving, within what lies round it: the least disc that does not pass.
    const Box round = here.grown(2 * narrower_than);
    const Region near = intersect(whole_region.about(round), region_of(round));
    const double body = narrower_than / 2;
    const std::size_t whole = bodies_left(near, 0.02, body);
    double passes = 0, stops = narrower_than;
    while (stops - passes > 0.05) {
      const double middle = (passes + stops) / 2;
      (bodies_left(near, middle, body) > whole ? stops : passes) = middle;
    }
    neck.width = stops;
    necks.push_back(neck);
  }
  std::sort(necks.begin(), necks.end(), [](const Neck& a, const Neck& b) { return a.width < b.width; });
  return necks;
}

}  // namespace doyen
