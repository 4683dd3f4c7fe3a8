// The parts of raising that lie in files of their own.
#pragma once

#include "treatments/making.hpp"

namespace doyen {

// Whether strokes thinner than they are high are more than a few of it: a disc as wide as it is high reaches less than
// 85 per cent of it (common practice, no source).
bool stands_thin(const Region& kept, double high);

void cut_raise(const cutting::Piece& piece, PieceCuts& out);

}  // namespace doyen
