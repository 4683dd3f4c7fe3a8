// The whole sign larger or smaller: laid out in shares of one length, as a flag or a coat of arms is.
#pragma once

#include "job/job.hpp"

namespace doyen {

// Board, artwork, margins and seams times that factor. With `depths`, what is asked of depth as well: floors, limits,
// bevels, lines, not what follows the board's thickness or a thing that is let in. Wood, bits, holes for screws and
// pins, tabs and clamps are as large as they are. Does nothing for factors that are none.
void size_sign(Job& job, double factor, bool depths);

}  // namespace doyen
