// Every piece's outlines for others to work from.
#pragma once

#include <string>

#include "job/job.hpp"

namespace doyen {

// As DXF or SVG by the file's ending, in mm on the board. Pieces that cannot be set are left out.
// Throws Problem{BadInput} for another ending, {CannotWrite}.
void save_outlines_of(const Job& job, const std::string& path);

}  // namespace doyen
