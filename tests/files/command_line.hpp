// doyen-cli as a shell runs it: what it says, how it ends, and a folder of the test's own for what it writes.
#pragma once

#include <sys/wait.h>
#include <unistd.h>

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <string>

namespace command_line {

namespace fs = std::filesystem;

struct Ended {
  int code = -1;
  std::string said;
};

inline Ended run(const std::string& command) {
  Ended ended;
  FILE* pipe = popen((command + " 2>&1").c_str(), "r");
  char buffer[4096];
  while (const std::size_t n = std::fread(buffer, 1, sizeof buffer, pipe)) ended.said.append(buffer, n);
  const int status = pclose(pipe);
  ended.code = WIFEXITED(status) ? WEXITSTATUS(status) : 128 + WTERMSIG(status);
  return ended;
}

// The program that is tested; ctest says which.
inline std::string cli() {
  const char* path = std::getenv("DOYEN_CLI");
  return path != nullptr ? path : "build/cli/doyen-cli";
}

inline Ended doyen_cli(const std::string& words) { return run(cli() + " " + words); }

// A folder of the test's own, gone afterwards.
struct Folder {
  fs::path path = fs::temp_directory_path() / ("doyen-cli-" + std::to_string(getpid()));
  Folder() {
    fs::remove_all(path);
    fs::create_directories(path);
  }
  ~Folder() { fs::remove_all(path); }
  Folder(const Folder&) = delete;
  Folder& operator=(const Folder&) = delete;
  std::string operator/(const std::string& name) const { return (path / name).string(); }
};

}  // namespace command_line
