// Carving moves into a height field: the proof of what the machine will do.
#pragma once

#include <vector>

#include "cancel.hpp"
#include "cuts/pass.hpp"
#include "rack/bit.hpp"
#include "relief/height_field.hpp"

namespace doyen {

// Lowers every cell that the bit sweeps on its way along the passes, plunges included, to the exact envelope of the
// bit's profile (measured diameter and angle, tip flat). Works on all processors, in bands of rows.
void carve(HeightField& field, const std::vector<Pass>& passes, const Bit& bit, const Cancel& cancel = {});

}  // namespace doyen
