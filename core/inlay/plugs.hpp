// The second boards of a job's inlays: every plug laid out on a blank of its own wood, mirrored.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// One plug on its board and the pocket that it is for.
struct PlugPlace {
  std::string piece;  // id of the inlay in the carrying job, and of the plug in its own
  Point pocket;       // mm, the middle of the art on the carrying board
  Point plug;         // mm, the middle of the mirrored art on the plug's board
  // Where a place of the carrying board lies on the plug's when the plug is turned over onto it.
  [[nodiscard]] Point on_plug(Point p) const { return {plug.x - (p.x - pocket.x), plug.y + (p.y - pocket.y)}; }
};

struct PlugBoard {
  Job job;  // a job of its own: planned, proved and written like any other
  std::vector<PlugPlace> places;
};

// One board for each wood that some inlay's plug is of, in the order of the pieces. Sized so that every plug has
// `room` mm round it for holding down; grain as on the carrying board. Throws Problem{BadInput} as outlines_of().
std::vector<PlugBoard> plug_boards(const Job& job, double room = 12);

}  // namespace doyen
