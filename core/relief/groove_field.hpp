// The ideal groove surface straight from the medial axis' facets, without any moves: at once, and apart from the moves.
#pragma once

#include "cutting/groove.hpp"
#include "relief/height_field.hpp"

namespace doyen {

// Sets every cell of the field: 0 where nothing is cut, ground − min(limit, d/tan(α/2)) inside the groove's region
// (sharp tip; a tip flat rounds what lies within tip/2 of the axis, see geometry.md, and is not painted here).
// The field's memory need not be cleared before. All processors are used.
void paint_groove(HeightField& field, const Groove& groove, double ground = 0);

// The same without clearing: lowers cells where the groove is deeper. For several grooves in one field.
void paint_groove_over(HeightField& field, const Groove& groove, double ground);

}  // namespace doyen
