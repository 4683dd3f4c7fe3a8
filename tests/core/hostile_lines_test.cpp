// Lines with points that are no numbers, or farther than anything: found by the fuzz targets.
#include <catch2/catch.hpp>
#include <limits>

#include "geometry/path.hpp"
#include "geometry/polyline.hpp"
#include "problem.hpp"

using namespace doyen;

TEST_CASE("points that are no numbers neither hang nor reach the clipper") {
  constexpr double kNone = std::numeric_limits<double>::quiet_NaN(), kFar = 1e300;
  for (const double bad : {kNone, -kNone, std::numeric_limits<double>::infinity(), kFar, -kFar, 1e6}) {
    for (std::size_t at = 0; at < 6; ++at) {
      Line2 line{{0, 0}, {10, 1}, {20, 0}, {20, 15}, {5, 20}, {1, 9}};
      line[at].y = bad;
      CHECK(thinned(line, 0.01).size() <= line.size() + 1);
      CHECK_THROWS_AS(stroked({line}, 2, StrokeEnd::Flat, StrokeJoint::Round), Problem);
      CHECK_THROWS_AS(clean({line}), Problem);
    }
  }
  CHECK_THROWS_AS(stroked({{{0, 0}, {10, 0}}}, kFar, StrokeEnd::Flat, StrokeJoint::Round), Problem);
}

TEST_CASE("a tangle of a stroke, and outlines that lie on each other thousands of times, take no hours") {
  Line2 tangle;
  std::uint32_t seed = 1;
  const auto next = [&] {
    seed = seed * 1664525U + 1013904223U;
    return static_cast<double>(seed >> 8) / 167772.16;
  };
  for (int i = 0; i < 20'000; ++i) {
    const double x = next(), y = next();
    tangle.push_back({x, y});
  }
  CHECK_THROWS_AS(stroked({tangle}, 30, StrokeEnd::Flat, StrokeJoint::Round), Problem);
  const std::vector<Ring> same(20'000, Ring{{0, 0}, {50, 0}, {50, 50}, {0, 50}});
  CHECK(area(clean(same)) == Approx(2500));
  CHECK(clean(same, Fill::EvenOdd).empty());  // an even number of times
}
