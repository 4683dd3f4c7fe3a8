// Numbers that are counted up from plate to plate: a list of its own, or a further column of one.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"

namespace doyen {

// “1-40”, “A01-A24”, “MPG-007-120”: what stands before the figures stays, and they are as many as they were written
// with. With `rows` also “A01” alone, counted on for so many. Throws Problem{BadInput} for what is none, or another
// number of them.
std::vector<std::string> serial_numbers(const std::string& words, std::size_t rows = 0);

// Where there is a list, a further column of it, its heading another than those that are there; else a list of nothing
// but them.
PlateList with_numbers(const PlateList& list, const std::string& words, const std::string& heading);

}  // namespace doyen
