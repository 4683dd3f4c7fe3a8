// The holes in a drawing's outlines: filled, or cut out of the board as a piece of their own.
#pragma once

#include <vector>

#include "artwork/piece.hpp"

namespace doyen {

struct Hole {
  Ring ring;       // mm on the board
  double mm2 = 0;  // with whatever stands in it
  Region clear;    // without what stands in it
};

// Those of these outlines, the largest first.
std::vector<Hole> holes_of(const Region& outlines);

// Each becomes a part of the drawing that covers it, and whatever stands in it. Which one can be left out again like
// any part. The piece must hold a drawing; it stays where it is.
void fill_holes(Piece& piece, const std::vector<Hole>& holes);

// A piece of these holes alone, at their place, without an id; what stands in them is left out of it.
Piece piece_of_holes(const Piece& piece, const std::vector<Hole>& holes);

}  // namespace doyen
