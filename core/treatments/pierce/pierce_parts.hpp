// The parts of piercing that lie in files of their own.
#pragma once

#include "treatments/look.hpp"
#include "treatments/making.hpp"

namespace doyen {

void cut_pierce(const cutting::Piece& piece, PieceCuts& out);
void check_pierce(const PieceSeen& piece, std::vector<Verdict>& out);

}  // namespace doyen
