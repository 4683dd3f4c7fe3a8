// A file of the user's that cannot be read is never overwritten: it is put aside under a name of its own.
#pragma once

#include <string>
#include <string_view>

#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace doyen {

bool file_stands(const std::string& path);
// Writes `bytes` at `path`; what stood there is put aside first when it is `damaged`, and put back when writing fails.
// Returns where it lies then; empty when nothing was. Throws Problem{CannotWrite}.
std::string write_putting_aside(const std::string& path, std::string_view bytes, bool damaged);
// Keeps a small file of the user's own: reads `text` as it will be read (`read` throws Problem{BadInput} for what it
// cannot), makes its folder, and puts aside what stands there and cannot be read. Throws as both.
template <typename Read>
void keep_own_file(const std::string& path, const std::string& text, const std::string& what, Read read) {
  (void)read(text, what);
  make_folder(path.substr(0, path.rfind('/')));
  bool damaged = false;
  try {
    if (file_stands(path)) (void)read(read_file(path), path);
  } catch (const Problem&) {
    damaged = true;
  }
  write_putting_aside(path, text, damaged);
}
void remove_file(const std::string& path);  // Throws Problem{CannotWrite}

}  // namespace doyen
