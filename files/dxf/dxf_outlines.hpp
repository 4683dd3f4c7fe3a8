// From a DXF file's lines and arcs, each for itself, to outlines and lines of a drawing.
#pragma once

#include <string>
#include <vector>

#include "files/dxf/dxf_read.hpp"
#include "geometry/path.hpp"

namespace doyen::dxf {

// One line or curve chain of an entity, in drawing units, y up.
struct Chain {
  std::string layer;
  Path path;  // one subpath
  bool closed = false;
};

// Ends that meet are joined into longer chains until none do; what comes back to its start is closed.
std::vector<Chain> joined(std::vector<Chain> chains, Reading& reading);

// From drawing units, y up, onto a page of its own in mm, y down, as everything that is imported. Throws
// Problem{BadInput} when it is more than 100 m wide.
void place_on_page(std::vector<Chain>& chains, double mm, const std::string& where, Imported& out, Reading& reading);

// Closed chains become outlines, layer by layer, every second one inwards a hole; open ones lines.
void add_parts(const std::vector<Chain>& chains, std::vector<Drawing::Part>& parts, Reading& reading);

}  // namespace doyen::dxf
