// How hard a bit pushes what it cuts, and what a tab stands. Newtons; figures by wood class in data/strength.json,
// common practice.
#pragma once

#include <string>

#include "cutting/tabs.hpp"
#include "measure/length.hpp"
#include "rack/bit.hpp"

namespace doyen {

// A bit in a slit of its own width, one pass deep: the wood's resistance to cutting × depth × width × feed / the edge's
// speed (standard machining handbooks: power is resistance × volume a second), and three times that for a blunt edge, a
// knot, or a part that begins to chatter (common practice, no source). 0 where its feeds are not known.
double bit_pushes(const Bit& bit, const std::string& wood_class);

// One tab until it shears off: its wood, as its ramps leave it, × the wood's strength in shear along the grain.
double tab_stands(const Tabs& tabs, double thickness, const std::string& wood_class);

std::string force_in_words(double newtons, const LengthStyle& style);  // 12.5 N; in inches 2.8 lbf

}  // namespace doyen
