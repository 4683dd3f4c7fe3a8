// Where the tables of facts lie: DOYEN_DATA if set, the installed share folder, or the source tree the build came from.
#pragma once

#include <string>

namespace doyen {

// The full path of a file under data/. Throws Problem{BadInput} when it is in none of the places.
std::string data_file(const std::string& name);

}  // namespace doyen
