// Faces drawn in single lines, for engraving: the public stroke fonts of A. V. Hershey (libhersheyfont).
#pragma once

#include <string>
#include <vector>

#include "artwork/lettering/faces.hpp"

namespace doyen {

// Families begin with "Single line"; they have one style.
bool is_single_line(const FaceName& face);
std::vector<FaceName> single_line_faces();

// Open paths, capitals 1 high. ASCII only; everything else is missing. Throws Problem{BadInput} when the fonts'
// package is not installed.
ShapedLine shape_single_line(const FaceName& face, const std::string& words);

}  // namespace doyen
