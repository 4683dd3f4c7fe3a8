// What no bit of a plan reaches, for pictures.
#pragma once

#include "planning/plan.hpp"
#include "relief/cell_paint.hpp"

namespace doyen {

// Anything is lost on that side.
bool loses_something(const Plan& plan, Side side);

// Colours the cells of that side's relief, in its own coordinates, where wood stays that was to go.
void show_lost(CellPaint& paint, const HeightField& field, const Plan& plan, Side side, const Colour& colour);

}  // namespace doyen
