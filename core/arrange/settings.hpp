// What surrounds an arrangement: the board's edge, a border, the shape that the sign is cut out in. Not for use outside
// arrange/.
#pragma once

#include "arrange/arrangement.hpp"

namespace doyen::arranging {

// A board with its border and outline in place, and the room that is left for everything else.
struct Setting {
  std::string frame;  // “oval, border with scooped corners”; empty for the bare board
  Job job;
  Region room;         // on the board: what is arranged stays inside
  Ring convex;         // the same, when it has no bays; else empty
  bool round = false;  // as wide as it is high, near enough
  double white = 0;    // mm kept to the edge or border
};

// Every setting that the wish allows. Throws Problem{BadInput} when the board leaves no room.
std::vector<Setting> settings_for(const Job& job, const Rack& rack, const ArrangeWish& wish);

}  // namespace doyen::arranging
