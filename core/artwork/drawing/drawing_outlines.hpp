// A drawing's outlines, worked out once for each content, size and turn, wherever it is moved to.
#pragma once

#include "artwork/piece.hpp"

namespace doyen::making {

// What a drawing's wanted parts come to. `scale` is the board's millimetres to one of the page's.
Outlines parts_outlines(const Drawing& drawing, const Transform& place, double scale);

// mm of the page, y down: the box of all its parts, those that are left out included: leaving one out must not move the
// others.
Box drawing_box(const Drawing& drawing);

// From the page to the drawing's own origin, unturned. Throws Problem{BadInput}.
Transform own_place(const Drawing& drawing);

// As it lies when it is turned by `turn` degrees and then moved to `at`, a place on the grid. Throws Problem{BadInput}.
Outlines drawing_outlines(const Drawing& drawing, double turn, Point at);

}  // namespace doyen::making
