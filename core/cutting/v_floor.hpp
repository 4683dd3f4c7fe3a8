// A flat floor gone over with a V bit's tip where no flat bit fits: lines so close that the ridges between them stay
// low.
#pragma once

#include "cancel.hpp"
#include "cutting/pass.hpp"
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

// Goes over `rest` of the floor `region` (where the tip may stand at `z = floor`), in several goes where it is deeper
// than the bit takes at once; one list each. All but the last are as coarse as that allows: it alone makes the floor.
std::vector<std::vector<Pass>> tidy_floor_with_v(const Region& region, const Region& rest, const VFloor& v,
                                                 const Cancel& cancel = {});

}  // namespace doyen
