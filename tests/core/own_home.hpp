// A data folder of the test's own, while it lives.
#pragma once

#include <stdlib.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <optional>
#include <string>

struct OwnHome {
  std::string folder = (std::filesystem::temp_directory_path() / "doyen-home-XXXXXX").string();
  std::optional<std::string> was;
  OwnHome() {
    REQUIRE(mkdtemp(folder.data()) != nullptr);
    if (const char* before = getenv("XDG_DATA_HOME")) was = before;
    setenv("XDG_DATA_HOME", folder.c_str(), 1);
  }
  ~OwnHome() {
    std::error_code error;
    std::filesystem::remove_all(folder, error);
    was ? setenv("XDG_DATA_HOME", was->c_str(), 1) : unsetenv("XDG_DATA_HOME");
  }
  OwnHome(const OwnHome&) = delete;
  OwnHome& operator=(const OwnHome&) = delete;
};
