// What a number in a job may be: the lists of fields that read and write the file say it, and the window's fields ask.
#pragma once

#include <algorithm>
#include <string>

#include "fields/range.hpp"

namespace doyen {

// Of a job's key, such as “pieces[].cut.tabs.length”, in the file's units (lengths in mm). Throws std::logic_error
// where no number is kept by that name.
Range range_of(const std::string& key);

// The same from a least value on, where less than that is kept as “none”.
inline Range from_least(double least, const std::string& key) { return {least, std::max(least, range_of(key).most)}; }

}  // namespace doyen
