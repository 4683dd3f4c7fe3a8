// Parts laid on boards by their true outlines, as close together as their gap allows.
#pragma once

#include <cstddef>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

struct PackedPart {
  std::size_t part = 0, board = 0;
  double turn = 0;  // degrees anticlockwise, about the part's own origin
  Point shift;      // mm, after that
  [[nodiscard]] Transform place() const { return Transform::turn(turn).then(Transform::move(shift.x, shift.y)); }
};

struct Packed {
  std::vector<PackedPart> parts;     // by board, in the order in which they were laid
  std::vector<std::size_t> without;  // parts that found no room on any board
};

// Each part lies within its board's region and at least `apart` mm from every other, turned by one of `turns`
// (degrees). What an outline encloses is its own: nothing is laid into a part's openings, where it would come loose
// with the waste.
//
// Largest first, each at the place nearest to the board's left end (of boards that are deeper than wide: to the front),
// on the first board that takes it; of several orders the one that takes the least wood is kept. Places are looked for
// on a grid of cells, each shape covering every cell that it touches: what is found is never too close, and up to two
// cells (from 0.5 mm a side, of large boards some millimetres) farther apart than need be. The same parts always lie
// the same way. Throws Cancelled.
Packed pack(const std::vector<Region>& parts, const std::vector<Region>& boards, double apart,
            const std::vector<double>& turns);

// The same, remembered for the last few questions: a plan asks it again at every edit.
Packed packed_as_before(const std::vector<Region>& parts, const std::vector<Region>& boards, double apart,
                        const std::vector<double>& turns);

}  // namespace doyen
