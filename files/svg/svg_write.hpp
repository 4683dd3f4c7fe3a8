// SVG out.
#pragma once

#include <string>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

// Outlines as filled paths in mm on a page of this size, y up turned to y down.
struct NamedRegion {
  std::string id;
  Region region;
};
std::string write_svg(const std::vector<NamedRegion>& regions, double page_width, double page_height, bool y_up);

}  // namespace doyen
