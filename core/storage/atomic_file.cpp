#include "storage/atomic_file.hpp"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstdint>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <system_error>

#include "problem.hpp"
#include "storage/system_calls.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

class Descriptor {
 public:
  explicit Descriptor(int fd) : fd_(fd) {}
  ~Descriptor() {
    if (fd_ >= 0) (void)SystemCalls::now().close(fd_);
  }
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  [[nodiscard]] int get() const { return fd_; }
  bool close() {
    const int fd = fd_;
    fd_ = -1;
    return SystemCalls::now().close(fd) == 0;
  }

 private:
  int fd_;
};

bool write_all(int fd, std::string_view bytes) {
  while (!bytes.empty()) {
    const ssize_t n = SystemCalls::now().write(fd, bytes.data(), bytes.size());
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return false;
    bytes.remove_prefix(static_cast<std::size_t>(n));
  }
  return true;
}

}  // namespace

void write_file_atomically(const std::string& path, std::string_view bytes) {
  SystemCalls& calls = SystemCalls::now();
  namespace fs = std::filesystem;
  std::error_code error;
  // A link keeps pointing where it points: its target is what is replaced.
  const fs::path real = fs::is_symlink(path, error) ? fs::weakly_canonical(path, error) : fs::path(path);
  struct stat old {};
  const bool stood = ::stat(real.c_str(), &old) == 0;
  if (stood && ::faccessat(AT_FDCWD, real.c_str(), W_OK, AT_EACCESS) != 0)
    throw cannot_write(say("“{0}” may not be changed (it is read-only, or another user's). It is untouched.", path));
  if (stood && !S_ISREG(old.st_mode))
    throw cannot_write(say("“{0}” is not a plain file, so it was not replaced.", path));
  std::string temporary = real.string() + ".part-XXXXXX";
  const auto fail = [&](const std::string& why) {
    (void)calls.unlink(temporary);
    return cannot_write(say("“{0}” could not be written: {1}. What stood there is untouched.", path, why));
  };
  Descriptor file(calls.mkstemp(temporary.data()));
  if (file.get() < 0) throw cannot_write(say("“{0}” could not be written: {1}.", path, reason()));
  const mode_t mask = ::umask(0);
  ::umask(mask);
  (void)calls.fchmod(file.get(), stood ? old.st_mode & 07777 : 0666 & ~mask);
  if (!write_all(file.get(), bytes) || calls.fsync(file.get()) != 0) throw fail(reason());
  if (!file.close()) throw fail(reason());
  if (calls.rename(temporary, real.string()) != 0) throw fail(reason());
  const fs::path folder = real.has_parent_path() ? real.parent_path() : fs::path(".");
  const Descriptor parent(::open(folder.c_str(), O_RDONLY | O_DIRECTORY));
  if (parent.get() >= 0) (void)calls.fsync(parent.get());
}

std::string read_file(const std::string& path, std::size_t most) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error)) throw bad_input(say("“{0}” is a folder; a file was expected.", path));
  if (std::filesystem::exists(path, error) && !std::filesystem::is_regular_file(path, error))
    throw bad_input(say("“{0}” is not a plain file.", path));  // a pipe would be waited for
  std::ifstream in(path, std::ios::binary);
  if (!in) throw bad_input(say("“{0}” cannot be opened: {1}.", path, reason()));
  std::string bytes;
  char buffer[65536];
  while (in.read(buffer, sizeof buffer) || in.gcount() > 0) {
    bytes.append(buffer, static_cast<std::size_t>(in.gcount()));
    if (bytes.size() > most) {
      throw bad_input(say("“{0}” is larger than {1} MB, too large to be read.", path, most >> 20));
    }
  }
  return bytes;
}

std::string mark_of(std::string_view bytes) {
  std::uint64_t h = 0xCBF29CE484222325ULL;
  for (const char c : bytes) {
    h ^= static_cast<unsigned char>(c);
    h *= 0x100000001B3ULL;
  }
  char text[17];
  std::snprintf(text, sizeof text, "%016llx", static_cast<unsigned long long>(h));
  return text;
}

void make_folder(const std::string& path) {
  std::error_code error;
  std::filesystem::create_directories(path, error);
  if (error || !std::filesystem::is_directory(path)) {
    throw cannot_write(say("The folder “{0}” could not be made{1}.", path, (error ? ": " + error.message() : "")));
  }
}

}  // namespace doyen
