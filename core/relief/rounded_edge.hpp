// The front edge of a board as a router or a plane rounds it over by hand.
#pragma once

#include "relief/height_field.hpp"

namespace doyen {

// Inside the sign's outer outlines, nearer to them than `radius` (mm), the wood is taken down to a quarter of a circle
// that touches face and edge; what lies deeper stays as it is. Openings keep their edges.
void round_edge(HeightField& field, const Region& sign, double radius);

}  // namespace doyen
