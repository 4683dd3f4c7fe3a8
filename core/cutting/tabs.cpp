#include "cutting/tabs.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/polyline.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// How much the outline turns, in radians, within ± reach of a place.
double turning(const RingWalk& ring, double total, double share, double reach) {
  constexpr int kLooks = 24;
  double sum = 0;
  Point last{};
  for (int i = 0; i <= kLooks; ++i) {
    const double s = share + (2.0 * i / kLooks - 1) * reach / total;
    const Point along = ring.at(s).along;
    if (i > 0) sum += std::abs(std::atan2(cross(last, along), dot(last, along)));
    last = along;
  }
  return sum;
}

// Where the bit's middle goes beside the outlines, to see which stretches of the slit come near a tab that stands in
// another.
class SlitWalk {
 public:
  SlitWalk(const Region& region, double diameter, bool inside) : diameter_(diameter), side_(inside ? -1 : 1) {
    for (const Island& island : region.islands) {
      for (std::size_t r = 0; r < island.rings.size(); ++r) add(island.rings[r], r == 0);
    }
  }

  // Some stretch of the slit other than the tab's own cuts into it. `island` and `along` as tabs are placed.
  [[nodiscard]] bool cuts(int island, double along, const OnRing& on, double length) const {
    const Point out = outward(on.along) * side_;
    const double half = length / 2, radius = diameter_ / 2;
    const Box near = [&] {
      Box box;
      for (const double u : {-half, half}) {
        for (const double v : {0.0, diameter_}) box.add(on.at + on.along * u + out * v);
      }
      return box.grown(radius);
    }();
    int outer = -1;
    for (const Way& way : ways_) {
      outer += way.outer ? 1 : 0;
      if (!way.box.meets(near)) continue;
      const bool own = way.outer && outer == island;
      for (std::size_t k = 0; k < way.centres.size(); ++k) {
        const Point p = way.centres[k];
        if (!near.contains(p)) continue;
        if (own) {
          const double away =
              std::abs(way.total * (static_cast<double>(k) / static_cast<double>(way.centres.size()) - along));
          if (std::min(away, way.total - away) <= half + radius) continue;
        }
        const double du = std::max(0.0, std::abs(dot(p - on.at, on.along)) - half);
        const double v = dot(p - on.at, out), dv = std::max({0.0, -v, v - diameter_});
        if (std::hypot(du, dv) < radius - kTouch) return true;
      }
    }
    return false;
  }

 private:
  static constexpr double kTouch = 0.1;  // mm that a tab may lose unseen
  struct Way {
    bool outer;
    double total;  // mm round the outline
    std::vector<Point> centres;
    Box box;
  };
  static Point outward(Point along) { return {along.y, -along.x}; }

  void add(const Ring& ring, bool outer) {
    const RingWalk walk(ring);
    Way way{outer, walk.length(), {}, {}};
    const int looks = std::clamp(static_cast<int>(way.total / std::max(0.2, diameter_ / 8)), 60, 4000);
    for (int k = 0; k < looks; ++k) {
      const OnRing on = walk.at(static_cast<double>(k) / looks);
      way.centres.push_back(on.at + outward(on.along) * (side_ * diameter_ / 2));
      way.box.add(way.centres.back());
    }
    ways_.push_back(std::move(way));
  }

  double diameter_, side_;
  std::vector<Way> ways_;
};

std::string objection(const RingWalk& outer, const SlitWalk& slit, const TabPlace& place, double length,
                      double diameter) {
  const double total = outer.length(), along = place.along;
  const double half = length / 2;
  if (total < 4 * (length + diameter)) return say("the outline is too short for tabs of this length");
  const double turn = turning(outer, total, along, half + diameter / 2);
  // A curve of radius 2 D turns by (length + D) / (2 D) over the stretch that the tab needs.
  if (turn > (length + diameter) / (2 * diameter)) return say("the outline bends here by a radius under twice the bit");
  Point before = outer.at(along - (half + diameter / 2) / total).along;
  double sharpest = 0;
  constexpr int kLooks = 40;
  for (int i = 1; i <= kLooks; ++i) {
    const double s = along + (2.0 * i / kLooks - 1) * (half + diameter / 2) / total;
    const Point now = outer.at(s).along;
    sharpest = std::max(sharpest, std::abs(std::atan2(cross(before, now), dot(before, now))));
    before = now;
  }
  if (sharpest > 20 * std::numbers::pi / 180) return say("there is a corner here");
  if (slit.cuts(place.island, along, outer.at(along), length))
    return say("the slit on the other side of this narrow place cuts into it");
  return {};
}

}  // namespace

TabShape tab_shape(const Tabs& tabs, double thickness) {
  TabShape shape;
  shape.length = tabs.length;
  shape.height = std::min(tabs.height, thickness);
  // Not steeper than it need be, and for two fifths of its length as high as asked.
  shape.ramp = std::min(2 * shape.height, 0.3 * shape.length);
  return shape;
}

std::string tab_objection(const Region& region, const TabPlace& place, double length, double diameter, bool inside) {
  const RingWalk outer(region.islands[static_cast<std::size_t>(place.island)].rings.front());
  return objection(outer, SlitWalk(region, diameter, inside), place, length, diameter);
}

std::vector<TabPlace> place_tabs(const Region& on_board, const Tabs& tabs, double diameter, bool inside) {
  // Between places that are equally good the last bit of a figure would decide: looked at from the same zero, whoever
  // asks, wherever it lies, gets the same answer.
  const Box box = bounds(on_board);
  if (box.empty()) return {};
  const Region region = moved_on_grid(on_board, {-snap_to_grid(box.left), -snap_to_grid(box.bottom)});
  std::vector<TabPlace> places;
  const int count = std::clamp(tabs.count, 2, 60);
  const SlitWalk slit(region, diameter, inside);
  for (std::size_t i = 0; i < region.islands.size(); ++i) {
    const RingWalk outer(region.islands[i].rings.front());
    const double total = outer.length();
    const int looks = std::clamp(static_cast<int>(total / 2), 120, 2400);
    std::vector<double> cost(static_cast<std::size_t>(looks));
    for (int k = 0; k < looks; ++k) {
      const double share = static_cast<double>(k) / looks;
      const bool bad = !objection(outer, slit, {static_cast<int>(i), share}, tabs.length, diameter).empty();
      // The middle of a straight stretch beats its ends.
      cost[static_cast<std::size_t>(k)] = bad ? 1e6
                                              : turning(outer, total, share, tabs.length / 2 + diameter) +
                                                    0.2 * turning(outer, total, share, total / count / 3);
    }
    // Even spacing turned to where it hurts least, then each tab slides to the straightest place in its own stretch.
    const auto at = [&](int k) { return cost[static_cast<std::size_t>(((k % looks) + looks) % looks)]; };
    int best_phase = 0;
    double best = 1e300;
    for (int phase = 0; phase < looks / count; ++phase) {
      double sum = 0;
      for (int t = 0; t < count; ++t) sum += at(phase + t * looks / count);
      if (sum < best) {
        best = sum;
        best_phase = phase;
      }
    }
    for (int t = 0; t < count; ++t) {
      const int home = best_phase + t * looks / count;
      int chosen = home;
      double least = 1e300;
      for (int slide = 0; slide <= looks / count * 2 / 5; ++slide) {
        for (const int k : {home + slide, home - slide}) {
          const double c = at(k) + 0.3 * slide * count / looks;
          if (c < least) {
            least = c;
            chosen = k;
          }
        }
      }
      const double along = std::fmod(static_cast<double>(chosen + looks) / looks, 1.0);
      if (at(chosen) < 1e6) places.push_back({static_cast<int>(i), along});
    }
  }
  return places;
}

}  // namespace doyen
