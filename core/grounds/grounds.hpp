// Which ground a piece lies on: the face, or the floor that a recess, a raised panel or a planed area leaves.
#pragma once

#include <string>
#include <vector>

#include "artwork/piece.hpp"
#include "rack/bit.hpp"
#include "stock/blank.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

struct Ground {
  double below = 0;        // mm below the face
  std::string of;          // id of the piece that leaves it; empty: the face
  bool overruled = false;  // the user said so
  std::string half_on;     // id of a piece whose floor it lies on with a part only; empty when there is none
};

// What surrounds a piece as far as its own cutting is concerned.
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

struct Laid {
  std::string id;
  const Outlines* outlines = nullptr;  // null: the piece cannot be set
  const Treatment* cut = nullptr;
};

// For every piece, in the same order. The wood outside cut-outs is waste and may be swept over; `board` is its outline.
std::vector<Surroundings> surroundings_of(const std::vector<Laid>& pieces, const Rack& rack, const Region& board);

// A piece's islands and lines by the ground that they lie on, when it lies on two: each part is cut from its own. What
// crosses the wall between the two stays with the higher ground.
struct PartOnGround {
  Outlines outlines;
  Surroundings around;
};
std::vector<PartOnGround> parts_on_grounds(const Outlines& outlines, const Surroundings& around);
// The first island (or line) that crosses that wall; false when every one lies wholly on one ground.
bool crosses_wall(const Outlines& outlines, const Surroundings& around, Point& at);

// How deep a treatment's floor lies below its ground, mm; an insert's thickness and cover make it up when there is one.
double floor_depth(const Treatment& cut);

}  // namespace doyen
