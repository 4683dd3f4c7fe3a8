// How a camera held a picture.
#pragma once

#include <string>

namespace doyen {

// The orientation that a JPEG's EXIF states, 1 to 8 (JEITA CP-3451, tag 274; TIFF 6.0); 1, upright, where it states
// none or where anything about it is unsound.
int exif_orientation(const std::string& bytes);

}  // namespace doyen
