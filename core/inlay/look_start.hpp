// The cut that a piece begins with when somebody has only said how it shall look: the same in the window and on the
// command line. It stands here since an inlay's figures are among it.
#pragma once

#include <functional>

#include "job/job.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

// `was`: how it was cut until now; what that says and the new look understands stays, a bit that the look cannot use
// gives way to the rack's nearest: a V of 60°, a flat bit of 1/4 in (for holes of 1/8 in), the largest keyhole bit.
// Depths that nobody said: a fifth of the board for floors, edges and holes; slots and inlays by their own rules.
// `widest_stroke`: mm, of the art for this V; 0 where it is not known. Common practice, no source.
Treatment start_look(Treatment::Kind look, const Treatment& was, const Job& job, const Rack& rack,
                     const std::function<double(const Bit& v)>& widest_stroke);

// Depth, contact and saw gap of an inlay from its strokes (inlay/figures.hpp); as it was where its bit is no V.
void start_inlay(Treatment& cut, const Job& job, const Rack& rack,
                 const std::function<double(const Bit& v)>& widest_stroke);

// mm; 0 for art of so many points that nobody waits for it.
double widest_stroke_of(const Region& art, const Bit& v);

}  // namespace doyen
