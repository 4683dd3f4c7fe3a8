// One piece's work with one bit: what the run orders, times and writes.
#pragma once

#include <string>
#include <vector>

#include "cuts/pass.hpp"

namespace doyen {

struct Operation {
  // In the order in which a piece's operations must happen, and in which a bit does those of all pieces.
  enum class Kind { Plane, Clear, Groove, Bevel, Drill, Pierce, Profile };
  Kind kind = Kind::Groove;
  std::string piece;      // id
  std::string bit;        // id
  std::string treatment;  // its word
  double ground = 0;      // mm, z of the surface it starts from
  double depth = 0;       // mm below the ground, positive
  std::vector<Pass> passes;
};

// Nearest next, starting from `from`; passes may be reversed when `reversible`. Returns where the last one ends.
Point order_passes(std::vector<Pass>& passes, Point from, bool reversible);

}  // namespace doyen
