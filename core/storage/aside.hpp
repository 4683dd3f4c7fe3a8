// A file of the user's that cannot be read is never overwritten: it is put aside under a name of its own.
#pragma once

#include <string>
#include <string_view>

namespace doyen {

bool file_stands(const std::string& path);
// Writes `bytes` at `path`; what stood there is put aside first when it is `damaged`, and put back when writing fails.
// Returns where it lies then; empty when nothing was. Throws Problem{CannotWrite}.
std::string write_putting_aside(const std::string& path, std::string_view bytes, bool damaged);
void remove_file(const std::string& path);  // Throws Problem{CannotWrite}

}  // namespace doyen
