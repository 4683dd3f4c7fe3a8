// SVG in: a thin reader over expat that keeps ids, groups, units, fills as outlines and strokes as lines with a width.
// Clipping paths are cut, text becomes outlines where its face is installed.
#pragma once

#include <string>
#include <vector>

#include "files/imported.hpp"
#include "files/reading.hpp"

namespace doyen {

// Throws Problem{BadInput} with file and line. Nothing outside the file is ever opened; limits: 64 MB, 300,000
// elements, 200 levels, 20,000 uses, 200,000 outlines, and what `reading` allows. Throws Cancelled, too.
Imported read_svg(const std::string& text, const std::string& where, Reading reading = Reading());

}  // namespace doyen
