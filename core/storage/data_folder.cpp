#include "storage/data_folder.hpp"

#include <cstdlib>
#include <filesystem>
#include <vector>

#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

namespace fs = std::filesystem;

// Of a program that was installed anywhere: PREFIX/bin/program finds PREFIX/share/doyen.
fs::path beside_program() {
  std::error_code error;
  const fs::path program = fs::read_symlink("/proc/self/exe", error);
  return error ? fs::path() : program.parent_path().parent_path() / "share" / "doyen";
}

}  // namespace

std::string data_file(const std::string& name) {
  const char* own = std::getenv("DOYEN_DATA");
  std::error_code error;
  for (const fs::path& folder : {fs::path(own == nullptr ? "" : own), beside_program(), fs::path(DOYEN_DATA_SOURCE),
                                 fs::path(DOYEN_DATA_INSTALL)}) {
    if (!folder.empty() && fs::exists(folder / name, error)) return (folder / name).string();
  }
  throw bad_input(
      say("Doyen's own file “{0}” is missing; install Doyen again or set DOYEN_DATA to its data folder.", name));
}

std::string user_file(const std::string& name) {
  const char* data = std::getenv("XDG_DATA_HOME");
  const char* home = std::getenv("HOME");
  const std::string base =
      data != nullptr && *data != 0 ? data : std::string(home == nullptr ? "." : home) + "/.local/share";
  return base + "/doyen/" + name;
}

}  // namespace doyen
