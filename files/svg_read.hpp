// SVG in: a thin reader over expat that keeps ids, groups, units, fills and strokes as outlines.
#pragma once

#include <string>
#include <vector>

#include "artwork/piece.hpp"

namespace doyen {

struct SvgDrawing {
  Drawing drawing;                    // mm on the file's page, y down
  std::vector<std::string> left_out;  // what could not be taken, a sentence each
  bool sized = true;                  // false: the file states no real size; 96 units to the inch were assumed
};

// Throws Problem{BadInput} with file and line. Nothing outside the file is ever opened; limits: 64 MB, 300,000
// elements, 200 levels, 20,000 uses.
SvgDrawing read_svg(const std::string& text, const std::string& where);

// Outlines as filled paths in mm on a page of this size, y up turned to y down.
struct NamedRegion {
  std::string id;
  Region region;
};
std::string write_svg(const std::vector<NamedRegion>& regions, double page_width, double page_height, bool y_up);

}  // namespace doyen
