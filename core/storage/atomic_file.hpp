// Files are written whole or not at all: into a temporary neighbour, flushed to the disk, then renamed over the target.
#pragma once

#include <string>
#include <string_view>

namespace doyen {

// Throws Problem{CannotWrite} naming the path and the system's reason; whatever stood there before is untouched.
void write_file_atomically(const std::string& path, std::string_view bytes);

// Throws Problem{BadInput} when the file cannot be read or is larger than `most` bytes.
std::string read_file(const std::string& path, std::size_t most = 256u << 20);

// Tells one content from another, such as whether a file is still as it was written (FNV-1a, 64 bits, as 16 digits); no
// protection against malice.
std::string mark_of(std::string_view bytes);

// Makes the folder with its parents. Throws Problem{CannotWrite}.
void make_folder(const std::string& path);

}  // namespace doyen
