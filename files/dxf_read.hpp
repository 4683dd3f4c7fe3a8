// DXF in, through dxflib behind a scan of our own: lines, arcs, circles, ellipses, polylines with bulge, splines,
// blocks.
#pragma once

#include <string>

#include "files/imported.hpp"

namespace doyen {

// Group codes, bulge = tan(included angle / 4) and $INSUNITS as in the published DXF reference. Ends that meet within
// 0.01 mm are joined; closed outlines of one layer nest by the even-odd rule, open ones stay stroke lines. Layers
// become groups. Nothing outside the file is opened; limits: 256 MB, 2 million entities, blocks 16 deep. Throws
// Problem{BadInput} with the file and what was expected.
Imported read_dxf(const std::string& text, const std::string& where);

}  // namespace doyen
