// How well art suits a bit before any cut is chosen: strokes, gaps, depth, points, the feed they allow.
#pragma once

#include "cancel.hpp"
#include "cutting/groove.hpp"
#include "machine/profile.hpp"
#include "rack/bit.hpp"

namespace doyen {

struct Fitness {
  double thinnest = 0, widest = 0;  // mm, strokes, measured on the medial axis, corners left out
  Point thinnest_at, widest_at;
  double gap = 0;  // mm, the narrowest wood kept between or inside strokes
  Point gap_at;
  double deepest = 0;     // mm, incised with this bit and no floor limit
  bool too_wide = false;  // a stroke is wider than the bit's body takes
  std::size_t points = 0;
  double points_per_cm = 0;
  int parts = 0;                    // connected parts
  int loose_counters = 0;           // insides that would fall out if it were cut right through
  Region lost;                      // what is narrower than the bit's tip (at least a hair) or body
  double unreached = 0;             // mm², its area; narrower than the bit's tip (V) or body (flat)
  double seconds = 0;               // at the machine, grooves only
  double feed = 0, feed_asked = 0;  // mm/min, reached and asked for
  // By how much the art must grow for the bit to reach all of it; 1 when it does already.
  double needed_scale = 1;
};

// `feeds` of all zero leaves time and feed at zero. Throws Problem{BadInput}, Cancelled.
Fitness fitness_of(const Region& region, const Bit& bit, const Feeds& feeds, const MachineProfile& machine,
                   const Cancel& cancel = {});

// Wood narrower than this crumbles between two grooves: 1 mm in hard wood and sheet, 1.5 mm in soft wood
// (common practice, no source).
double least_gap(const std::string& wood_class);

// The narrowest stroke that a bit still makes a line of that can be seen and painted, mm: with a V half a millimetre
// deep and nowhere under 1 mm wide (common practice, no source), with a flat bit its own diameter.
double least_stroke(const Bit& bit);

}  // namespace doyen
