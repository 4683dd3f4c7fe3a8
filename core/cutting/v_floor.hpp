// A flat floor gone over with a V bit's tip where no flat bit fits: lines so close that the ridges between them stay
// low.
#pragma once

#include "cancel.hpp"
#include "cutting/pass.hpp"
#include "geometry/medial_axis.hpp"
#include "geometry/region.hpp"

namespace doyen {

struct VFloor {
  double tan_half = 1;     // tan(α/2), α the included angle
  double tip = 0;          // mm, the tip flat's diameter
  double ground = 0;       // mm, z where the wood begins
  double floor = -1;       // mm, z of the floor
  double ridge = 0.05;     // mm, the height of what may stand between two lines
  double step = 0;         // mm of depth that the bit takes at once; 0: any
  bool edge_done = false;  // it has gone along the floor's edge already, as deep
};

// One connected part: a letter, or the ground round raised ones.
struct FloorOfV {
  const MedialAxis& axis;  // of its outline
  Point origin;            // mm on the board, where the axis begins
  double within = 0;       // mm: so far inside the outline the floor's edge lies
  const Region& region;    // the floor: where the tip may stand at `z = floor`
};

// Goes over `rest` of the floor, in several goes where it is deeper than the bit takes at once; one list each. All but
// the last are as coarse as that allows: it alone makes the floor.
std::vector<std::vector<Pass>> tidy_floor_with_v(const FloorOfV& floor, const Region& rest, const VFloor& v,
                                                 const Cancel& cancel = {});

// Which of the rests lie in which part: each lies in one alone, and none is cut for it.
std::vector<Region> rests_by_part(const Region& parts, const Region& rest);

}  // namespace doyen
