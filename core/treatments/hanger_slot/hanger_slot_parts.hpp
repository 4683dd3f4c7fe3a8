// The parts of hanger slots that lie in files of their own.
#pragma once

#include "treatments/look.hpp"

namespace doyen {

void check_hanger_slot(const PieceSeen& piece, std::vector<Verdict>& out);

}  // namespace doyen
