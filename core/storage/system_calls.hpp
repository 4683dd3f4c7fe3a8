// Every system call by which Doyen changes what is on a disk, in one place: tests let each of them fail in turn.
#pragma once

#include <sys/types.h>

#include <cstddef>
#include <string>

namespace doyen {

// Each returns and sets errno as the call of its name does (POSIX.1-2017).
class SystemCalls {
 public:
  SystemCalls() = default;
  virtual ~SystemCalls() = default;
  SystemCalls(const SystemCalls&) = delete;
  SystemCalls& operator=(const SystemCalls&) = delete;

  virtual int mkstemp(char* path);
  virtual char* mkdtemp(char* path);
  virtual int fchmod(int file, mode_t mode);
  virtual ssize_t write(int file, const void* bytes, std::size_t count);
  virtual int fsync(int file);
  virtual int close(int file);
  virtual int rename(const std::string& from, const std::string& to);
  virtual int unlink(const std::string& path);
  virtual int mkdir(const std::string& path);
  virtual int rmdir(const std::string& path);

  static SystemCalls& now();

  // Puts other calls in the place of the system's until it goes.
  class Instead {
   public:
    explicit Instead(SystemCalls& calls);
    ~Instead();
    Instead(const Instead&) = delete;
    Instead& operator=(const Instead&) = delete;

   private:
    SystemCalls* before_;
  };
};

std::string reason();  // why the last call failed, in words (errno)

}  // namespace doyen
