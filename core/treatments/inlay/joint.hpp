// The shapes that both halves of an inlay are cut to.
#pragma once

#include "geometry/region.hpp"
#include "treatments/inlay/inlay.hpp"

namespace doyen {

// An inlay's art, rounded so that a tip flat, or a flat bit of this radius, reaches both halves alike: no inside corner
// of the art or of what surrounds it is sharper. Strokes and gaps narrower than twice the radius go.
Region eased(const Region& art, double radius);

// What is taken away round the plug, `margin` mm wide: all that surrounds the art, smaller by the allowance where the
// flanks are upright. Empty when nothing stays of the art.
Region plug_background(const Region& art, const Inlay& inlay, double margin);

}  // namespace doyen
