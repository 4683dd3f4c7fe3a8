// The parts of inlays that lie in files of their own.
#pragma once

#include "treatments/look.hpp"

namespace doyen {

void check_inlay(const PieceSeen& piece, std::vector<Verdict>& out);

}  // namespace doyen
