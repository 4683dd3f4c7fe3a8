// Specks, holes and what was settled by hand, against OpenCV's own count of connected parts.
#include "artwork/drawing/ink.hpp"

#include <catch2/catch.hpp>
#include <opencv2/imgproc.hpp>
#include <random>

using namespace doyen;

namespace {

Ink noise(int w, int h, double share, unsigned seed) {
  std::mt19937 random(seed);
  std::bernoulli_distribution dark(share);
  Ink ink{w, h, {}};
  for (int i = 0; i < w * h; ++i) ink.pixels.push_back(dark(random) ? 1 : 0);
  return ink;
}

cv::Mat as_mat(const Ink& ink, bool of_ink) {
  cv::Mat mat(ink.height, ink.width, CV_8U);
  for (int y = 0; y < ink.height; ++y) {
    for (int x = 0; x < ink.width; ++x)
      mat.at<std::uint8_t>(y, x) = (ink.pixels[ink.at(x, y)] != 0) == of_ink ? 255 : 0;
  }
  return mat;
}

struct Parts {
  cv::Mat labels, stats, middles;
  int count = 0;
  Parts(const Ink& ink, bool of_ink) {
    count = cv::connectedComponentsWithStats(as_mat(ink, of_ink), labels, stats, middles, of_ink ? 8 : 4);
  }
  [[nodiscard]] int area(int part) const { return stats.at<int>(part, cv::CC_STAT_AREA); }
  [[nodiscard]] bool at_edge(int part, const Ink& ink) const {
    const int x = stats.at<int>(part, cv::CC_STAT_LEFT), y = stats.at<int>(part, cv::CC_STAT_TOP);
    return x == 0 || y == 0 || x + stats.at<int>(part, cv::CC_STAT_WIDTH) == ink.width ||
           y + stats.at<int>(part, cv::CC_STAT_HEIGHT) == ink.height;
  }
};

}  // namespace

TEST_CASE("specks and holes go by their true areas, as another library counts them") {
  for (unsigned seed = 1; seed <= 30; ++seed) {
    const Ink before = noise(90 + static_cast<int>(seed), 70, 0.2 + 0.02 * seed, seed);
    INFO("seed " << seed);
    // Holes alone.
    Ink filled = before;
    const double holes = 2 + seed % 9;
    const std::vector<Cleaned> became = clean_ink(filled, 0, holes, {});
    const Parts paper(before, false);
    for (int y = 0; y < before.height; ++y) {
      for (int x = 0; x < before.width; ++x) {
        const int part = paper.labels.at<int>(y, x);
        const bool hole = part > 0 && !paper.at_edge(part, before) && paper.area(part) < holes;
        REQUIRE((filled.pixels[filled.at(x, y)] != 0) == (hole || before.pixels[before.at(x, y)] != 0));
        REQUIRE((became[before.at(x, y)] == Cleaned::Filled) == hole);
      }
    }
    // Then specks, of what the filling left.
    Ink both = before;
    const double specks = 3 + seed % 12;
    clean_ink(both, specks, holes, {});
    const Parts ink(filled, true);
    for (int y = 0; y < before.height; ++y) {
      for (int x = 0; x < before.width; ++x) {
        const int part = ink.labels.at<int>(y, x);
        REQUIRE((both.pixels[both.at(x, y)] != 0) == (part > 0 && ink.area(part) >= specks));
      }
    }
  }
}

TEST_CASE("what was settled by hand holds whatever its size; the ground round everything is never filled") {
  // A frame of ink with a hole of 4 px², a speck of one beside it.
  Ink ink{12, 8, std::vector<std::uint8_t>(96, 0)};
  for (int y = 1; y < 7; ++y) {
    for (int x = 1; x < 7; ++x) ink.pixels[ink.at(x, y)] = 1;
  }
  for (const auto& [x, y] : {std::pair{3, 3}, {4, 3}, {3, 4}, {4, 4}}) ink.pixels[ink.at(x, y)] = 0;
  ink.pixels[ink.at(9, 4)] = 1;
  const auto after = [&](double specks, double holes, const std::vector<SettledPixel>& settled) {
    Ink now = ink;
    clean_ink(now, specks, holes, settled);
    return std::pair{now.pixels[now.at(3, 3)] != 0, now.pixels[now.at(9, 4)] != 0};
  };
  CHECK(after(5, 5, {}) == std::pair{true, false});                               // filled, dropped
  CHECK(after(5, 5, {{4, 4, false}, {9, 4, true}}) == std::pair{false, true});    // both kept
  CHECK(after(0, 0, {}) == std::pair{false, true});                               // nothing asked
  CHECK(after(0, 0, {{4, 4, true}, {9, 4, false}}) == std::pair{true, false});    // filled and dropped by hand
  CHECK(after(0, 0, {{-3, 2, true}, {400, 2, true}}) == std::pair{false, true});  // outside: about nothing
  Ink ground = ink;
  clean_ink(ground, 0, 1e6, {{0, 0, true}});
  CHECK(ground.pixels[0] == 0);
}
