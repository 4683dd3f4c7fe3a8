// Pieces that are turned, or moved about on a ground, are not worked out again, and the wood is what it would be if
// they were.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "planning/plan.hpp"
#include "some_shape.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

// A star, a wave or a box with round holes, as a drawing.
Drawing blob(std::mt19937& random) {
  return frozen({some_shape(random, static_cast<int>(random() % 60)), {}, {}, {}, {}, {}}, "blob");
}

// Every treatment whose pieces are cut alike however they are turned, by one or several bits.
std::vector<Treatment> all_that_turn() {
  std::vector<Treatment> all;
  all.push_back(cut(Kind::Incise, 0));
  all.push_back(cut(Kind::Incise, 0, {}, "v90"));
  all.push_back(cut(Kind::Incise, 0, {"flat-1/8in"}));
  all.back().incise.floor_limit = 2;
  all.push_back(cut(Kind::Incise, 0));
  all.back().incise.floor_limit = 3;
  all.push_back(cut(Kind::Recess, 4, {"flat-1/4in", "flat-1/8in"}));
  all.push_back(cut(Kind::Inlay, 3));
  all.back().inlay.contact = 2;
  all.push_back(cut(Kind::Line, 0.5));
  all.push_back(cut(Kind::Bevel, 3));
  all.push_back(cut(Kind::Pierce, 0));
  all.back().pierce.slug = false;
  all.back().bit = "flat-1/8in";
  return all;
}

// The share of cells that lie lower or higher by more than 0.06 mm than any cell beside them of the other board: walls
// between two cells may fall into the one or the other.
double share_apart(const HeightField& one, const HeightField& other) {
  std::size_t apart = 0, cut = 0;
  for (std::size_t r = 1; r + 1 < one.rows(); ++r) {
    for (std::size_t c = 1; c + 1 < one.columns(); ++c) {
      const float z = one.at(c, r);
      cut += z < -0.01F;
      float low = 0, high = -1000;
      for (std::size_t i = r - 1; i <= r + 1; ++i) {
        for (std::size_t k = c - 1; k <= c + 1; ++k) {
          low = std::min(low, other.at(k, i));
          high = std::max(high, other.at(k, i));
        }
      }
      apart += z < low - 0.06F || z > high + 0.06F;
    }
  }
  REQUIRE(cut > 1000);
  return static_cast<double>(apart) / static_cast<double>(cut);
}

}  // namespace

TEST_CASE("a turned piece takes the wood that its own outlines take, worked out where they lie") {
  std::mt19937 random(11);
  const std::vector<Treatment> all = all_that_turn();
  for (std::size_t i = 0; i < all.size(); ++i) {
    const double degrees = std::uniform_real_distribution<double>(-180, 180)(random);
    Job turned = board(160, 160, 18);
    turned.items.push_back({{"a", "a", blob(random), {80, 80}, degrees}, all[i]});
    // The same outlines, as a drawing that was never turned.
    Job drawn = turned;
    const Outlines lies = turned.outlines(turned.items[0]);
    drawn.items[0].piece = {"a", "a", frozen(lies, "a"), bounds(lies).centre(), 0};
    REQUIRE(bounds(drawn.outlines(drawn.items[0])).left == Approx(bounds(lies).left).margin(2e-4));
    const Plan one = planned(turned), other = planned(drawn);
    INFO("treatment " << i << ", turned by " << degrees);
    REQUIRE_FALSE(one.runs.empty());
    CHECK(share_apart(carved(one, 0.2), carved(other, 0.2)) < 0.002);
    CHECK(one.pieces[0]->cuts.deepest == Approx(other.pieces[0]->cuts.deepest).margin(0.01));
    CHECK(one.pieces[0]->cuts.unreached.area ==
          Approx(other.pieces[0]->cuts.unreached.area).epsilon(0.01).margin(0.05));
    CHECK(area(one.pieces[0]->cuts.floor) == Approx(area(other.pieces[0]->cuts.floor)).epsilon(0.001).margin(0.1));
    CHECK(one.verdicts.size() == other.verdicts.size());
  }
}

TEST_CASE("a piece that is turned or moved is not worked out again") {
  std::mt19937 random(12);
  const Rack rack = load_rack();
  for (const Treatment& t : all_that_turn()) {
    Job job = board(160, 160, 18);
    job.items.push_back({{"a", "a", blob(random), {80, 80}, 0}, t});
    PlanCache cache;
    const Plan first = plan(job, rack, machine_for(job), &cache);
    const std::size_t begun = cache.given();
    for (const double degrees : {30.0, 90.0, -123.4}) {
      job.items[0].piece.turn = degrees;
      job.items[0].piece.at = {80 + degrees / 20, 78};
      const std::size_t before = cache.given();
      const Plan now = plan(job, rack, machine_for(job), &cache);
      CHECK(cache.given() - before == 2);  // its outlines, and its way put where they lie
      const auto &was = first.pieces[0]->cuts.operations, &is = now.pieces[0]->cuts.operations;
      REQUIRE(is.size() == was.size());
      const double a = degrees * M_PI / 180;
      double off = 0;
      for (std::size_t o = 0; o < is.size(); ++o) {
        REQUIRE(is[o].passes.size() == was[o].passes.size());
        for (std::size_t p = 0; p < is[o].passes.size(); ++p) {
          const Pass &to = is[o].passes[p], &from = was[o].passes[p];
          REQUIRE(to.points.size() == from.points.size());
          CHECK(to.gone_above == from.gone_above);
          for (std::size_t k = 0; k < to.points.size(); ++k) {
            const double x = from.points[k].x - 80, y = from.points[k].y - 80;
            const Point there{80 + degrees / 20 + x * std::cos(a) - y * std::sin(a),
                              78 + x * std::sin(a) + y * std::cos(a)};
            off = std::max({off, distance(there, to.points[k].flat()), std::abs(to.points[k].z - from.points[k].z)});
          }
        }
      }
      CHECK(off < 1.5e-4);
    }
    CHECK(begun == 3);
  }
}

TEST_CASE("a piece moved about on a sunk ground is not worked out again, and comes down as fast as there is room for") {
  std::mt19937 random(13);
  const Rack rack = load_rack();
  Job job = board(240, 160, 18);
  add(job, "ground", {.kind = kBox, .width = 200, .height = 130}, {120, 80}, cut(Kind::Recess, 5, {"flat-1/4in"}));
  job.items.push_back({{"a", "a", blob(random), {100, 80}, 20}, cut(Kind::Incise, 0)});
  PlanCache cache;
  plan(job, rack, machine_for(job), &cache);
  for (const Point at : {Point{110, 75}, Point{140, 82}, Point{170, 80}}) {
    job.items[1].piece.at = at;
    job.items[1].piece.turn += 15;
    const std::size_t before = cache.given();
    const Plan warm = plan(job, rack, machine_for(job), &cache), cold = plan(job, rack, machine_for(job));
    CHECK(cache.given() - before == 2);
    REQUIRE(warm.pieces[1]->around.ground.below == Approx(5));
    const Operation &one = warm.pieces[1]->cuts.operations.front(), &other = cold.pieces[1]->cuts.operations.front();
    REQUIRE(one.passes.size() == other.passes.size());
    for (std::size_t i = 0; i < one.passes.size(); ++i) {
      CHECK(one.passes[i].points == other.passes[i].points);
      CHECK(one.passes[i].gone_above == other.passes[i].gone_above);
      CHECK(one.passes[i].gone_above <= -5);  // the floor lies that low, and its walls are far off
    }
  }
  // Beside a wall the whole face may stand in the way.
  job.items[1].piece.what = PlainShape{.kind = kBox, .width = 3, .height = 60};
  job.items[1].piece.turn = 0;
  job.items[1].piece.at = {22, 80};
  const Plan beside = plan(job, rack, machine_for(job), &cache);
  REQUIRE(beside.pieces[1]->around.ground.below == Approx(5));
  CHECK(beside.pieces[1]->cuts.operations.front().passes.front().gone_above > -5);
}

TEST_CASE("what hangs on up and down, on the grain or on another piece is worked out where it lies") {
  const Rack rack = load_rack();
  std::vector<Treatment> all;
  all.push_back(cut(Kind::Recess, 4, {"flat-1/4in"}));
  all.back().moves.way = Moves::Way::AlongGrain;
  all.push_back(cut(Kind::Line, 0.5));
  all.back().line.hatch = 3;
  all.push_back(cut(Kind::Recess, 4, {"flat-1/4in"}));
  all.back().insert.thickness = 3;
  all.back().insert.notch = 12;
  for (const Treatment& t : all) {
    Job job = board(160, 160, 18);
    add(job, "a", {.kind = kBox, .width = 80, .height = 30}, {80, 80}, t);
    PlanCache cache;
    plan(job, rack, machine_for(job), &cache);
    const std::size_t before = cache.given();
    job.items[0].piece.turn = 90;
    plan(job, rack, machine_for(job), &cache);
    CHECK(cache.given() - before == 3);
  }
  // Rows along the grain stay along it.
  Job job = board(160, 160, 18);
  job.blank.grain = Grain::AlongWidth;
  add(job, "a", {.kind = kBox, .width = 80, .height = 30}, {80, 80}, all[0]);
  job.items[0].piece.turn = 90;
  const Plan p = plan(job, rack, machine_for(job));
  double along = 0, across = 0;
  for (const Pass& pass : p.pieces[0]->cuts.operations.front().passes) {
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      along += std::abs(pass.points[i].x - pass.points[i - 1].x);
      across += std::abs(pass.points[i].y - pass.points[i - 1].y);
    }
  }
  CHECK(along > 2 * across);
}
