// The outline that a recess really gets: its insert's clearance, room for a bevel, for square corners and for a finger.
#pragma once

#include "geometry/region.hpp"
#include "treatments/recess/insert.hpp"

namespace doyen {

// `grown`: mm that a bevel on the same outline lets it draw in (negative) or out; `corner_radius`: mm, of the bit that
// makes the corners, for an insert with square ones; 0 leaves corners as they are.
Region recess_shape(const Region& outline, const Insert& insert, double grown, double corner_radius);

// Whether that asks for the radius of the bit that makes the corners.
inline bool relieves_corners(const Insert& insert) {
  return insert.thickness > 0 && insert.corners != Insert::Corners::Plain;
}

}  // namespace doyen
