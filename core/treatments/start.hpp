// What a look begins with, in the window and on the command line alike.
#pragma once

#include "geometry/region.hpp"
#include "treatments/look.hpp"

namespace doyen {

// `was`: how it was cut until now; what that says and the new look understands stays, a bit that the look cannot use
// gives way to the rack's nearest: a V of 60°, a flat bit of 1/4 in (for holes of 1/8 in), the largest keyhole bit.
// Depths that nobody said: a fifth of the board for floors, edges and holes; slots and inlays by their own rules
// (Look::start). Common practice, no source.
Treatment start_look(Treatment::Kind look, const Treatment& was, const LookStart& about);

// The bit a look of this kind begins with; null where the rack has none, or the look needs none.
const Bit* usual_bit(const Treatment& cut, const Rack& rack);

// An inlay's depth, contact and saw gap for its bit and the art's widest stroke (treatments/inlay/figures.hpp); nothing
// without a V.
void start_inlay(Treatment& cut, const LookStart& about);

// mm; 0 for what is too large to look at in passing.
double widest_stroke_of(const Region& art, const Bit& v);

}  // namespace doyen
