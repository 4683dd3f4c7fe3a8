// Which ground a piece lies on: the face, or the floor that a recess, a raised panel or a planed area leaves.
#pragma once

#include <string>
#include <vector>

#include "artwork/piece.hpp"
#include "rack/bit.hpp"
#include "stock/blank.hpp"
#include "treatments/surroundings.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

struct LaidPiece {
  std::string id;
  const Outlines* outlines = nullptr;  // null: the piece cannot be set
  const Treatment* cut = nullptr;
};

// For every piece, in the same order. The wood outside cut-outs is waste and may be swept over; `board` is its outline.
std::vector<Surroundings> surroundings_of(const std::vector<LaidPiece>& pieces, const Rack& rack, const Region& board);

// A piece's islands and lines by the ground that they lie on, when it lies on two: each part is cut from its own. What
// crosses the wall between the two stays with the higher ground.
struct PartOnGround {
  Outlines outlines;
  Surroundings around;
};
std::vector<PartOnGround> parts_on_grounds(const Outlines& outlines, const Surroundings& around);
// The first island (or line) that crosses that wall; false when every one lies wholly on one ground.
bool crosses_wall(const Outlines& outlines, const Surroundings& around, Point& at);

}  // namespace doyen
