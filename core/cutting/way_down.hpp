// Where a bit may come down fast: to just above what is cut already, known from the moves before.
#pragma once

#include "cutting/operation.hpp"
#include "rack/asked_rack.hpp"

namespace doyen {

// Fills in Pass::gone_above of operations that follow each other in this order: some one place of an earlier move holds
// all of the bit as it stands there. What several moves took together is not counted on.
void note_ways_down(std::vector<Operation>& operations, const AskedRack& rack);

// A floor that was cut before, by another piece.
struct FloorBelow {
  const Region& region;
  double z = 0;  // mm, its height
};

// The same where such a floor is under the bit, clear of its walls.
void note_floor_below(std::vector<Operation>& operations, const AskedRack& rack, const FloorBelow& floor);

}  // namespace doyen
