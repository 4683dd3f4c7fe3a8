// Pictures out, as PNG.
#pragma once

#include <string>

#include "relief/picture.hpp"

namespace doyen {

// Atomic. Throws Problem{CannotWrite}.
void write_png(const Picture& picture, const std::string& path);
std::string png_bytes(const Picture& picture);

}  // namespace doyen
