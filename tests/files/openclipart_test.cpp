// Drawings of Debian's openclipart-svg against librsvg's coverage: overlap of areas at least 0.98, or a listed reason.
#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>

#include "coverage.hpp"
#include "problem.hpp"

using namespace doyen;
namespace fs = std::filesystem;

TEST_CASE("imported drawings cover what librsvg paints, on a hundred of openclipart-svg") {
  std::vector<std::string> all;
  for (const auto& entry : fs::recursive_directory_iterator("/usr/share/openclipart")) {
    if (entry.path().extension() == ".svg" && fs::file_size(entry.path()) < 400'000)
      all.push_back(entry.path().string());
  }
  std::sort(all.begin(), all.end());
  REQUIRE(all.size() > 1000);
  int judged = 0, good = 0, explained = 0;
  for (std::size_t i = 5; i < all.size() && judged < 100; i += all.size() / 104) {
    Imported read;
    double overlap = -1;
    std::string refused;
    try {
      overlap = coverage::overlap_with_librsvg(all[i], &read);
    } catch (const Problem& problem) {
      refused = problem.what();
    }
    if (overlap < 0 && refused.empty()) continue;  // librsvg itself paints nothing
    ++judged;
    if (overlap >= 0.98) {
      ++good;
      continue;
    }
    std::string why = refused;
    for (const std::string& s : read.left_out) why += " " + s;
    if (!why.empty()) ++explained;
    INFO(all[i] << " overlaps " << overlap << ":" << why);
    CHECK_FALSE(why.empty());
  }
  CHECK(judged >= 60);
  CHECK(good + explained == judged);
  CHECK(good >= judged * 9 / 10);
  WARN(good << " of " << judged << " drawings at 0.98 or better, " << explained << " with a listed reason");
}
