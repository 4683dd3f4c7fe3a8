// Floors drawn in out of a groove's axes against Clipper's offsets of the same outlines.
#include "cutting/drawn_in.hpp"

#include <catch2/catch.hpp>
#include <random>

#include "cutting/clearing.hpp"
#include "some_shape.hpp"

using namespace doyen;

namespace {

// One beside another.
Region two_shapes(std::mt19937& random, int kind) {
  return unite(some_shape(random, kind), transformed(some_shape(random, kind + 1), Transform::move(45, 0)));
}
double apart(const Region& a, const Region& b) { return area(subtract(a, b)) + area(subtract(b, a)); }
double edge_of(const Region& region) {
  double edge = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) edge += ring_length(ring);
  }
  return edge;
}

}  // namespace

TEST_CASE("a groove's floor drawn in out of its axes is what Clipper offsets, part by part") {
  std::mt19937 random(41);
  std::uniform_real_distribution<double> share(0, 1);
  for (int round = 0; round < 60; ++round) {
    INFO("round " << round);
    const Region parts = two_shapes(random, round);
    const GrooveShape shape{0.3 + share(random), round % 3 == 0 ? 0.4 : 0, 0.3 + 2 * share(random)};
    const Groove groove = plan_groove(parts, shape);
    const DrawnIn out_of_axes(parts, groove);
    CHECK(out_of_axes.at_once());
    for (const double mm : {0.0, 0.4, 1.3, 3.2}) {
      const Region ours = out_of_axes.by(mm), theirs = grow(parts, -shape.limit_radius() - mm);
      CHECK(apart(ours, theirs) <= 0.006 * edge_of(theirs) + 1e-3);  // chords of arcs, and the grid
      for (const double reach : {0.4 * mm, mm}) {
        const Region swept = out_of_axes.swept(ours, mm, reach, 0.002), grown = grow(theirs, reach);
        INFO(mm << " mm within, a disc of " << reach << " mm");
        CHECK(apart(swept, grown) <= 0.006 * edge_of(grown) + 1e-3);
      }
      for (const Island& island : ours.islands) {
        CHECK(signed_area(island.rings.front()) > 0);
        for (std::size_t i = 1; i < island.rings.size(); ++i) CHECK(signed_area(island.rings[i]) < 0);
      }
    }
    double whole = 0;
    for (std::size_t i = 0; i < groove.places.size(); ++i) whole += area(out_of_axes.of_part(i));
    CHECK(whole == Approx(area(out_of_axes.floor())));
  }
}

TEST_CASE("a floor is cleared the same out of axes as by offsetting, bit after bit") {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> share(0, 1);
  for (int round = 0; round < 24; ++round) {
    INFO("round " << round);
    const Region parts = two_shapes(random, round);
    const Groove groove = plan_groove(parts, {0.5, 0, 1});
    std::vector<ClearingShape> bits(2);
    bits[0].diameter = 3 + 2 * share(random);
    bits[1].diameter = 0.8 + share(random);
    const DrawnIn out_of_axes(parts, groove), by_offsets(grow(parts, -0.5));
    Region ours, theirs;
    const double beyond = round % 2 == 0 ? 0 : 0.02;
    const auto take = [&](Region& into) { return WithCleared{beyond, [&into](Region r) { into = std::move(r); }}; };
    const auto passes = clear_in_turn(out_of_axes, bits, {}, take(ours)),
               others = clear_in_turn(by_offsets, bits, {}, take(theirs));
    CHECK(apart(ours, theirs) <= 0.02 * edge_of(theirs) + 1e-3);
    for (std::size_t i = 0; i < bits.size(); ++i) {
      const double radius = bits[i].diameter / 2;
      const auto swept = [&](const std::vector<Pass>& of) {
        std::vector<Line2> lines;
        for (const Pass& pass : of) {
          Line2& line = lines.emplace_back();
          for (const Point3& p : pass.points) line.push_back(p.flat());
        }
        return sweep(lines, radius);
      };
      const Region gone = swept(passes[i]);
      CHECK(area(subtract(gone, grow(by_offsets.floor(), 0.006))) < 0.01);  // nothing of the walls
      if (i == 0) CHECK(area(subtract(opening(grow(by_offsets.floor(), -0.01), radius), gone)) < 0.05);
      CHECK(passes[i].empty() == others[i].empty());
    }
  }
}
