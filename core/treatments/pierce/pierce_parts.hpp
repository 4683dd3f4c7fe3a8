// The parts of piercing that lie in files of their own.
#pragma once

#include "treatments/making.hpp"

namespace doyen {

void cut_pierce(const cutting::Piece& piece, PieceCuts& out);

}  // namespace doyen
