// DXF in, through dxflib behind a scan of our own: lines, arcs, circles, ellipses, polylines with bulge, splines,
// blocks.
#pragma once

#include <string>

#include "files/imported.hpp"
#include "files/reading.hpp"

namespace doyen {

// Group codes, bulge = tan(included angle / 4) and $INSUNITS as in the published DXF reference. Ends that meet within
// 0.01 mm are joined; closed outlines of one layer nest by the even-odd rule, open ones stay stroke lines. Layers
// become groups. Nothing outside the file is opened; limits: 256 MB, a million entities, blocks 16 deep, and what
// `reading` allows. Throws Problem{BadInput} with the file and what was expected, and Cancelled.
Imported read_dxf(const std::string& text, const std::string& where, Reading reading = Reading());

}  // namespace doyen
