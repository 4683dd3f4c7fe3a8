// Moves that go beyond the board, kept to it: what is cut across a side goes on just past it, and no farther.
#pragma once

#include <vector>

#include "cutting/pass.hpp"

namespace doyen {

// The parts of each pass that lie in the box, in their order; where one leaves the box and comes back it is lifted.
// What lies inside whole stays as it is, to the last bit.
std::vector<Pass> kept_inside(std::vector<Pass> passes, const Box& box);

}  // namespace doyen
