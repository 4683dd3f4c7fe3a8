// What of a board is left when it is cut, by its carved relief: areas to be coated, wood, weight, where it balances.
#pragma once

#include <map>
#include <string>

#include "planning/plan.hpp"

namespace doyen {

// geometry.md, Resin, paint, weight: all from the simulated surface.
struct FinishFigures {
  double cell = 0;    // mm, of the relief
  double flat = 0;    // mm², seen from above: what is cut out, openings taken off; else the board
  double face = 0;    // mm² that stay at the face
  double carved = 0;  // mm² of true surface, floors and flanks, of all that is cut into the face
  std::map<std::string, double> by_piece{};  // of that, inside each piece's outlines; what is left over is ground
  double edges = 0;                          // mm²: outer and inner edges as high as the board is thick
  double volume = 0;                         // mm³ of wood
  double kilograms = 0;                      // of that wood, and of what is let into it and poured
  Point centre;                              // mm on the board: of all that weighs
  double thick = 0;                          // mm, the readings' mean
  double let_in = 0;                         // kg, of `kilograms`: plugs, inserts and resin
};

// Throws Cancelled.
FinishFigures finish_figures(const Plan& plan, const Cancel& cancel = {});

}  // namespace doyen
