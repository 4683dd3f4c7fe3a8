// The board in the colours that its finish asks for: paint, resin, plugs and inserts in their places.
#pragma once

#include <string>
#include <vector>

#include "planning/plan.hpp"
#include "relief/cell_paint.hpp"

namespace doyen {

struct FinishPaint {
  CellPaint paint;
  std::vector<std::string> not_known{};  // words that name no colour: what they are said of stays bare
};

// Something of it is coloured, or filled.
bool is_coloured(const Job& job);

// Of the front's relief as the machine leaves it, which is filled up: with plugs and resin to where their pieces begin,
// with inserts as thick as they are. Carved wood is coloured where the school paints what is carved, the face where it
// paints the board.
FinishPaint finish_paint(const Plan& plan, HeightField& front);

}  // namespace doyen
