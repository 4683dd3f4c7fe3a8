// Where the tables of facts lie: DOYEN_DATA if set, else share/doyen beside the program's own folder (wherever it was
// installed), else the source tree that the build came from, else the share folder that it was configured for.
#pragma once

#include <string>

#include "storage/atomic_file.hpp"

namespace doyen {

// The full path of a file under data/. Throws Problem{BadInput} when it is in none of the places.
std::string data_file(const std::string& name);

// The full path of a file of the user's own, whether it is there or not: under the XDG data folder.
std::string user_file(const std::string& name);

// A table of facts among them, as its reader takes it: the file's text, and where it stands.
template <typename Read>
auto read_data(const std::string& name, Read read) {
  const std::string path = data_file(name);
  return read(read_file(path), path);
}

}  // namespace doyen
