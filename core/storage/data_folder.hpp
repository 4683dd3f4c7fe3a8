// Where the tables of facts lie: DOYEN_DATA if set, else share/doyen beside the program's own folder (wherever it was
// installed), else the source tree that the build came from, else the share folder that it was configured for.
#pragma once

#include <string>

namespace doyen {

// The full path of a file under data/. Throws Problem{BadInput} when it is in none of the places.
std::string data_file(const std::string& name);

}  // namespace doyen
