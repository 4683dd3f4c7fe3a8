// All the boards that a job asks for beside its own: of inlays and inserts, or, where the job is a plate with a list,
// the sheets that hold all plates, and theirs; of a sign its panels; of cut-outs the boards that they are laid on.
#pragma once

#include "inlay/plugs.hpp"

namespace doyen {

// Throws Problem{BadInput} as outlines_of(), and for more sheets at once than kMostSheets.
std::vector<FurtherBoard> further_boards(const Job& job, const Rack& rack);

inline constexpr std::size_t kMostSheets = 100;

}  // namespace doyen
