// Every piece's outlines for others to work from.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// As SVG, in mm; only these pieces, or all.
std::string outlines_as_svg(const Job& job, const std::vector<std::string>& only = {});

// As DXF or SVG by the file's ending, in mm on the board. Pieces that cannot be set are left out.
// Throws Problem{BadInput} for another ending, {CannotWrite}.
void save_outlines_of(const Job& job, const std::string& path);

}  // namespace doyen
