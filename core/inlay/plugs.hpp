// The further boards that a job's inlays ask for: every plug laid out on a blank of its own wood, mirrored; sheets that
// inserts are cut from; and the board again, with the plugs in it, to be milled level.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// One plug on its board and the pocket that it is for.
struct PlugPlace {
  std::string piece;       // id of the inlay in the carrying job, and of the plug in its own
  Point pocket;            // mm, the middle of the art on the carrying board
  Point plug;              // mm, the middle of the mirrored art on the plug's board
  bool half_turn = false;  // it lies turned by 180° there
  // Where a place of the carrying board lies on the plug's when the plug is turned over onto it.
  [[nodiscard]] Point on_plug(Point p) const {
    const Point d = p - pocket;
    return half_turn ? Point{plug.x + d.x, plug.y - d.y} : Point{plug.x - d.x, plug.y + d.y};
  }
};

struct PlugBoard {
  Job job;             // a job of its own: planned, proved and written like any other
  std::string folder;  // that its files go to, beside the carrying board's own
  std::vector<PlugPlace> places;
};

// Round each plug its background is sunk this far, mm, so that its flanks are free and it can be sawn off.
inline constexpr double kPlugBackground = 8;

// One board for each wood and direction of grain that some inlay's plug has, in the order of the pieces. Sized so that
// every plug has `room` mm round it for holding down. A test ladder's plugs are numbered beside each. Throws
// Problem{BadInput} as outlines_of().
std::vector<PlugBoard> plug_boards(const Job& job, double room = 12);

// Sheets for the inserts that are to be cut, too: each fits its recess, smaller by the clearance, and where the
// recess's corners are left as the bit leaves them, as round as that bit.
std::vector<PlugBoard> insert_boards(const Job& job, const Rack& rack, double room = 12);

// The carrying board with its plugs glued in and sawn off `mill_level` above the face, milled down to a hair above the
// face: 0.1 mm stays for sanding. Zero is taken on the board's own face beside the plugs. None unless the job asks it.
std::vector<PlugBoard> levelling_boards(const Job& job, const Rack& rack);

}  // namespace doyen
