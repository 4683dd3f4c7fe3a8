// One piece's work with one bit: what the run orders, times and writes.
#pragma once

#include <string>
#include <vector>

#include "cutting/pass.hpp"
#include "measure/id.hpp"
#include "stock/turn_over.hpp"

namespace doyen {

struct Operation {
  // In the order in which a piece's operations must happen, and in which a bit does those of all pieces.
  enum class Kind { Mark, Plane, Clear, Groove, Bevel, Drill, Slot, Pierce, Profile };
  Kind kind = Kind::Groove;
  std::string piece;  // id
  BitId bit;
  std::string treatment;  // its word
  double ground = 0;      // mm, z of the surface it starts from
  double depth = 0;       // mm below the ground, positive
  std::vector<Pass> passes;
  double feed_share = 1;  // of the bit's feed: less where wood is delicate or the edge cut deep
  std::string slowed{};   // why, such as “delicate letters”; empty when it is not
  bool back = false;      // in the frame of the board turned over
};

std::vector<Pass> turned_over(std::vector<Pass> passes, const Blank& blank, TurnOver turn);

// A short way through the air from `from` past all of them: nearest next, then improved (2-opt, or-opt). Passes may be
// reversed when `reversible`. Returns where the last one ends.
Point order_passes(std::vector<Pass>& passes, Point from, bool reversible);

}  // namespace doyen
