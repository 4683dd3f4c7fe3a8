// What a cut-out frees.
#pragma once

#include "geometry/region.hpp"

namespace doyen {

// The body that stays: beside a bevel on the same outline the cut keeps clear by its width, `grown` mm (geometry.md,
// allowances).
Region cut_out_body(const Region& outline, double grown);

}  // namespace doyen
