#include "storage/aside.hpp"

#include <filesystem>

#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/system_calls.hpp"
#include "wording/say.hpp"

namespace doyen {

bool file_stands(const std::string& path) {
  std::error_code error;
  return std::filesystem::exists(path, error);
}

std::string write_putting_aside(const std::string& path, std::string_view bytes, bool damaged) {
  std::string aside;
  if (damaged) {
    int n = 1;
    do aside = path + ".damaged-" + std::to_string(n++);
    while (file_stands(aside));
    if (SystemCalls::now().rename(path, aside) != 0)
      throw cannot_write(say("The damaged file “{0}” could not be put aside.", path));
  }
  try {
    write_file_atomically(path, bytes);
  } catch (const Problem&) {
    if (damaged) (void)SystemCalls::now().rename(aside, path);
    throw;
  }
  return aside;
}

void remove_file(const std::string& path) {
  std::error_code error;
  std::filesystem::remove(path, error);
  if (error) throw cannot_write(say("“{0}” could not be taken away: {1}.", path, error.message()));
}

}  // namespace doyen
