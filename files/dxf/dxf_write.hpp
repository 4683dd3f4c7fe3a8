// Outlines as DXF for a draughtsman: closed polylines in millimetres, a layer for each piece.
#pragma once

#include <string>
#include <vector>

#include "artwork/piece.hpp"

namespace doyen {

struct NamedOutlines {
  std::string name;  // becomes the layer
  Outlines outlines;
};

// Writes the file at once or not at all. Throws Problem{CannotWrite}.
void write_dxf(const std::vector<NamedOutlines>& pieces, const std::string& path);

}  // namespace doyen
