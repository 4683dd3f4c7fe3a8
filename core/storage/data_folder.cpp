#include "storage/data_folder.hpp"

#include <cstdlib>
#include <filesystem>

#include "problem.hpp"

namespace doyen {

std::string data_file(const std::string& name) {
  namespace fs = std::filesystem;
  const char* own = std::getenv("DOYEN_DATA");
  std::error_code error;
  for (const char* folder : {own, DOYEN_DATA_INSTALL, DOYEN_DATA_SOURCE}) {
    if (folder == nullptr) continue;
    fs::path path = fs::path(folder) / name;
    if (fs::exists(path, error)) return path.string();
  }
  throw bad_input("Doyen's own file “" + name +
                  "” is missing; install Doyen again or set DOYEN_DATA to its data folder.");
}

}  // namespace doyen
