// The further boards that a job's inlays ask for: every plug laid out on a blank of its own wood, mirrored; sheets that
// inserts are cut from; and the board again, with the plugs in it, to be milled level.
#pragma once

#include <string>
#include <vector>

#include "job/further_board.hpp"

namespace doyen {

// Round each plug its background is sunk this far, mm, so that its flanks are free and it can be sawn off.
inline constexpr double kPlugBackground = 8;

// One board for each wood and direction of grain that some inlay's plug has, in the order of the pieces. Sized so that
// every plug has `room` mm round it for holding down. A test ladder's plugs are numbered beside each. Throws
// Problem{BadInput} as outlines_of().
std::vector<FurtherBoard> plug_boards(const Job& job, double room = 12);

// Sheets for the inserts that are to be cut, too: each fits its recess, smaller by the clearance, and where the
// recess's corners are left as the bit leaves them, as round as that bit.
std::vector<FurtherBoard> insert_boards(const Job& job, const Rack& rack, double room = 12);

// The carrying board with its plugs glued in and sawn off `mill_level` above the face, milled down to a hair above the
// face: 0.1 mm stays for sanding. Zero is taken on the board's own face beside the plugs. None unless the job asks it.
std::vector<FurtherBoard> levelling_boards(const Job& job, const Rack& rack);

}  // namespace doyen
