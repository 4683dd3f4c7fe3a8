// The parts of raising that lie in files of their own.
#pragma once

#include "treatments/making.hpp"

namespace doyen {

void cut_raise(const cutting::Piece& piece, PieceCuts& out);

}  // namespace doyen
