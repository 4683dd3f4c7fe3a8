// What is offered for a weak place is tried, and then taken here: the place is gone from the wood measured anew, in
// whichever way, and what does not mend is not offered.
#include "planning/weak_remedies.hpp"

#include <catch2/catch.hpp>

#include "workbench.hpp"

using namespace workbench;

namespace {

struct Offered {
  Remedy remedy;
  Mended mended;
};

std::vector<Offered> offered(const Plan& plan, const WeakMap& map, std::size_t place) {
  std::vector<Offered> all;
  for (const Remedy& remedy : weak_remedies(plan, map, place)) {
    if (const auto mended = mends_weak(plan, map, place, remedy)) all.push_back({remedy, *mended});
  }
  return all;
}

bool names(const std::vector<Offered>& all, const std::string& words) {
  return std::any_of(all.begin(), all.end(),
                     [&](const Offered& o) { return o.remedy.label.find(words) != std::string::npos; });
}

// Each is taken, and does what it was said to do.
void take_each(const Job& job, const std::vector<Offered>& all) {
  REQUIRE_FALSE(all.empty());
  for (const Offered& each : all) {
    INFO(each.remedy.label);
    Job after = job;
    each.remedy.apply(after);
    CHECK_FALSE(after == job);
    const Plan then = planned(after);
    CHECK(weak_places(then).places.size() == each.mended.places);
    CHECK(then.seconds == Approx(each.mended.seconds));
    CHECK(read_job(write_job(after), "mended") == after);
  }
}

// A bar stands upright in a sunk ground, 3 mm wide and 8 mm high: soft wood wants it as wide as it is high.
Job standing() {
  Job job = workbench::board(160, 100, 24);
  Drawing bar;
  bar.page_width = 60;
  bar.page_height = 3;
  Drawing::Part part;
  part.id = "bar";
  part.data = "M0 0H60V3H0Z";
  bar.parts.edit().push_back(part);
  Treatment raise = cut(Kind::Raise, 8, {"flat-1/4in"}, "v60");
  raise.raise.sloped = false;
  raise.margin = 25;
  job.items.push_back({{"bar", "bar", bar, {80, 50}, 0}, raise});
  return job;
}

}  // namespace

TEST_CASE("a wall too high for its width is lowered, sloped or thickened, and then stands") {
  const Job job = standing();
  const Plan p = planned(job);
  const WeakMap map = weak_places(p);
  REQUIRE_FALSE(map.places.empty());
  REQUIRE(map.places.front().kind == WeakPlace::Kind::Wall);
  const auto all = offered(p, map, 0);
  for (const Offered& each : all) UNSCOPED_INFO(each.remedy.label);
  CHECK(names(all, "deep"));
  CHECK(names(all, "Thicken"));
  CHECK(names(all, "Slope"));
  take_each(job, all);
  // By hand: 3 mm hold 3 mm high in soft wood; 8 mm high want 8 mm, 2.5 mm more a side.
  for (const Offered& each : all) {
    Job after = job;
    each.remedy.apply(after);
    if (each.remedy.label.find("deep") != std::string::npos) {
      CHECK(after.items[0].cut.depth <= 3.01);
      CHECK(after.items[0].cut.depth > 2.4);
    }
    if (each.remedy.label.find("Thicken") != std::string::npos)
      CHECK(std::get<Drawing>(after.items[0].piece.what).thicken == Approx(2.5).margin(0.5));
  }
}

TEST_CASE("a neck between two openings widens by moving one, and in plywood it holds") {
  Job job = workbench::board(160, 90, 18);
  job.blank.grain = Grain::AlongHeight;
  add(job, "left", {kBox, 40, 40}, {57, 45}, cut(Kind::Pierce, 0));
  add(job, "right", {kBox, 40, 40}, {103, 45}, cut(Kind::Pierce, 0));  // 6 mm stay: fibres along them
  job.items[0].cut.bit = job.items[1].cut.bit = "flat-1/4in";
  const Plan p = planned(job);
  const WeakMap map = weak_places(p);
  std::size_t neck = map.places.size();
  for (std::size_t i = 0; i < map.places.size(); ++i) {
    if (map.places[i].kind == WeakPlace::Kind::Neck && std::abs(map.places[i].at.x - 80) < 4) neck = i;
  }
  REQUIRE(neck < map.places.size());
  CHECK(map.places[neck].width == Approx(6).margin(0.4));
  const auto all = offered(p, map, neck);
  for (const Offered& each : all) UNSCOPED_INFO(each.remedy.label);
  CHECK(names(all, "Move"));
  CHECK(names(all, "plywood"));  // 5.4 mm hold in sheets of 18 mm, 6.3 in soft wood along the grain
  take_each(job, all);
}

TEST_CASE("a skin is mended by the cut from either side, and what would leave another weak is not offered") {
  Job job = workbench::board(160, 90, 12);
  Treatment under = cut(Kind::Recess, 5.5, {"flat-1/4in"}, "");
  under.back = true;
  add(job, "front", {kBox, 60, 40}, {80, 45}, cut(Kind::Recess, 5.5, {"flat-1/4in"}, ""));
  add(job, "back", {kBox, 60, 40}, {80, 45}, under);
  const Plan p = planned(job);
  const WeakMap map = weak_places(p);
  REQUIRE_FALSE(map.places.empty());
  REQUIRE(map.places.front().kind == WeakPlace::Kind::Skin);
  CHECK(map.places.front().width == Approx(1).margin(0.05));
  const auto all = offered(p, map, 0);
  CHECK(names(all, "Make “front”"));
  CHECK(names(all, "Make “back”"));
  take_each(job, all);
  // A remedy of another place mends nothing here.
  CHECK_FALSE(mends_weak(p, map, 0, {"nothing", [](Job& j) { j.name += "x"; }}).has_value());
  CHECK_FALSE(mends_weak(p, map, 0, {"deeper", [](Job& j) { j.items[0].cut.depth = 6; }}).has_value());
}
