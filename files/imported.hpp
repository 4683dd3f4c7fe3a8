// What comes out of a file that a customer mailed: a drawing, what was left out of it, and whether its size is known.
#pragma once

#include <string>
#include <vector>

#include "artwork/piece.hpp"
#include "files/reading.hpp"

namespace doyen {

struct Imported {
  Drawing drawing;                    // mm on the file's page, y down
  std::vector<std::string> left_out;  // what could not be taken, a sentence each
  bool sized = true;                  // false: the file states no real size; one was assumed
  std::string assumed;                // when not sized: what was assumed, as a sentence
};

// SVG, DXF, or a picture (PNG, JPEG, BMP, WebP, traced with the settings' defaults), told apart by what is inside.
// Throws Problem{BadInput} with the file and what was expected.
// Stopped: Cancelled.
Imported read_artwork(const std::string& path, Reading reading = Reading());
bool is_picture(const std::string& path);  // by its first bytes; what cannot be read is none

// The picture traced into a drawing that keeps the picture and the settings. The drawing's page is the picture at its
// own resolution, or 96 dots to the inch where the file states none.
Imported traced_drawing(const TracePicture& picture, const TraceSettings& settings, const std::string& name,
                        const Cancel& cancel = {});

}  // namespace doyen
