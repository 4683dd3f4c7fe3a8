// What machines really took: kept, asked, and never lost to a broken file.
#include <stdlib.h>

#include <catch2/catch.hpp>
#include <filesystem>

#include "machine/timings.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

using namespace doyen;

TEST_CASE("a machine that was timed is told by what it took over what was told; one that was not by a range") {
  std::string folder = (std::filesystem::temp_directory_path() / "doyen-timings-XXXXXX").string();
  REQUIRE(mkdtemp(folder.data()) != nullptr);
  const char* before = getenv("XDG_DATA_HOME");
  const std::string was = before == nullptr ? "" : before;
  setenv("XDG_DATA_HOME", folder.c_str(), 1);
  CHECK(load_timings().of.empty());
  CHECK_FALSE(load_timings().factor("a"));
  CHECK(likely_seconds(100, {}).from == Approx(95));
  CHECK(likely_seconds(100, {}).to == Approx(130));
  keep_timing("a", {600, 690});
  keep_timing("a", {1200, 1290});
  keep_timing("b", {100, 80});
  // By hand: (690 + 1290) / (600 + 1200) = 1.1.
  CHECK(*load_timings().factor("a") == Approx(1.1));
  CHECK(*load_timings().factor("b") == Approx(0.8));
  CHECK(likely_seconds(100, load_timings().factor("a")).to == Approx(110));
  forget_last_timing("a");
  CHECK(*load_timings().factor("a") == Approx(1.15));
  forget_last_timing("a");
  CHECK_FALSE(load_timings().factor("a"));
  forget_last_timing("a");
  for (int i = 0; i < 30; ++i) keep_timing("a", {100, 100.0 + i});
  CHECK(load_timings().of.at("a").size() == 20);
  CHECK(load_timings().of.at("a").front().took == 110);
  // A file that nobody can read is said, and stays as it is.
  for (const char* broken :
       {"{", "{}", R"({"format":"doyen-timings/1","machines":[{"id":"a","runs":[{"told":0,"took":1}]}]})",
        R"({"format":"doyen-timings/1","machines":[{"id":"a","runs":[{"told":1}]}]})"}) {
    write_file_atomically(timings_path(), broken);
    CHECK_THROWS_AS(load_timings(), Problem);
    CHECK_THROWS_AS(keep_timing("a", {1, 1}), Problem);
    CHECK(read_file(timings_path()) == broken);
  }
  CHECK(unlikely({1000, 25}));  // typed in another unit
  CHECK_FALSE(unlikely({1000, 1500}));
  std::filesystem::remove_all(folder);
  was.empty() ? unsetenv("XDG_DATA_HOME") : setenv("XDG_DATA_HOME", was.c_str(), 1);
}
