#include "planning/fitness.hpp"

#include <algorithm>

#include "machine/motion.hpp"

namespace doyen {
namespace {

// A groove narrower than this closes with the first coat of paint, however sharp the V (common practice, no source),
// mm.
constexpr double kHair = 0.25;

double outline_length(const Region& region) {
  double total = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) total += distance(ring[j], ring[i]);
    }
  }
  return total;
}

// The narrowest stroke of a region and where, by its grooves' own measure.
std::pair<double, Point> narrowest(const Groove& groove) {
  double best = 1e300;
  Point at;
  for (const Groove::Place& place : groove.places) {
    if (place.island->narrowest < best) {
      best = place.island->narrowest;
      at = place.on_board(place.island->narrowest_at);
    }
  }
  return {best < 1e299 ? 2 * best : 0, at};
}

}  // namespace

Fitness fitness_of(const Region& region, const Bit& bit, const Feeds& feeds, const MachineProfile& machine,
                   const Cancel& cancel) {
  Fitness f;
  if (region.empty()) return f;
  const bool v = bit.kind == BitKind::V;
  const GrooveShape shape{v ? bit.tan_half() : 1, 0};
  const Groove groove = plan_groove(region, shape, Threads::All, cancel);
  f.widest = groove.widest_stroke();
  f.widest_at = groove.widest_at();
  std::tie(f.thinnest, f.thinnest_at) = narrowest(groove);
  f.deepest = v ? std::max(0.0, (f.widest - bit.tip) / 2 / bit.tan_half()) : 0;
  f.too_wide = v && f.deepest > bit.body_depth() + 1e-6;
  cancel.check();
  const Box around = bounds(region).grown(std::max(5.0, f.widest));
  const Region paper = subtract(clean({{{around.left, around.bottom},
                                        {around.right, around.bottom},
                                        {around.right, around.top},
                                        {around.left, around.top}}}),
                                region);
  std::tie(f.gap, f.gap_at) = narrowest(plan_groove(paper, {1, 0}, Threads::All, cancel));
  cancel.check();
  f.points = point_count(region);
  const double length = outline_length(region);
  f.points_per_cm = length > 0 ? static_cast<double>(f.points) / (length / 10) : 0;
  f.parts = static_cast<int>(region.islands.size());
  for (const Island& island : region.islands) f.loose_counters += static_cast<int>(island.rings.size()) - 1;
  const double least = v ? std::max(bit.tip, kHair) : bit.true_diameter();
  if (least > 0) {
    f.lost = lost_in_opening(region, least / 2);
    std::erase_if(f.lost.islands, [&](const Island& i) {
      // A V runs up into its corners: only what is long and thin is lost to it.
      const Box b = bounds(i);
      return area(Region{{i}}) < 1e-3 || (v && std::max(b.width(), b.height()) < 4 * least);
    });
    f.unreached = area(f.lost);
    if (f.thinnest > 0) f.needed_scale = std::max(1.0, least / f.thinnest);
  }
  if (feeds.known() && v) {
    f.feed_asked = feeds.feed;
    const RunTime t = run_time(groove.passes(0), feeds, machine, {});
    f.seconds = t.seconds;
    f.feed = t.reached_feed();
  }
  return f;
}

double least_stroke(const Bit& bit) {
  return bit.kind == BitKind::V ? std::max(1.0, bit.tip + 2 * 0.5 * bit.tan_half()) : bit.true_diameter();
}

double least_gap(const std::string& wood_class) { return wood_class == "soft" ? 1.5 : 1.0; }

}  // namespace doyen
