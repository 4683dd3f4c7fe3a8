// Incise: depths of geometry.md's table, and the carved surface against exact distances.
#include "cutting/groove.hpp"

#include <catch2/catch.hpp>
#include <numbers>

#include "machine/profile.hpp"
#include "oracle.hpp"
#include "relief/carve.hpp"
#include "relief/groove_field.hpp"
#include "run/gcode.hpp"

using namespace doyen;

namespace {

GrooveShape shape_of(double angle, double tip = 0, double limit = std::numeric_limits<double>::infinity()) {
  return {std::tan(angle / 2 * std::numbers::pi / 180), tip, limit};
}

struct Judged {
  double share_within_10_microns = 0, over_cut = 0, worst = 0;
  std::size_t cells = 0;
};

// The relief against depth(p) = min(L, d(p)/tan(α/2)) with d by brute force.
Judged judge(const HeightField& field, const Region& region, const GrooveShape& shape) {
  const oracle::Distance distance_of(region);
  Judged out;
  std::size_t within = 0;
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c) {
      const Point p{field.x_of(c), field.y_of(r)};
      const bool inside = contains(region, p);
      const double ideal = inside ? -shape.depth_at(distance_of.at(p.x, p.y)) : 0;
      const double off = field.at(c, r) - ideal;
      out.over_cut = std::max(out.over_cut, -off);
      if (!inside) continue;
      ++out.cells;
      out.worst = std::max(out.worst, std::abs(off));
      within += std::abs(off) <= 0.01;
    }
  }
  out.share_within_10_microns = static_cast<double>(within) / static_cast<double>(out.cells);
  return out;
}

HeightField carved_from_gcode(const std::vector<Pass>& passes, const Bit& bit, const Box& area, double cell) {
  MachineProfile machine;
  machine.travel = {2000, 2000, 200};
  const Feeds feeds{2000, 500, 16000, 0};
  const std::string text = write_gcode({"test", "face", {}, {{&bit, feeds, 1, {&passes}, false}}}, machine);
  HeightField field(area, cell);
  field.clear();
  for (const GcodeSection& section : read_gcode(text, "test.nc").sections) carve(field, section.passes, bit);
  return field;
}

}  // namespace

TEST_CASE("a stroke 10 mm wide goes as deep as the table says") {  // published: geometry.md's table is (w/2)/tan(α/2),
                                                                   // any handbook
  const struct { double angle, depth; } table[] = {{30, 18.660}, {60, 8.660}, {90, 5.000}, {120, 2.887}};
  const Region bar = oracle::rectangle(10, 10, 80, 10);
  for (const auto& row : table) {
    const Groove groove = plan_groove(bar, shape_of(row.angle));
    CHECK(groove.widest_stroke() == Approx(10).margin(1e-6));
    CHECK(groove.deepest() == Approx(row.depth).margin(0.0006));
    CHECK(-deepest(groove.passes(0)) == Approx(row.depth).margin(0.0006));
  }
}

TEST_CASE("a stroke of 0.200 in: 0.1732 in deep at 60 degrees, 0.1000 in at 90") {  // common practice: 60° gains depth
                                                                                    // on narrow letters
  const Region bar = oracle::rectangle(0, 0, 60, 0.2 * kMmPerInch);
  CHECK(plan_groove(bar, shape_of(60)).deepest() / kMmPerInch == Approx(0.1732).margin(0.0001));
  CHECK(plan_groove(bar, shape_of(90)).deepest() / kMmPerInch == Approx(0.1000).margin(0.0001));
  CHECK(plan_groove(bar, shape_of(60)).deepest() / plan_groove(bar, shape_of(90)).deepest() ==
        Approx(std::sqrt(3)).margin(1e-3));
}

TEST_CASE("raising a limit above the depth at which the stroke closes changes nothing") {  // common practice, no source
  const Region bar = oracle::rectangle(0, 0, 60, 0.2 * kMmPerInch);                        // closes at 0.1732 in
  const auto at = [&](double inch) { return plan_groove(bar, shape_of(60, 0, inch * kMmPerInch)).passes(0); };
  const auto low = at(0.2), high = at(0.5);
  REQUIRE(low.size() == high.size());
  for (std::size_t i = 0; i < low.size(); ++i) CHECK(low[i].points == high[i].points);
}

TEST_CASE("the pass rises to the face in sharp corners and leaves reflex corners alone") {
  const Region ell = clean({{{0, 0}, {40, 0}, {40, 8}, {8, 8}, {8, 40}, {0, 40}}});
  const auto passes = plan_groove(ell, shape_of(60)).passes(0);
  REQUIRE(passes.size() == 1);
  const auto reached = [&](Point p) {
    double best = 1e300;
    for (const Point3& q : passes[0].points) {
      if (std::abs(q.z) < 1e-6) best = std::min(best, distance(q.flat(), p));
    }
    return best;
  };
  for (const Point corner : {Point{0, 0}, Point{40, 0}, Point{40, 8}, Point{8, 40}, Point{0, 40}})
    CHECK(reached(corner) < 1e-6);
  CHECK(reached({8, 8}) > 3);
}

TEST_CASE("whole words carved from the written G-code agree with exact distances in three faces", "[heavy]") {
  const std::string faces[][2] = {{"EB Garamond", "Bold"}, {"League Spartan", "Bold"}, {"Lobster Two", "Regular"}};
  for (const auto& face : faces) {
    const Region region = outlines_of(oracle::lettering("Sage & Rue", face[0], face[1], 22)).region;
    for (const double angle : {30.0, 60.0, 90.0}) {
      INFO(face[0] << " at " << angle << " degrees");
      const Bit bit = oracle::v_bit(angle);
      const GrooveShape shape = shape_of(angle);
      const auto passes = plan_groove(region, shape).passes(0);
      const Judged j = judge(carved_from_gcode(passes, bit, bounds(region).grown(1), 0.11), region, shape);
      CHECK(j.cells > 20'000);
      CHECK(j.share_within_10_microns >= 0.999);
      CHECK(j.worst <= 0.02);
      CHECK(j.over_cut <= 0.005);
    }
  }
}

TEST_CASE("painted facets are the exact groove surface") {
  const Region region = outlines_of(oracle::lettering("Thyme", "Vollkorn", "Bold", 30)).region;
  for (const double limit : {3.0, 1e9}) {
    const GrooveShape shape = shape_of(60, 0, limit);
    HeightField field(bounds(region).grown(1), 0.13);
    paint_groove(field, plan_groove(region, shape));
    const Judged j = judge(field, region, shape);
    CHECK(j.share_within_10_microns >= 0.9999);
    CHECK(j.over_cut <= 0.005);
  }
}

TEST_CASE("repeated letters are worked out once and cut alike") {
  const Outlines outlines = outlines_of(oracle::lettering("oooo", "Cabin", "Bold", 20));
  const Groove groove = plan_groove(outlines.region, shape_of(60));
  REQUIRE(groove.places.size() == 4);
  for (const auto& place : groove.places) CHECK(place.island == groove.places[0].island);
  CHECK(groove.passes(0).size() == 4);
}

TEST_CASE("one thread and all threads give the same passes") {
  const Region region = outlines_of(oracle::lettering("Marrowby", "EB Garamond", "Bold", 25)).region;
  const auto one = plan_groove(region, shape_of(60), Threads::One).passes(0);
  const auto all = plan_groove(region, shape_of(60), Threads::All).passes(0);
  REQUIRE(one.size() == all.size());
  for (std::size_t i = 0; i < one.size(); ++i) CHECK(one[i].points == all[i].points);
}

TEST_CASE("few lifts: the strokes of a letter hang together") {
  const Region region = outlines_of(oracle::lettering("Physic Garden of Marrowby", "EB Garamond", "Bold", 25)).region;
  const Groove groove = plan_groove(region, shape_of(60));
  std::size_t passes = 0;
  double cut = 0, retraced = 0;
  for (const auto& place : groove.places) {
    passes += place.island->passes.size();
    cut += place.island->cut_length;
    retraced += place.island->retraced_length;
  }
  CHECK(passes == groove.places.size());  // one lift an island: an i has its dot
  CHECK(retraced / cut < 0.45);
}

TEST_CASE("a tip flat leaves what is narrower than itself") {
  const Region wedge = clean({{{0, 0}, {40, -2}, {40, 2}}});
  const auto passes = plan_groove(wedge, shape_of(60, 1.0)).passes(0);
  for (const Pass& pass : passes) {
    for (const Point3& p : pass.points) CHECK(oracle::Distance(wedge).at(p.x, p.y) >= 0.5 - 1e-3);
  }
  CHECK(plan_groove(oracle::rectangle(0, 0, 30, 0.9), shape_of(60, 1.0)).passes(0).empty());
  CHECK_FALSE(plan_groove(oracle::rectangle(0, 0, 30, 1.1), shape_of(60, 1.0)).passes(0).empty());
}

TEST_CASE("levels never go deeper than a step at a time and end in the same groove") {
  const Region region = outlines_of(oracle::lettering("Rue", "EB Garamond", "Bold", 40)).region;
  const auto whole = plan_groove(region, shape_of(60)).passes(0);
  const double step = 2;
  const auto levels = in_levels(whole, 0, step);
  CHECK(levels.size() > whole.size());
  const Box area = bounds(region).grown(1);
  HeightField once(area, 0.2), stepped(area, 0.2);
  once.clear();
  stepped.clear();
  const Bit bit = oracle::v_bit(60);
  carve(once, whole, bit);
  double so_far = 0;
  for (const Pass& pass : levels) {
    for (const Point3& p : pass.points) CHECK(p.z >= so_far - step - 1e-6);
    so_far = std::min(so_far, deepest({pass}));
    carve(stepped, {pass}, bit);
  }
  for (std::size_t r = 0; r < once.rows(); ++r) {
    for (std::size_t c = 0; c < once.columns(); ++c) REQUIRE(std::abs(once.at(c, r) - stepped.at(c, r)) < 1e-4);
  }
}

TEST_CASE("hostile outlines are planned without crash, hang or gouge") {
  std::mt19937 random(23);
  std::uniform_real_distribution<double> any(0, 30);
  for (int round = 0; round < 40; ++round) {
    std::vector<Ring> rings;
    for (int k = 0; k < 3; ++k) {
      Ring ring;
      for (int i = 0; i < 12; ++i) ring.push_back({any(random), any(random)});  // crossing itself many times
      ring.push_back(ring.back());                                              // a doubled point
      rings.push_back(std::move(ring));
    }
    const Region region = clean(rings, round % 2 == 0 ? Fill::NonZero : Fill::EvenOdd);
    const GrooveShape shape = shape_of(60, round % 3 == 0 ? 0.2 : 0, round % 4 == 0 ? 2.0 : 1e9);
    const Groove groove = plan_groove(region, shape);
    const oracle::Distance distance_of(region);
    for (const Pass& pass : groove.passes(0)) {
      for (const Point3& p : pass.points) {
        REQUIRE(std::isfinite(p.x + p.y + p.z));
        CHECK(-p.z <= shape.depth_at(distance_of.at(p.x, p.y)) + 0.005);
      }
    }
  }
  CHECK(plan_groove({}, shape_of(60)).passes(0).empty());
}

TEST_CASE("work stops when it is cancelled") {
  Cancel cancel;
  cancel.request();
  CHECK_THROWS_AS(plan_groove(oracle::rectangle(0, 0, 10, 10), shape_of(60), Threads::All, cancel), Cancelled);
}
