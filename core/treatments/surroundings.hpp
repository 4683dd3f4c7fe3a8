// What lies round a piece, as far as its own cutting is concerned.
#pragma once

#include <string>

#include "geometry/region.hpp"

namespace doyen {

// Which ground it lies on: the face, or the floor that a recess, a raised panel or a planed area leaves.
struct Ground {
  double below = 0;        // mm below the face
  std::string of;          // id of the piece that leaves it; empty: the face
  bool overruled = false;  // the user said so
  std::string half_on;     // id of a piece whose floor it lies on with a part only; empty when there is none
};

struct Surroundings {
  Ground ground;
  Region sunk;            // of Raise: what is taken away; empty when another piece of the same panel does it
  Region raised;          // of Raise in several steps: all that stays standing in that panel
  std::string with;       // of Raise: id of that other piece
  Region floor;           // the whole floor that it lies on; empty on the face
  double wall = 0;        // mm that the wood round that floor stands above it
  double lean = 0;        // mm by which that wall leans back from its foot to its top; 0 when it is upright
  Region part_floor;      // where a part of it lies lower: the floor of ground.half_on
  double part_below = 0;  // mm below the face, of that floor
  double part_wall = 0;   // mm that the wood round it stands above it
  Region open;            // of Plane: air and waste beside it, that the bit may sweep over
  double grown = 0;  // mm by which a bevel on the same outline lets this through cut or recess make room (may be < 0)
};

}  // namespace doyen
