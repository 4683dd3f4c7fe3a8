// What stays must hold: necks against figures that are known by construction, and verdicts whose remedies mend.
#include <catch2/catch.hpp>
#include <random>

#include "geometry/necks.hpp"
#include "planning/judged.hpp"
#include "planning/plan.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "stock/strength.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

Region rectangle(double left, double bottom, double right, double top) {
  return {{Island{{Ring{{left, bottom}, {right, bottom}, {right, top}, {left, top}}}}}};
}

Region turned(Region region, double by) {
  for (Island& island : region.islands) {
    for (Ring& ring : island.rings) {
      for (Point& p : ring) p = {p.x * std::cos(by) - p.y * std::sin(by), p.x * std::sin(by) + p.y * std::cos(by)};
    }
  }
  return region;
}

std::vector<Verdict> necks_in(const Job& job) {
  std::vector<Verdict> found;
  for (Verdict& v : plan(job, load_rack(), machine_for(job)).verdicts) {
    if (v.code == "thin-neck") found.push_back(std::move(v));
  }
  return found;
}

}  // namespace

TEST_CASE("two blocks tied by a bar: the neck is as wide as the bar, lies on it, and runs along it, however turned") {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> wide(2, 11), turn(0, 6.28);
  for (int i = 0; i < 40; ++i) {
    const double bar = wide(random), by = turn(random);
    INFO("bar " << bar << ", turned by " << by);
    const Region dumbbell = turned(
        unite(unite(rectangle(0, 0, 40, 40), rectangle(60, 0, 100, 40)), rectangle(30, 20 - bar / 2, 70, 20 + bar / 2)),
        by);
    const std::vector<Neck> necks = necks_of(dumbbell, 12);
    REQUIRE(necks.size() == 1);
    CHECK(necks[0].width == Approx(bar).margin(0.1));
    const Point middle{50 * std::cos(by) - 20 * std::sin(by), 50 * std::sin(by) + 20 * std::cos(by)};
    CHECK(distance(necks[0].at, middle) < 3);
    CHECK(std::abs(necks[0].along.x * std::cos(by) + necks[0].along.y * std::sin(by)) > 0.98);
    CHECK(necks_of(dumbbell, bar - 0.2).empty());
  }
}

TEST_CASE(
    "the narrow side of a frame is a neck though the frame stays one piece; corners, points and whole boards are "
    "none") {
  Region frame = subtract(rectangle(0, 0, 200, 120), rectangle(25, 25, 194, 95));
  const std::vector<Neck> necks = necks_of(frame, 12);
  REQUIRE(necks.size() == 1);
  CHECK(necks[0].width == Approx(6).margin(0.1));
  CHECK(necks[0].at.x == Approx(197).margin(3.5));
  CHECK(std::abs(necks[0].along.y) > 0.98);
  CHECK(necks_of(rectangle(0, 0, 200, 120), 30).empty());
  // A star's points are narrow, and tie nothing.
  Ring star;
  for (int i = 0; i < 10; ++i) {
    const double r = i % 2 == 0 ? 80 : 40, a = i * 0.628318;
    star.push_back({r * std::cos(a), r * std::sin(a)});
  }
  CHECK(necks_of({{Island{{star}}}}, 12).empty());
  // As wide as its distance from the edge: a round opening near it.
  Ring round;
  for (int i = 0; i < 400; ++i)
    round.push_back({100 + 30 * std::cos(i * 0.0157079), 60 - 25 + 30 * std::sin(i * 0.0157079)});
  const std::vector<Neck> by_edge = necks_of(subtract(rectangle(0, 0, 200, 120), {{Island{{round}}}}), 12);
  REQUIRE(by_edge.size() == 1);
  CHECK(by_edge[0].width == Approx(5).margin(0.15));
}

TEST_CASE("what tape is too small to hold is told, less under bits that press, and each remedy mends it") {
  // 25 cm² under a bit that lifts the chips, 8 cm² under others (data/strength.json, common practice).
  const auto taped = [](double side, const char* bit) {
    Job job = board(200, 160, 12);
    Item part{{"part", "Part", PlainShape{PlainShape::Kind::Rectangle, side, side}, {100, 80}, 0}, {}};
    part.cut.kind = Treatment::Kind::CutOut;
    part.cut.bit = bit;
    part.cut.through.tabs.wanted = false;
    part.cut.through.taped = true;
    job.items = {part};
    return job;
  };
  const auto told = [](const Job& job) { return find(planned(job), "tape-holds-little") != nullptr; };
  CHECK(told(taped(40, "flat-1/4in")));  // 16 cm²
  CHECK_FALSE(told(taped(40, "flat-1/4in-down")));
  CHECK(told(taped(25, "flat-1/4in-down")));  // 6 cm²
  CHECK_FALSE(told(taped(60, "flat-1/4in")));
  Job untaped = taped(40, "flat-1/4in");
  untaped.items[0].cut.through.taped = false;
  CHECK_FALSE(told(untaped));  // it comes free: another verdict's
  const Job job = taped(40, "flat-1/4in");
  Plan p = planned(job);
  p.verdicts = with_tried_remedies(p, load_rack());
  const Verdict* v = find(p, "tape-holds-little");
  REQUIRE(v != nullptr);
  CHECK(v->remedies.size() >= 3);  // a bit that presses, tabs, a skin
  for (const Remedy& remedy : v->remedies) {
    INFO(remedy.label);
    Job after = job;
    remedy.apply(after);
    CHECK_FALSE(told(after));
    CHECK_FALSE(planned(after).has_stop());
  }
}

TEST_CASE("a neck too narrow for its wood and grain is a warning, and its remedies mend it") {
  // Soft wood 20 mm thick holds from 7 mm along the grain, 16 mm across (data/strength.json, common practice).
  CHECK(least_neck("soft", 20, false) == Approx(7));
  CHECK(least_neck("soft", 20, true) == Approx(16));
  CHECK(least_neck("soft", 4, false) == Approx(3));
  Job job = board(300, 200, 20);
  job.blank.species = "western-red-cedar";
  job.blank.grain = Grain::AlongWidth;
  const auto outline = [&](Point at) {
    Item item{{"sign", "Sign", PlainShape{PlainShape::Kind::Rectangle, 240, 140}, at, 0}, {}};
    item.cut.kind = Treatment::Kind::CutOut;
    item.cut.bit = "flat-1/4in";
    item.cut.through.tabs.count = 4;
    return item;
  };
  job.items = {outline({150, 100})};
  Item hole{{"hole", "Hole", PlainShape{PlainShape::Kind::Ellipse, 60, 60}, {150, 100}, 0}, {}};
  hole.cut.kind = Treatment::Kind::Pierce;
  hole.cut.bit = "flat-1/4in";
  job.items.push_back(hole);
  CHECK(necks_in(job).empty());
  // Nearer to the long edge: the wood that is left runs along the grain.
  job.find("hole")->piece.at = {150, 66};  // 30 + 30 = 60 above the edge at 30: 6 mm stay
  std::vector<Verdict> found = necks_in(job);
  REQUIRE(found.size() == 1);
  CHECK(found[0].grade == Grade::Mind);
  CHECK(found[0].piece == "sign");
  CHECK_THAT(found[0].text, Catch::Contains("6 mm"));
  REQUIRE_FALSE(found[0].remedies.empty());
  Job after = job;
  found[0].remedies[0].apply(after);
  CHECK(necks_in(after).empty());
  CHECK(after.find("hole")->piece.at.y > 66);
  // Ten millimetres hold along the grain, and not across it.
  job.find("hole")->piece.at = {150, 70};
  CHECK(necks_in(job).empty());
  job.blank.grain = Grain::AlongHeight;
  found = necks_in(job);
  REQUIRE(found.size() == 1);
  CHECK_THAT(found[0].text, Catch::Contains("grain runs across"));
  int mended = 0;
  for (const Remedy& remedy : found[0].remedies) {
    Job then = job;
    remedy.apply(then);
    mended += necks_in(then).empty() ? 1 : 0;
  }
  CHECK(mended == 2);
  // Plywood has no grain to speak of.
  job.blank.species = "birch-plywood";
  CHECK(necks_in(job).empty());
  job.find("hole")->piece.at = {150, 64};
  found = necks_in(job);
  REQUIRE(found.size() == 1);
  CHECK_THAT(found[0].text, !Catch::Contains("grain"));
}

TEST_CASE("the table of strengths is read with a sentence for what is wrong in it") {
  CHECK_THROWS_WITH(read_strength("{}", "s.json"), Catch::Contains("s.json"));
  CHECK_THROWS_WITH(
      read_strength(
          R"({"format":"doyen-strength/1","source":"x","classes":{"soft":{"along":-1,"across":1,"least":0,"skin":1}}})",
          "s.json"),
      Catch::Contains("soft"));
}

TEST_CASE("upright strokes higher than they are wide are a warning; a slope or less height mends it") {
  Job job = board(300, 200, 20);
  job.blank.species = "black-walnut";
  Item bar{{"bar", "Bar", PlainShape{PlainShape::Kind::Rectangle, 120, 4}, {150, 100}, 0}, {}};  // 4 mm wide
  bar.cut.kind = Treatment::Kind::Raise;
  bar.cut.bit = "v60";
  bar.cut.raise.sloped = false;
  bar.cut.depth = 3;
  bar.cut.margin = 20;
  bar.cut.clearing = {"flat-1/4in"};
  job.items = {bar};
  const auto thin = [](const Job& of) {
    std::vector<Verdict> found;
    for (Verdict& v : plan(of, load_rack(), machine_for(of)).verdicts) {
      if (v.code == "stands-thin") found.push_back(std::move(v));
    }
    return found;
  };
  CHECK(thin(job).empty());
  job.find("bar")->cut.depth = 5;
  const std::vector<Verdict> found = thin(job);
  REQUIRE(found.size() == 1);
  REQUIRE(found[0].remedies.size() == 2);
  for (const Remedy& remedy : found[0].remedies) {
    Job after = job;
    remedy.apply(after);
    CHECK(thin(after).empty());
  }
  Job lower = job;
  found[0].remedies[1].apply(lower);
  CHECK(lower.find("bar")->cut.depth == Approx(4).margin(0.06));  // as high as it is wide
}
