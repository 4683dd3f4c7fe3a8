// Clearing and cutting out: what flat bits leave, against raster morphology; tabs, ramps and depth against the rules.
#include <catch2/catch.hpp>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "cutting/clearing.hpp"
#include "cutting/profile.hpp"
#include "geometry/polyline.hpp"
#include "oracle.hpp"
#include "relief/carve.hpp"

using namespace doyen;

namespace {

cv::Mat mask_of(const Region& region, const HeightField& field) {
  cv::Mat mask(static_cast<int>(field.rows()), static_cast<int>(field.columns()), CV_8U);
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c)
      mask.at<uchar>(static_cast<int>(r), static_cast<int>(c)) =
          contains(region, {field.x_of(c), field.y_of(r)}) ? 255 : 0;
  }
  return mask;
}

cv::Mat disc(double radius_in_cells) {
  const int n = static_cast<int>(std::ceil(radius_in_cells));
  cv::Mat kernel(2 * n + 1, 2 * n + 1, CV_8U);
  for (int y = -n; y <= n; ++y) {
    for (int x = -n; x <= n; ++x) kernel.at<uchar>(y + n, x + n) = std::hypot(x, y) <= radius_in_cells ? 1 : 0;
  }
  return kernel;
}

cv::Mat morphed(const cv::Mat& mask, double radius_in_cells) {
  cv::Mat out;
  cv::morphologyEx(mask, out, cv::MORPH_OPEN, disc(radius_in_cells), {-1, -1}, 1, cv::BORDER_CONSTANT, 0);
  return out;
}

// Cells cut outside the region (gouges, beyond a cell's diagonal), and cells of the raster opening left standing.
struct Clearing {
  int gouged = 0, left = 0, wanted = 0;
  double lowest = 0;
};
Clearing judge(const std::vector<std::pair<double, std::vector<Pass>>>& bits, const Region& region, double floor) {
  constexpr double kCell = 0.1;
  HeightField field(bounds(region).grown(2), kCell);
  field.clear();
  double smallest = 1e9;
  for (const auto& [diameter, passes] : bits) {
    carve(field, passes, oracle::flat_bit(diameter));
    smallest = std::min(smallest, diameter);
  }
  const cv::Mat open = morphed(mask_of(region, field), smallest / 2 / kCell);
  cv::Mat inner;  // a cell and a half in: raster discs and true ones differ by that
  cv::erode(open, inner, disc(1.5), {-1, -1}, 1, cv::BORDER_CONSTANT, 0);
  Clearing out;
  const Region wide = grow(region, 0.005);
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c) {
      const double z = field.at(c, r);
      out.lowest = std::min(out.lowest, z);
      if (z < -0.001 && !contains(wide, {field.x_of(c), field.y_of(r)})) ++out.gouged;
      if (inner.at<uchar>(static_cast<int>(r), static_cast<int>(c)) == 0) continue;
      ++out.wanted;
      out.left += z > floor + 0.005;
    }
  }
  return out;
}

ClearingShape shape_for(double diameter, double floor) {
  ClearingShape shape;
  shape.diameter = diameter;
  shape.floor = floor;
  shape.depth_per_pass = diameter / 2;
  return shape;
}

Region holed(std::mt19937& random) {
  const Region outer = clean({oracle::random_ring(random, {40, 40}, 20, 38, 14)});
  const Region holes =
      clean({oracle::random_ring(random, {34, 40}, 3, 9, 7), oracle::random_ring(random, {52, 46}, 2, 6, 6)});
  return subtract(outer, holes);
}

}  // namespace

TEST_CASE("clearing takes all that a disc can sweep and nothing else, on random outlines with holes") {  // OpenCV's
                                                                                                         // morphology
  std::mt19937 random(41);
  for (int round = 0; round < 8; ++round) {
    const Region region = holed(random);
    for (const double diameter : {3.0, 6.0}) {
      INFO("round " << round << ", bit " << diameter);
      const Clearing c = judge({{diameter, clear_floor(region, {}, shape_for(diameter, -4))}}, region, -4);
      CHECK(c.wanted > 2000);
      CHECK(c.gouged == 0);
      CHECK(c.left == 0);
      CHECK(c.lowest == Approx(-4).margin(1e-4));
    }
  }
}

TEST_CASE("a smaller bit goes only where the larger one left wood, and together they leave nothing") {
  std::mt19937 random(43);
  for (int round = 0; round < 6; ++round) {
    const Region region = holed(random);
    const auto large = clear_floor(region, {}, shape_for(8, -3));
    const Region done = opening(region, 4);
    const auto small = clear_floor(region, done, shape_for(2, -3));
    const auto alone = clear_floor(region, {}, shape_for(2, -3));
    const Clearing c = judge({{8, large}, {2, small}}, region, -3);
    CHECK(c.gouged == 0);
    CHECK(c.left == 0);
    CHECK(path_length(small) < 0.6 * path_length(alone));
  }
}

TEST_CASE("nothing is cut where no bit fits") {
  CHECK(clear_floor(oracle::rectangle(0, 0, 50, 5.9), {}, shape_for(6, -2)).empty());
  CHECK_FALSE(clear_floor(oracle::rectangle(0, 0, 50, 6.1), {}, shape_for(6, -2)).empty());
  CHECK(clear_floor({}, {}, shape_for(6, -2)).empty());
}

TEST_CASE(
    "the bit comes down on a ramp, no deeper at once than it may") {  // common practice: about half the diameter a pass
  const ClearingShape shape = shape_for(6, -9);
  double reached = 0;
  for (const Pass& pass : clear_floor(oracle::rectangle(0, 0, 60, 40), {}, shape)) {
    CHECK(pass.points.front().z >= reached - 1e-9);  // enters at a height that is already cut
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      const Point3 &a = pass.points[i - 1], &b = pass.points[i];
      const double along = distance(a.flat(), b.flat());
      if (b.z < a.z - 1e-9) CHECK(a.z - b.z <= along * shape.ramp_slope + 1e-6);
      CHECK(b.z >= reached - shape.depth_per_pass - 1e-6);
    }
    reached = std::min(reached, deepest({pass}));
  }
  CHECK(reached == Approx(-9));
}

TEST_CASE("a cut-out goes through, all round, its outline untouched") {
  const Region region = clean({{{20, 20}, {120, 20}, {120, 80}, {20, 80}}});
  CutOutShape shape;
  shape.diameter = 6;
  shape.thickness = 19;
  shape.over_cut = 0.5;
  shape.tabs.wanted = false;
  const CutOut cut = plan_cut_out(region, shape);
  CHECK(deepest(cut.passes) == Approx(-19.5));
  HeightField field({5, 5, 135, 95}, 0.25);
  field.clear();
  carve(field, cut.passes, oracle::flat_bit(6));
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c) {
      const Point p{field.x_of(c), field.y_of(r)};
      const double d = distance_to_outline(region, p);
      if (contains(region, p)) {
        REQUIRE(field.at(c, r) == 0);
      } else if (d < 5.9 && d > 0.01) {
        REQUIRE(field.at(c, r) == Approx(-19.5).margin(1e-4));
      }
    }
  }
}

TEST_CASE(
    "tabs stand on straight stretches, at least two, one on each side of the middle, ramped on top") {  // geometry.md,
                                                                                                        // tabs
  const Region plaque =
      outlines_of({"p", "p", PlainShape{PlainShape::Kind::Rectangle, 200, 90, 20, 0}, {150, 80}, 0}).region;
  CutOutShape shape;
  shape.diameter = 6;
  shape.thickness = 18;
  shape.tabs = {true, 4, 6, 4, {}};
  const CutOut cut = plan_cut_out(plaque, shape);
  REQUIRE(cut.tabs.size() == 4);
  int left = 0, right = 0;
  for (const PlacedTab& tab : cut.tabs) {
    CHECK(tab_objection(plaque, tab.place, 6, 6, false).empty());
    (tab.at.x < 150 ? left : right) += 1;
    // Off the rounded corners by half a tab at least: corners begin 20 mm from either side.
    const bool on_long = tab.at.x > 70 + 3 && tab.at.x < 230 - 3 && (tab.at.y < 36 || tab.at.y > 124);
    const bool on_short = tab.at.y > 55 + 3 && tab.at.y < 105 - 3;
    CHECK((on_long || on_short));
  }
  CHECK(left >= 1);
  CHECK(right >= 1);
  HeightField field(bounds(plaque).grown(8), 0.2);
  field.clear();
  carve(field, cut.passes, oracle::flat_bit(6));
  for (const PlacedTab& tab : cut.tabs) {  // wood of the asked height and, at the underside, of the asked length
    const Point out{tab.along.y, -tab.along.x};
    const auto height = [&](double along) {
      const Point p = tab.at + out * 3 + tab.along * along;
      const std::size_t c = field.columns_in(p.x - 0.1, p.x + 0.1).begin, r = field.rows_in(p.y - 0.1, p.y + 0.1).begin;
      return field.at(c, r);
    };
    for (const double along : {-0.9, 0.0, 0.9}) CHECK(height(along) == Approx(-18 + 4).margin(0.05));
    for (const double along : {-2.7, 2.7}) {
      CHECK(height(along) > -18);
      CHECK(height(along) < -18 + 3);
    }
    for (const double along : {-3.3, 3.3}) CHECK(height(along) < -18);
  }
  for (const Pass& pass : cut.passes) {
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      const Point3 &a = pass.points[i - 1], &b = pass.points[i];
      if (distance(a.flat(), b.flat()) < 1e-9) CHECK(b.z >= a.z - 1e-6);  // never straight down beside a tab
    }
  }
}

TEST_CASE("a circle too small for straight stretches gets no tab forced on a bend") {
  const Region small = outlines_of({"c", "c", PlainShape{PlainShape::Kind::Ellipse, 14, 14, 0, 0}, {50, 50}, 0}).region;
  CHECK(place_tabs(small, {true, 4, 6, 3, {}}, 6, false).empty());
  const Region large =
      outlines_of({"c", "c", PlainShape{PlainShape::Kind::Ellipse, 300, 300, 0, 0}, {200, 200}, 0}).region;
  CHECK(place_tabs(large, {true, 4, 6, 3, {}}, 6, false).size() == 4);
}

TEST_CASE("openings are cut before the outer line, and one too small for the bit is said") {
  const Region ring = subtract(oracle::rectangle(0, 0, 100, 80),
                               unite(oracle::rectangle(20, 20, 30, 30), oracle::rectangle(70, 30, 4, 4)));
  CutOutShape shape;
  shape.diameter = 6;
  const CutOut cut = plan_cut_out(ring, shape);
  REQUIRE(cut.passes.size() == 2);
  const auto size = [](const Pass& pass) {
    Box box;
    for (const Point3& p : pass.points) box.add(p.flat());
    return box.width();
  };
  CHECK(size(cut.passes[0]) == Approx(24).margin(0.1));
  CHECK(size(cut.passes[1]) == Approx(106).margin(0.1));
  CHECK(cut.lost_holes == std::vector<int>{0});
}

TEST_CASE("what a larger bit left is cleared without a lift from level to level, nearest part next") {
  // Nine pockets with sharp corners, 3 mm deep in three goes: a 6 mm bit first, then the corners by one of 1.5 mm.
  Region pockets;
  for (int i = 0; i < 9; ++i) {
    const double x = 60.0 * (i % 3), y = 50.0 * (i / 3);
    pockets.islands.push_back(Island{{{{x, y}, {x + 30, y}, {x + 30, y + 24}, {x, y + 24}}}});
  }
  ClearingShape large;
  large.diameter = 6;
  large.floor = -3;
  large.depth_per_pass = 1;
  Region reached;
  const std::vector<Pass> first = clear_floor(pockets, {}, large, {}, &reached);
  ClearingShape small = large;
  small.diameter = 1.5;
  const std::vector<Pass> rest = clear_floor(pockets, reached, small);
  CHECK(rest.size() == 36);  // four corners of each, each in one go
  for (const Pass& pass : rest) {
    double lowest = 0;
    for (const Point3& p : pass.points) lowest = std::min(lowest, p.z);
    CHECK(lowest == Approx(-3));
  }
  // Between them in the air: less than twice the least that any order needs, once from pocket to pocket and corner to
  // corner (straight lines: 3 × 24 + 3 × 18 in a pocket at most).
  double air = 0;
  for (std::size_t i = 0; i + 1 < rest.size(); ++i)
    air += distance(rest[i].points.back().flat(), rest[i + 1].points.front().flat());
  CHECK(air < 9 * (24 + 18 + 24) + 8 * 60);
}
