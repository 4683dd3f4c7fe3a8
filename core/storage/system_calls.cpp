#include "storage/system_calls.hpp"

#include <sys/stat.h>
#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <cstdio>
#include <cstdlib>
#include <system_error>

namespace doyen {
namespace {

std::atomic<SystemCalls*>& current() {
  static SystemCalls real;
  static std::atomic<SystemCalls*> calls{&real};
  return calls;
}

}  // namespace

int SystemCalls::mkstemp(char* path) { return ::mkstemp(path); }
char* SystemCalls::mkdtemp(char* path) { return ::mkdtemp(path); }
int SystemCalls::fchmod(int file, mode_t mode) { return ::fchmod(file, mode); }
ssize_t SystemCalls::write(int file, const void* bytes, std::size_t count) { return ::write(file, bytes, count); }
int SystemCalls::fsync(int file) { return ::fsync(file); }
int SystemCalls::close(int file) { return ::close(file); }
int SystemCalls::rename(const std::string& from, const std::string& to) {
  return std::rename(from.c_str(), to.c_str());
}
int SystemCalls::unlink(const std::string& path) { return ::unlink(path.c_str()); }
int SystemCalls::mkdir(const std::string& path) { return ::mkdir(path.c_str(), 0777); }
int SystemCalls::rmdir(const std::string& path) { return ::rmdir(path.c_str()); }

std::string reason() { return std::generic_category().message(errno); }

SystemCalls& SystemCalls::now() { return *current(); }

SystemCalls::Instead::Instead(SystemCalls& calls) : before_(current().exchange(&calls)) {}
SystemCalls::Instead::~Instead() { current() = before_; }

}  // namespace doyen
