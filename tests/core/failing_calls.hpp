// A disk that fails at a moment of the test's choosing.
#pragma once

#include <cerrno>

#include "storage/system_calls.hpp"

namespace workbench {

using doyen::SystemCalls;

// Lets the n-th call fail with a full disk; `for_good`: everything after it, too, as if the power had gone.
class Failing : public SystemCalls {
 public:
  Failing(int nth, bool for_good) : nth_(nth), for_good_(for_good) {}
  int seen = 0;

  int mkstemp(char* path) override { return fails() ? -1 : SystemCalls::mkstemp(path); }
  char* mkdtemp(char* path) override { return fails() ? nullptr : SystemCalls::mkdtemp(path); }
  int fchmod(int file, mode_t mode) override { return fails() ? -1 : SystemCalls::fchmod(file, mode); }
  ssize_t write(int file, const void* bytes, std::size_t count) override {
    if (!fails()) return SystemCalls::write(file, bytes, count);
    (void)SystemCalls::write(file, bytes, count / 2);  // half of it is there already
    errno = ENOSPC;
    return -1;
  }
  int fsync(int file) override { return fails() ? -1 : SystemCalls::fsync(file); }
  int close(int file) override {
    const bool bad = fails();
    const int result = SystemCalls::close(file);  // the descriptor goes in any case
    if (!bad) return result;
    errno = EIO;
    return -1;
  }
  int rename(const std::string& from, const std::string& to) override {
    return fails() ? -1 : SystemCalls::rename(from, to);
  }
  int unlink(const std::string& path) override { return fails() ? -1 : SystemCalls::unlink(path); }
  int mkdir(const std::string& path) override { return fails() ? -1 : SystemCalls::mkdir(path); }
  int rmdir(const std::string& path) override { return fails() ? -1 : SystemCalls::rmdir(path); }

 private:
  bool fails() {
    ++seen;
    if (seen != nth_ && !(for_good_ && seen > nth_)) return false;
    errno = ENOSPC;
    return true;
  }
  int nth_;
  bool for_good_;
};

}  // namespace workbench
