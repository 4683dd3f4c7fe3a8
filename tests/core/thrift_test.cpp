// What saves time at the machine: ways down, merged moves, one look-ahead, no place gone over twice.
#include <catch2/catch.hpp>
#include <random>

#include "cutting/clearing.hpp"
#include "cutting/merge.hpp"
#include "cutting/profile.hpp"
#include "cutting/way_down.hpp"
#include "machine/motion.hpp"
#include "oracle.hpp"
#include "planning/judged.hpp"
#include "relief/carve.hpp"
#include "run/gcode.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

Region field_with_posts(std::mt19937& random, int posts) {
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  Region field = oracle::rectangle(0, 0, 110, 80);
  for (int i = 0; i < posts; ++i)
    field = subtract(field, clean({oracle::random_ring(random, {some(12, 98), some(12, 68)}, 3, some(5, 11), 7)}));
  return field;
}

Operation clearing_by(const Bit& bit, std::vector<Pass> passes) {
  Operation op;
  op.kind = Operation::Kind::Clear;
  op.bit = bit.id;
  op.passes = std::move(passes);
  return op;
}

// How much of the passes' way takes wood, in steps of 0.2 mm; carved into `field` on the way.
double share_that_cuts(HeightField& field, const std::vector<Pass>& passes, const Bit& bit) {
  double all = 0, cuts = 0;
  for (const Pass& pass : passes) {
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      const Point3 &a = pass.points[i - 1], &b = pass.points[i];
      const double len = distance(a, b);
      const int n = std::max(1, static_cast<int>(len / 0.2));
      for (int k = 0; k < n; ++k) {
        const auto at = [&](double t) {
          return Point3{a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t, a.z + (b.z - a.z) * t};
        };
        const Point3 from = at(static_cast<double>(k) / n), to = at((k + 1.0) / n);
        const auto columns = field.columns_in(to.x - bit.diameter, to.x + bit.diameter);
        const auto rows = field.rows_in(to.y - bit.diameter, to.y + bit.diameter);
        const auto wood = [&] {
          double sum = 0;
          for (std::size_t r = rows.begin; r < rows.end; ++r) {
            for (std::size_t c = columns.begin; c < columns.end; ++c) sum += field.at(c, r);
          }
          return sum;
        };
        const double before = wood();
        carve(field, {Pass{{from, to}}}, bit);
        all += len / n;
        if (wood() < before - 1e-3) cuts += len / n;
      }
    }
  }
  return cuts / all;
}

}  // namespace

TEST_CASE("where a bit comes down fast nothing stands in its way, on random fields with two bits") {  // carved to see
  std::mt19937 random(91);
  int known = 0;
  for (int round = 0; round < 6; ++round) {
    const Region field = field_with_posts(random, 6);
    Bit large = oracle::flat_bit(6), small = oracle::flat_bit(2);
    large.id = "large";
    small.id = "small";
    ClearingShape shape;
    shape.floor = -4;
    shape.depth_per_pass = 1.5;
    shape.diameter = 6;
    Region reached;
    std::vector<Operation> operations;
    operations.push_back(clearing_by(large, clear_floor(field, {}, shape, {}, &reached)));
    shape.diameter = 2;
    operations.push_back(clearing_by(small, clear_floor(field, reached, shape)));
    const Rack rack{{large, small}};
    const AskedRack asked(rack);
    note_ways_down(operations, asked);
    HeightField wood(bounds(field).grown(1), 0.1);
    wood.clear();
    for (const Operation& op : operations) {
      const Bit& bit = op.bit == "large" ? large : small;
      for (const Pass& pass : op.passes) {
        const Point at = pass.points.front().flat();
        if (pass.gone_above < 0) {
          ++known;
          int standing = 0;
          const double r = bit.diameter / 2 - 0.02;
          const auto columns = wood.columns_in(at.x - r, at.x + r);
          const auto rows = wood.rows_in(at.y - r, at.y + r);
          for (std::size_t y = rows.begin; y < rows.end; ++y) {
            for (std::size_t x = columns.begin; x < columns.end; ++x)
              standing += distance({wood.x_of(x), wood.y_of(y)}, at) < r && wood.at(x, y) > pass.gone_above + 1e-4;
          }
          INFO("round " << round << ", " << op.bit << " at " << at.x << " " << at.y);
          CHECK(standing == 0);
        }
        carve(wood, {pass}, bit);
      }
    }
  }
  CHECK(known > 100);
}

TEST_CASE("merged moves stay as near to the way as promised, keep its ends, and are fewer") {
  std::mt19937 random(17);
  std::normal_distribution<double> tremble(0, 0.0015);
  for (int round = 0; round < 20; ++round) {
    Pass pass;
    for (int i = 0; i <= 600; ++i) {
      const double a = i * 0.02;
      pass.points.push_back(
          {20 * std::cos(a) + tremble(random), 12 * std::sin(1.3 * a) + tremble(random), -1 + 0.4 * std::sin(2 * a)});
    }
    const Pass few = merged(pass);
    CHECK(few.points.front() == pass.points.front());
    CHECK(few.points.back() == pass.points.back());
    CHECK(few.points.size() < pass.points.size() / 2);
    for (const Point3& p : pass.points) {
      double away = 1e300;
      for (std::size_t i = 1; i < few.points.size(); ++i) {
        const Point3 &a = few.points[i - 1], &b = few.points[i];
        const double x = b.x - a.x, y = b.y - a.y, z = b.z - a.z;
        const double t =
            std::clamp(((p.x - a.x) * x + (p.y - a.y) * y + (p.z - a.z) * z) / (x * x + y * y + z * z), 0.0, 1.0);
        away = std::min(away, distance(p, {a.x + x * t, a.y + y * t, a.z + z * t}));
      }
      REQUIRE(away <= 2 * kMerged);
    }
  }
  CHECK(merged({{{0, 0, 0}, {1, 0, 0}, {2, 0, -1}}}).points.size() == 3);  // a corner stays
}

TEST_CASE("what a larger bit left is cleared by a way that cuts nearly all along") {
  std::mt19937 random(23);
  for (int round = 0; round < 4; ++round) {
    const Region field = field_with_posts(random, 7);
    ClearingShape shape;
    shape.floor = -1;
    shape.depth_per_pass = 2;
    shape.diameter = 6;
    Region reached;
    const std::vector<Pass> first = clear_floor(field, {}, shape, {}, &reached);
    shape.diameter = 1.5;
    const std::vector<Pass> rest = clear_floor(field, reached, shape);
    HeightField wood(bounds(field).grown(1), 0.1);
    wood.clear();
    carve(wood, first, oracle::flat_bit(6));
    INFO("round " << round);
    CHECK(share_that_cuts(wood, rest, oracle::flat_bit(1.5)) > 0.6);
  }
}

TEST_CASE("a floor full of letters is left for another place only as often as it has middles") {
  std::mt19937 random(29);
  const Region field = field_with_posts(random, 12);
  ClearingShape shape;
  shape.floor = -1;
  const std::vector<Pass> passes = clear_floor(field, {}, shape);
  double air = 0;
  for (std::size_t i = 1; i < passes.size(); ++i)
    air += distance(passes[i - 1].points.back().flat(), passes[i].points.front().flat());
  CHECK(passes.size() <= 30);
  // Place after place, not ring by ring all over the board: no more than from post to post and back.
  CHECK(air < 30 * 25);
}

TEST_CASE("a cut-out takes its levels and what the last ramp left, no more") {
  // Four levels round a rectangle, the rounded corners of the bit's way, and on to the end of the last ramp's slope.
  CutOutShape shape;
  shape.diameter = 6;
  shape.thickness = 18;
  shape.over_cut = 0;
  shape.depth_per_pass = 4.5;
  shape.tabs.wanted = false;
  const CutOut cut = plan_cut_out(oracle::rectangle(0, 0, 100, 60), shape);
  REQUIRE(cut.passes.size() == 1);
  const double round = 2 * (100 + 60) + 6 * M_PI, ramp = 4.5 / shape.ramp_slope;
  double flat = 0;
  const std::vector<Point3>& p = cut.passes[0].points;
  for (std::size_t i = 1; i < p.size(); ++i) flat += distance(p[i - 1].flat(), p[i].flat());
  const double leaves = 12;  // along its slit and upwards: twice the bit's width
  CHECK(flat == Approx(4 * round + ramp + leaves).margin(0.1));
  // The ramps are as steep as was asked, wherever the outline's corners are.
  for (std::size_t i = 1; i < p.size(); ++i) {
    if (p[i].z < p[i - 1].z - 1e-9)
      CHECK(p[i - 1].z - p[i].z == Approx(distance(p[i - 1].flat(), p[i].flat()) * shape.ramp_slope).margin(1e-6));
  }
}

TEST_CASE("over a floor of the back, or a ground that is said and not there, no bit is let down fast into wood") {
  // A floor near the left edge of the back, a line in its middle; from the front it lies near the right edge.
  Job job = workbench::board(240, 120, 18);
  Treatment recess = workbench::cut(Treatment::Kind::Recess, 4),
            line = workbench::cut(Treatment::Kind::Line, 1, {}, "v60");
  recess.back = line.back = true;
  workbench::add(job, "floor", {workbench::kBox, 60, 60}, {180, 60}, recess);
  workbench::add(job, "line", {workbench::kBox, 20, 20}, {180, 60}, line);
  // And one where it would lie if the board were not turned over: on the bare back.
  workbench::add(job, "bare", {workbench::kBox, 20, 20}, {60, 60}, line);
  const Plan p = workbench::planned(job);
  int over = 0;
  for (const Operation& op : p.piece("line")->cuts.operations) {
    for (const Pass& pass : op.passes) over += pass.gone_above == Approx(-4);
  }
  CHECK(over > 0);
  CHECK_FALSE(judge_files(p, gcode_files(p), 0.2).has(Fault::Kind::Plunge));
  // The ground is said to lie deeper than it does.
  Job said = workbench::board(240, 120, 18);
  workbench::add(said, "floor", {workbench::kBox, 60, 60}, {180, 60}, workbench::cut(Treatment::Kind::Recess, 2));
  Treatment deep = workbench::cut(Treatment::Kind::Line, 1, {}, "v60");
  deep.ground = 6;
  workbench::add(said, "line", {workbench::kBox, 20, 20}, {180, 60}, deep);
  const Plan other = workbench::planned(said);
  CHECK_FALSE(judge_files(other, gcode_files(other), 0.2).has(Fault::Kind::Plunge));
}

TEST_CASE("a bit that comes down through what is gone comes down fast, and only so far") {
  Pass pass{{{10, 10, -6}, {20, 10, -6}}};
  CHECK(fast_down_to(pass, 0.5) == 0.5);  // nothing is known
  pass.gone_above = -4;
  CHECK(fast_down_to(pass, 0.5) == Approx(-3.5));
  pass.gone_above = -9;
  CHECK(fast_down_to(pass, 0.5) == -6);
  pass.gone_above = 0;
  CHECK(fast_down_to(pass, 0.5) == 0.5);
}

TEST_CASE("a hole little wider than the bit is gone down as a screw's thread, its way never turned back") {
  std::mt19937 random(12);
  for (int round = 0; round < 8; ++round) {
    Job job = board(120, 80, 12 + static_cast<double>(random() % 14));
    const double wide = 6.35 + 1.2 + static_cast<double>(random() % 30) / 10;
    Treatment hole = cut(round % 2 == 0 ? Kind::Pierce : Kind::Recess, 8, {"flat-1/4in"}, "flat-1/4in");
    hole.pierce.slug = false;
    add(job, "hole", {PlainShape::Kind::Ellipse, wide, wide}, {60, 40}, hole);
    const Plan p = planned(job);
    for (const OutputFile& file : gcode_files(p)) {
      INFO(wide << " mm: " << file.name);
      for (const GcodeSection& section : read_gcode(file.text, file.name).sections) {
        for (const Pass& pass : section.passes) {
          // Which way it turns about the hole's middle, at every step in the wood.
          int left = 0, right = 0;
          for (std::size_t i = 1; i < pass.points.size(); ++i) {
            const Point a = pass.points[i - 1].flat() - Point{60, 40}, b = pass.points[i].flat() - Point{60, 40};
            const double turned = a.x * b.y - a.y * b.x;
            if (length(a) > 0.3 && length(b) > 0.3 && std::abs(turned) > 1e-6) ++(turned > 0 ? left : right);
          }
          CHECK(std::min(left, right) == 0);
        }
      }
    }
    const Judgement judgement = judge_files(p, gcode_files(p), 0.1);
    CHECK_FALSE(judgement.has(Fault::Kind::Gouge));
    CHECK_FALSE(judgement.has(Fault::Kind::Missed));
    CHECK_FALSE(judgement.has(Fault::Kind::Bite));
  }
}
