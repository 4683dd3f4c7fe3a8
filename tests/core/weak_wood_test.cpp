// Weak places against shapes whose narrowest wood is known by construction, and against the necks that are found in
// outlines, a way of its own.
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <random>

#include "geometry/necks.hpp"
#include "planning/plan.hpp"
#include "planning/weak_map.hpp"
#include "rack/own_rack.hpp"
#include "relief/cell_distance.hpp"
#include "stock/strength.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

constexpr double kCellSize = 0.25;

// A board 100 mm by 60 mm, 18 mm thick, whose heights are told place by place.
CarvedWood carved(const std::function<double(Point)>& height) {
  CarvedWood wood;
  wood.front = HeightField({0, 0, 100, 60}, kCellSize);
  wood.thickness = 18;
  wood.kept.assign(wood.front.columns() * wood.front.rows(), 1);
  for (std::size_t r = 0; r < wood.front.rows(); ++r) {
    for (std::size_t c = 0; c < wood.front.columns(); ++c)
      wood.front.row(r)[c] = static_cast<float>(height({wood.front.x_of(c), wood.front.y_of(r)}));
  }
  return wood;
}

// Wood where the region is, nothing elsewhere.
CarvedWood sawn(const std::function<bool(Point)>& inside) {
  return carved([&](Point p) { return inside(p) ? 0.0 : -18.5; });
}

WeakLimits of(double along, double across) {
  WeakLimits limits;
  limits.along = along;
  limits.across = across;
  limits.grain = across > along;
  return limits;
}

bool in(Point p, double left, double bottom, double right, double top) {
  return p.x > left && p.x < right && p.y > bottom && p.y < top;
}

}  // namespace

TEST_CASE("every cell's distance is that to the nearest marked one, against looking at all of them") {
  std::mt19937 random(5);
  for (int i = 0; i < 20; ++i) {
    const std::size_t columns = 1 + random() % 30, rows = 1 + random() % 30;
    std::vector<unsigned char> marked(columns * rows);
    for (auto& m : marked) m = random() % 9 == 0 ? 1 : 0;
    const std::vector<float> found = distances_to(marked, columns, rows);
    for (std::size_t a = 0; a < marked.size(); ++a) {
      double least = 1e9;
      for (std::size_t b = 0; b < marked.size(); ++b) {
        if (marked[b] == 0) continue;
        const double x = static_cast<double>(a % columns) - static_cast<double>(b % columns);
        const double y = static_cast<double>(a / columns) - static_cast<double>(b / columns);
        least = std::min(least, std::hypot(x, y));
      }
      REQUIRE(found[a] == Approx(least).epsilon(1e-5));
    }
  }
}

TEST_CASE("a bar between two blocks is a neck as wide as it is, along or across the grain, however turned") {
  std::mt19937 random(8);
  std::uniform_real_distribution<double> wide(2, 9), turn(0, 6.28);
  for (int i = 0; i < 25; ++i) {
    const double bar = wide(random), by = turn(random);
    INFO("bar " << bar << " turned by " << by);
    const Point way{std::cos(by), std::sin(by)};
    const CarvedWood wood = sawn([&](Point p) {
      const Point q{(p.x - 50) * way.x + (p.y - 30) * way.y, (p.y - 30) * way.x - (p.x - 50) * way.y};
      return (in(q, -26, -11, -10, 11) || in(q, 10, -11, 26, 11) || in(q, -12, -bar / 2, 12, bar / 2)) &&
             in(p, 0.5, 0.5, 99.5, 59.5);
    });
    const WeakMap map = weak_wood(wood, of(6, 10));
    const bool across = std::abs(way.y) > std::abs(way.x);
    if (bar > (across ? 10 : 6) - 0.8) continue;  // holds, or nearly
    REQUIRE(map.places.size() == 1);
    const WeakPlace& place = map.places.front();
    CHECK(place.kind == WeakPlace::Kind::Neck);
    CHECK(place.width == Approx(bar).margin(2 * kCellSize));
    CHECK(distance(place.at, {50, 30}) < 12);
    if (std::abs(std::abs(way.x) - std::abs(way.y)) > 0.1) CHECK(place.across == across);
    CHECK(place.holds == (place.across ? 10 : 6));
    CHECK(place.breaks == (place.width < place.holds / 2));
    CHECK(place.mm2 > 0.5 * 20 * bar);
  }
}

TEST_CASE("whole boards, blunt corners and bars that hold are not weak; thin points are") {
  CHECK(weak_wood(sawn([](Point) { return true; }), of(6, 10)).places.empty());
  // A diamond has corners of 60° and 120°.
  CHECK(weak_wood(sawn([](Point p) { return std::abs(p.x - 50) / 45 + std::abs(p.y - 30) / 26 < 1; }), of(6, 6))
            .places.empty());
  // A leaf with points of about 25°.
  const WeakMap leaf =
      weak_wood(sawn([](Point p) { return std::abs(p.x - 50) / 45 + std::abs(p.y - 30) / 10 < 1; }), of(6, 6));
  REQUIRE(leaf.places.size() == 2);
  for (const WeakPlace& place : leaf.places) {
    CHECK(place.kind == WeakPlace::Kind::Point);
    CHECK(std::abs(place.at.x - 50) > 25);
  }
  const auto frame = [](Point p) { return in(p, 5, 5, 95, 55) && !in(p, 15, 15, 85, 45); };
  CHECK(weak_wood(sawn(frame), of(8, 8)).places.empty());
}

TEST_CASE("the thin side of a frame is a neck though the frame stays one piece, as outlines say it, too") {
  for (const double side : {2.0, 3.5, 5.0}) {
    const auto frame = [&](Point p) { return in(p, 5, 5, 95, 55) && !in(p, 15, 15, 95 - side, 45); };
    const WeakMap map = weak_wood(sawn(frame), of(6, 6));
    REQUIRE(map.places.size() == 1);
    CHECK(map.places.front().width == Approx(side).margin(kCellSize));
    const Region outline{{Island{
        {Ring{{5, 5}, {95, 5}, {95, 55}, {5, 55}}, Ring{{15, 15}, {15, 45}, {95 - side, 45}, {95 - side, 15}}}}}};
    const std::vector<Neck> necks = necks_of(outline, 6);
    REQUIRE(necks.size() == 1);
    CHECK(map.places.front().width == Approx(necks.front().width).margin(kCellSize));
  }
}

TEST_CASE("what stands higher than it is wide between two floors is a wall; beside one floor it leans on the board") {
  const auto ridge = [](double wide, bool both) {
    CarvedWood wood = carved([=](Point p) {
      if (!in(p, 10, 10, 90, 50) || std::abs(p.y - 30) < wide / 2) return 0.0;
      return both || p.y > 30 ? -8.0 : 0.0;
    });
    wood.stands = {8};
    return weak_wood(wood, of(0, 0));
  };
  const WeakMap thin = ridge(3, true);
  REQUIRE(thin.places.size() == 1);
  CHECK(thin.places.front().kind == WeakPlace::Kind::Wall);
  CHECK(thin.places.front().width == Approx(3).margin(kCellSize));
  CHECK(thin.places.front().tall == 8);
  CHECK(thin.places.front().breaks);
  CHECK_FALSE(ridge(6, true).places.empty());
  CHECK_FALSE(ridge(6, true).places.front().breaks);
  CHECK(ridge(9, true).places.empty());
  CHECK(ridge(3, false).places.empty());
}

TEST_CASE("between a cut from the front and one from the back the skin is what is left") {
  for (const double under : {8.0, 5.5, 7.5}) {
    CarvedWood wood = carved([](Point p) { return in(p, 20, 20, 60, 40) ? -9.5 : 0.0; });
    wood.under.assign(wood.kept.size(), 0);
    for (std::size_t r = 0; r < wood.front.rows(); ++r) {
      for (std::size_t c = 0; c < wood.front.columns(); ++c) {
        if (in({wood.front.x_of(c), wood.front.y_of(r)}, 50, 10, 90, 50))
          wood.under[r * wood.front.columns() + c] = static_cast<float>(under);
      }
    }
    WeakLimits limits = of(0, 0);
    limits.skin = 2.5;
    const WeakMap map = weak_wood(wood, limits);
    const double left = 18 - 9.5 - under;
    INFO("left " << left);
    REQUIRE(map.places.size() == (left < 2.5 ? 1U : 0U));
    if (map.places.empty()) continue;
    CHECK(map.places.front().kind == WeakPlace::Kind::Skin);
    CHECK(map.places.front().width == Approx(left).margin(1e-4));
    CHECK(map.places.front().mm2 == Approx(10 * 20).epsilon(0.03));
    CHECK(map.places.front().breaks == (left < 1.25));
    double drawn = 0;
    for (const WeakMap::Run& run : map.runs) drawn += (run.x1 - run.x0) * map.cell;
    CHECK(drawn == Approx(map.places.front().mm2));
  }
}

TEST_CASE("a planned sign's weak places are those of its carved wood: a neck beside a hole, a wall on a sunk ground") {
  Job job = board(300, 200, 20);
  job.blank.species = "western-red-cedar";
  job.blank.grain = Grain::AlongWidth;
  Item sign{{"sign", "Sign", PlainShape{PlainShape::Kind::Rectangle, 240, 140}, {150, 100}, 0}, {}};
  sign.cut.kind = Treatment::Kind::CutOut;
  sign.cut.bit = "flat-1/4in";
  sign.cut.through.tabs.count = 4;
  Item hole{{"hole", "Hole", PlainShape{PlainShape::Kind::Ellipse, 60, 60}, {150, 66}, 0}, {}};
  hole.cut.kind = Treatment::Kind::Pierce;
  hole.cut.bit = "flat-1/4in";
  job.items = {sign, hole};
  const auto places = [&] { return weak_places(plan(job, load_rack(), machine_for(job))).places; };
  std::vector<WeakPlace> found = places();
  REQUIRE(found.size() == 1);
  CHECK(found[0].kind == WeakPlace::Kind::Neck);
  CHECK(found[0].width == Approx(6).margin(0.5));  // 60 mm of hole, 6 mm above the sign's edge at 30
  CHECK_FALSE(found[0].across);
  CHECK(found[0].holds == Approx(least_neck("soft", 20, false)));
  CHECK_THAT(weak_in_words(found[0], job.lengths), Catch::Contains("neck") && Catch::Contains("7 mm hold"));
  job.find("hole")->piece.at = {150, 100};
  CHECK(places().empty());
  // With the grain the other way the wood beside it is short.
  job.find("hole")->piece.at = {150, 70};
  job.blank.grain = Grain::AlongHeight;
  found = places();
  REQUIRE(found.size() == 1);
  CHECK(found[0].across);
  CHECK(found[0].width == Approx(10).margin(0.5));
}

TEST_CASE("a ridge between two grooves of a V has a foot as wide as it is high; between steep walls it has not") {
  const auto grooves = [](double flank) {  // mm across for each mm down, at either side of two grooves 6 mm deep
    CarvedWood wood = carved([=](Point p) {
      if (!in(p, 10, 0, 90, 60)) return 0.0;
      const double off = std::min(std::abs(p.y - 30 + 6 * flank + 0.5), std::abs(p.y - 30 - 6 * flank - 0.5));
      return std::min(0.0, off / flank - 6);
    });
    wood.stands = {6};
    return weak_wood(wood, of(0, 0)).places;
  };
  CHECK(grooves(std::tan(30 * M_PI / 180)).empty());  // a V of 60°
  CHECK(grooves(std::tan(45 * M_PI / 180)).empty());
  const std::vector<WeakPlace> steep = grooves(std::tan(7.5 * M_PI / 180));  // of 15°
  REQUIRE(steep.size() == 1);
  CHECK(steep.front().kind == WeakPlace::Kind::Wall);
  CHECK(steep.front().tall == Approx(6).margin(1));
}

TEST_CASE("how wide a wall must be for its height hangs on the wood: soft as wide as high, hard three quarters") {
  // data/strength.json, common practice.
  const auto walls = [](const char* wood) {
    Job job = board(120, 80, 20);
    job.blank.species = wood;
    for (const double x : {35.0, 81.8}) {  // 40 mm wide, 8 mm deep: 6.8 mm stay between them
      Item item{{x < 50 ? "left" : "right", "Tray", PlainShape{PlainShape::Kind::Rectangle, 40, 40}, {x, 40}, 0}, {}};
      item.cut = cut(Kind::Recess, 8);
      item.cut.clearing = {"flat-1/4in"};
      job.items.push_back(item);
    }
    const WeakMap map = weak_places(planned(job));
    return std::count_if(map.places.begin(), map.places.end(),
                         [](const WeakPlace& place) { return place.kind == WeakPlace::Kind::Wall; });
  };
  CHECK(walls("western-red-cedar") == 1);
  CHECK(walls("white-oak") == 0);
}
