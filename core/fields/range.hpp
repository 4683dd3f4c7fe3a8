// What a number in a job may be. The lists of fields say it once; readers, the window's fields and the page of keys ask
// them.
#pragma once

#include <algorithm>
#include <string>

namespace doyen {

struct Range {
  double least = 0, most = 0;
};

// Of a job's key, such as “pieces[].cut.tabs.length”, in the file's units (lengths in mm). Throws std::logic_error
// where no number is kept by that name.
Range range_of(const std::string& key);

// The same from a least value on, where less than that is kept as “none”.
inline Range from_least(double least, const std::string& key) { return {least, std::max(least, range_of(key).most)}; }

}  // namespace doyen
