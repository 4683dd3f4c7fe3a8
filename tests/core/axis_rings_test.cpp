// Rings from the medial axis against Clipper's offsets of the same outlines.
#include "geometry/axis_rings.hpp"

#include <catch2/catch.hpp>
#include <random>

#include "some_shape.hpp"

using namespace doyen;

TEST_CASE("rings out of the axis are those that Clipper offsets") {
  std::mt19937 random(77);
  std::size_t told = 0, asked = 0;
  for (int round = 0; round < 60; ++round) {
    const Region shape = some_shape(random, round);
    for (const Island& island : shape.islands) {
      const MedialAxis axis = medial_axis(island);
      const AxisRings rings(axis);
      for (const double share : {0.03, 0.2, 0.45, 0.7, 0.95}) {
        const double d = share * rings.widest();
        INFO("round " << round << ", " << d << " mm within");
        const auto lines = rings.at(d);
        ++asked;
        if (!lines) continue;
        ++told;
        std::vector<Ring> closed;
        for (const Line2& line : *lines) {
          REQUIRE(line.size() > 2);
          REQUIRE(distance(line.front(), line.back()) < 1e-9);
          Ring ring(line.begin(), line.end() - 1);
          for (Point& p : ring) p = p + axis.origin;
          closed.push_back(std::move(ring));
        }
        const Region ours = clean(closed), theirs = grow(Region{{island}}, -d);
        double edge = 1;
        for (const Ring& ring : closed) edge += ring_length(ring);
        CHECK(area(subtract(ours, theirs)) < 0.003 * edge);
        CHECK(area(subtract(theirs, ours)) < 0.003 * edge);
        // The inside lies to the left: outer rings run counter-clockwise, holes clockwise.
        double turned = 0;
        for (const Ring& ring : closed) turned += signed_area(ring);
        CHECK(turned == Approx(area(ours)).margin(0.01 * edge));
      }
    }
  }
  CHECK(static_cast<double>(told) > 0.97 * static_cast<double>(asked));
}

TEST_CASE("only what lies near is told, and what is told is the same") {
  std::mt19937 random(5);
  const Region shape = some_shape(random, 4);
  const Island& island = shape.islands.front();
  const MedialAxis axis = medial_axis(island);
  const AxisRings all(axis);
  AxisRings some(axis);
  const Box near{6, 16, 12, 24};
  some.keep_near(
      {{near.left - axis.origin.x, near.bottom - axis.origin.y, near.right - axis.origin.x, near.top - axis.origin.y}},
      1);
  const double d = 0.6;
  const auto whole = all.at(d), part = some.at(d);
  REQUIRE(whole);
  REQUIRE(part);
  const auto in_box = [&](const std::vector<Line2>& lines) {
    double mm = 0;
    std::vector<Line2> placed = lines;
    for (Line2& line : placed) {
      for (Point& p : line) p = p + axis.origin;
    }
    for (const Line2& line : clip_lines(placed, region_of(near))) {
      for (std::size_t i = 1; i < line.size(); ++i) mm += distance(line[i - 1], line[i]);
    }
    return mm;
  };
  const auto length_of = [](const std::vector<Line2>& lines) {
    double mm = 0;
    for (const Line2& line : lines) {
      for (std::size_t i = 1; i < line.size(); ++i) mm += distance(line[i - 1], line[i]);
    }
    return mm;
  };
  CHECK(in_box(*whole) > 1);
  CHECK(in_box(*part) == Approx(in_box(*whole)));
  CHECK(length_of(*part) < 0.6 * length_of(*whole));
}
