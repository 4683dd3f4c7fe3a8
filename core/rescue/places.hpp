// The pieces, or the part of one, that a rescue is about. Not for use outside rescue/.
#pragma once

#include "rescue/rescue.hpp"

namespace doyen::rescuing {

// Outlines where they lie on the board.
struct Place {
  const Item* item = nullptr;  // of the plan's job
  std::string name;
  Region region;
  Box box;  // of strokes that are followed, too
};
// Throws Problem{BadInput} for none.
std::vector<Place> places_of(const Plan& plan, const CutAnew& anew);

// As a drawing of its own, there.
Piece as_it_lies(const std::string& id, const Place& place);

const PiecePlan& plan_of_piece(const Plan& plan, const std::string& id);  // throws Problem{BadInput}

}  // namespace doyen::rescuing
