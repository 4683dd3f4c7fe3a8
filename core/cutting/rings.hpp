// The lines that a bit's centre follows to clear a floor: rings, each a step within the next.
#pragma once

#include <vector>

#include "cancel.hpp"
#include "cutting/drawn_in.hpp"
#include "cutting/keep_away.hpp"
#include "geometry/polyline.hpp"

namespace doyen {

// mm: where lines that take what is left begin and end, the bit stands so far from it.
inline constexpr double kBeside = 0.03;
// mm, how coarse arcs may be where reach is only compared with other bits' reach.
inline constexpr double kRough = 0.006;

// What is under 0.008 mm wide along arcs is rounding, not wood.
Region without_slivers(const Region& region);

// For each connected part of `centres`, the floor drawn in by `radius`, that part and it drawn in by `step` mm again
// and again until nothing is left.
std::vector<std::vector<Region>> shells_of(const DrawnIn& floor, const Region& centres, double radius, double step,
                                           const Cancel& cancel);

// The rings of a whole part of a floor, given as its shells, joined where the bit may go on from one to the next
// without a lift. Each comes after those beside it that lie farther in, so that the bit always cuts on one side only,
// and else next to the one before: a place is done from its middle to its walls before the bit goes elsewhere.
// `radius`: the bit's, mm; `walls`: from which it keeps so far away.
std::vector<Line2> floor_rings(const std::vector<Region>& shells, const KeepAway& walls, double step, double radius,
                               bool climb, const Cancel& cancel);

// Where larger bits have cleared already: from the walls inwards, of each ring only what still takes any of `wanted`
// after those before it. `least`: mm², what counts as dust.
std::vector<Line2> rings_where_wanted(const Region& centres, Region wanted, double step, double radius, double least,
                                      const Cancel& cancel);

}  // namespace doyen
