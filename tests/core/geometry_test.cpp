// Regions, paths and the medial axis against GEOS, CairO's rules and closed forms.
#include <geos_c.h>

#include <catch2/catch.hpp>

#include <cstdarg>
#include <numbers>
#include <random>

#include "geometry/medial_axis.hpp"
#include "geometry/path.hpp"
#include "geometry/polyline.hpp"
#include "geometry/united.hpp"
#include "oracle.hpp"
#include "problem.hpp"
#include "some_shape.hpp"

using namespace doyen;

namespace {

// The same polygons in GEOS (libgeos, the library behind most mapping software).
class Geos {
 public:
  Geos() { initGEOS(quiet, quiet); }
  ~Geos() { finishGEOS(); }
  Geos(const Geos&) = delete;
  Geos& operator=(const Geos&) = delete;

  static GEOSGeometry* polygon(const Region& region) {
    GEOSGeometry* all = GEOSGeom_createEmptyCollection(GEOS_MULTIPOLYGON);
    for (const Island& island : region.islands) {
      std::vector<GEOSGeometry*> holes;
      for (std::size_t i = 1; i < island.rings.size(); ++i) holes.push_back(ring(island.rings[i]));
      GEOSGeometry* one =
          GEOSGeom_createPolygon(ring(island.rings[0]), holes.data(), static_cast<unsigned>(holes.size()));
      GEOSGeometry* joined = GEOSUnion(all, one);
      GEOSGeom_destroy(all);
      GEOSGeom_destroy(one);
      all = joined;
    }
    return all;
  }
  static double area_of(GEOSGeometry* g) {
    double a = 0;
    GEOSArea(g, &a);
    GEOSGeom_destroy(g);
    return a;
  }

 private:
  static void quiet(const char*, ...) {}
  static GEOSGeometry* ring(const Ring& points) {
    GEOSCoordSequence* s = GEOSCoordSeq_create(static_cast<unsigned>(points.size() + 1), 2);
    for (std::size_t i = 0; i <= points.size(); ++i) {
      const Point& p = points[i % points.size()];
      GEOSCoordSeq_setXY(s, static_cast<unsigned>(i), p.x, p.y);
    }
    return GEOSGeom_createLinearRing(s);
  }
};

}  // namespace

TEST_CASE("joins, differences and overlaps agree with GEOS on random outlines") {
  const Geos geos;
  std::mt19937 random(3);
  for (int round = 0; round < 25; ++round) {
    const Region a =
        clean({oracle::random_ring(random, {0, 0}, 10, 40, 17), oracle::random_ring(random, {35, 5}, 5, 30, 9)});
    const Region b = clean({oracle::random_ring(random, {20, 10}, 8, 35, 23)});
    GEOSGeometry* ga = Geos::polygon(a);
    GEOSGeometry* gb = Geos::polygon(b);
    CHECK(area(unite(a, b)) == Approx(Geos::area_of(GEOSUnion(ga, gb))).margin(0.01));
    CHECK(area(subtract(a, b)) == Approx(Geos::area_of(GEOSDifference(ga, gb))).margin(0.01));
    CHECK(area(intersect(a, b)) == Approx(Geos::area_of(GEOSIntersection(ga, gb))).margin(0.01));
    GEOSGeom_destroy(ga);
    GEOSGeom_destroy(gb);
  }
}

TEST_CASE("growing and shrinking agree with GEOS buffers") {
  const Geos geos;
  std::mt19937 random(11);
  for (int round = 0; round < 12; ++round) {
    const Region a = clean({oracle::random_ring(random, {0, 0}, 10, 40, 13)});
    for (const double by : {-4.0, -1.5, 2.0, 6.0}) {
      GEOSGeometry* ga = Geos::polygon(a);
      const double theirs = Geos::area_of(GEOSBuffer(ga, by, 64));
      GEOSGeom_destroy(ga);
      CHECK(area(grow(a, by)) == Approx(theirs).epsilon(0.002).margin(0.05));
    }
  }
}

TEST_CASE("a square's corner keeps (4 - pi)/4 r^2 from a disc") {  // any handbook of mathematics
  const Region square = oracle::rectangle(0, 0, 40, 30);
  for (const double r : {1.5, 3.0, 6.0}) {
    const double lost = area(square) - area(opening(square, r, 0.0005));
    CHECK(lost == Approx(4 * (4 - std::numbers::pi) / 4 * r * r).epsilon(0.003));
  }
}

TEST_CASE("a gap narrower than the disc stays whole") {
  const Region bar = oracle::rectangle(0, 0, 40, 5.9);
  CHECK(opening(bar, 3.0).empty());
  CHECK_FALSE(opening(bar, 2.9).empty());
}

TEST_CASE("cleaning joins overlapping, crossing and doubled outlines") {
  CHECK(area(clean({{{0, 0}, {10, 0}, {10, 10}, {0, 10}}, {{5, 5}, {15, 5}, {15, 15}, {5, 15}}})) == Approx(175));
  CHECK(area(clean({{{0, 0}, {10, 10}, {10, 0}, {0, 10}}}, Fill::EvenOdd)) == Approx(50));  // a bow tie
  const Region ring = clean({{{0, 0}, {30, 0}, {30, 30}, {0, 30}}, {{10, 10}, {10, 20}, {20, 20}, {20, 10}}});
  REQUIRE(ring.islands.size() == 1);
  CHECK(ring.islands[0].rings.size() == 2);
  CHECK(signed_area(ring.islands[0].rings[0]) > 0);
  CHECK(signed_area(ring.islands[0].rings[1]) < 0);
  CHECK(clean({{{0, 0}, {5, 5}}}).empty());
  CHECK(clean({{{1, 1}, {1, 1}, {1, 1}}}).empty());
  CHECK(clean({}).empty());
  CHECK_THROWS_AS(clean({{{0, 0}, {std::nan(""), 0}, {1, 1}}}), Problem);
  CHECK_THROWS_AS(clean({{{0, 0}, {1e9, 0}, {1, 1}}}), Problem);
}

TEST_CASE("path data follows the grammar of SVG 1.1, chapter 8") {
  const auto area_of = [](const char* d) { return area(clean(flatten(parse_path(d), 0.001, true).closed)); };
  CHECK(area_of("M0 0 L10 0 L10 10 L0 10 Z") == Approx(100));
  CHECK(area_of("M0,0h10v10h-10z") == Approx(100));
  CHECK(area_of("m5 5 10 0 0 10-10 0z") == Approx(100));
  CHECK(area_of("M0 0 10 0 10 10 0 10") == Approx(100));  // further pairs are lines, open subpaths close for filling
  CHECK(area_of("M10 0A10 10 0 1 1 -10 0A10 10 0 1 1 10 0Z") == Approx(std::numbers::pi * 100).epsilon(1e-3));
  CHECK(area_of("M10 0A5 5 0 1 1 -10 0A5 5 0 1 1 10 0Z") ==
        Approx(std::numbers::pi * 100).epsilon(1e-3));                          // radii too small grow
  CHECK(area_of("M0 0Q5 10 10 0Z") == Approx(2.0 / 3 * 10 * 5).epsilon(1e-3));  // a parabola's segment
  CHECK(area_of("M0 0C0 10 10 10 10 0Z") == Approx(60).epsilon(1e-3));
  CHECK(area_of("M0 0c0 10 10 10 10 0s10-10 10 0z") > 0);
  CHECK(area_of("M0 0q5 10 10 0t10 0z") > 0);
  CHECK(area_of("M1e1 0 L-1E1 0 L0 .5e1Z") == Approx(50));
  CHECK(area_of("M0 0a10 10 0 0110 10L0 10z") > 0);  // flags may stand without a gap
  for (const char* bad : {"L0 0", "M0", "M0 0 X", "M0 0 A1 1 0 2 0 5 5", "M nan 0", "M0 0 L 1e400 3", "10 10"}) {
    INFO(bad);
    CHECK_THROWS_AS(parse_path(bad), Problem);
  }
  CHECK(parse_path("M0 0 L5 5 L oops", true).steps.size() == 2);  // as SVG asks: up to the mistake
}

TEST_CASE("written path data reads back as the same path") {
  const Path p = parse_path("M1.25 2C3 4 5.5 6 7 8L-9.125 10ZM0 0L5 0L5 5Z");
  CHECK(path_data(parse_path(path_data(p))) == path_data(p));
}

TEST_CASE("flattened curves stay within their chord error") {
  const Path circle = parse_path("M50 0A50 50 0 1 1 -50 0A50 50 0 1 1 50 0Z");
  for (const double tolerance : {0.1, 0.01, 0.001}) {
    const Ring ring = flatten(circle, tolerance, true).closed.front();
    double worst = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
      const Point middle = (ring[i] + ring[(i + 1) % ring.size()]) * 0.5;
      worst = std::max(worst, 50 - length(middle));
    }
    CHECK(worst <= tolerance * 1.05 + 0.014);  // a cubic's own distance from the circle is up to 0.00027 r
  }
}

TEST_CASE("transforms turn, mirror and follow each other") {
  const Transform t = Transform::turn(90).then(Transform::move(10, 0));
  CHECK(t.apply({1, 0}).x == Approx(10));
  CHECK(t.apply({1, 0}).y == Approx(1));
  const Region r = transformed(oracle::rectangle(0, 0, 4, 2), Transform::scale(-1, 1));
  CHECK(area(r) == Approx(8));  // still the right way round
}

TEST_CASE("every point of a medial axis is as far from the outline as it says") {
  std::mt19937 random(5);
  for (int round = 0; round < 10; ++round) {
    const Region region =
        clean({oracle::random_ring(random, {60, 60}, 12, 50, 29), oracle::random_ring(random, {60, 60}, 3, 8, 7)},
              Fill::EvenOdd);
    for (const Island& island : region.islands) {
      const Region own{{island}};
      const oracle::Distance distance_of(own);
      const MedialAxis axis = medial_axis(island);
      CHECK(axis.edges.size() > 10);
      std::vector<MedialAxis::Vertex> traced;
      for (const auto& edge : axis.edges) {
        const auto& a = axis.vertices[static_cast<std::size_t>(edge.a)];
        traced.assign(1, a);
        trace_edge(axis, a, axis.vertices[static_cast<std::size_t>(edge.b)], edge.one, edge.two, 0.001, traced);
        for (const auto& v : traced) {
          const Point p = v.at + axis.origin;
          CHECK(std::abs(distance_of.at(p.x, p.y) - v.r) < 0.0005);
        }
      }
    }
  }
}

TEST_CASE("equal islands have equal keys wherever they lie") {
  const Region a = clean({{{0, 0}, {10, 1}, {7, 9}}}), b = clean({{{100.5, 33}, {110.5, 34}, {107.5, 42}}});
  CHECK(island_key(a.islands[0]) == island_key(b.islands[0]));
  const Region c = clean({{{0, 0}, {10, 1}, {7, 9.001}}});
  CHECK(island_key(a.islands[0]) != island_key(c.islands[0]));
}

TEST_CASE("places along a ring are found again") {
  const Ring ring{{0, 0}, {40, 0}, {40, 20}, {0, 20}};
  CHECK(ring_length(ring) == Approx(120));
  for (const double share : {0.0, 0.1, 0.37, 0.5, 0.93})
    CHECK(share_nearest(ring, on_ring(ring, share).at) == Approx(share).margin(1e-9));
  CHECK(on_ring(ring, 0.25).along.x == Approx(1));
}

TEST_CASE("lines are clipped to what lies inside") {
  const auto inside = clip_lines({{{-10, 5}, {30, 5}}}, oracle::rectangle(0, 0, 20, 10));
  REQUIRE(inside.size() == 1);
  CHECK(distance(inside[0].front(), inside[0].back()) == Approx(20));
}

TEST_CASE("needless points go, and the outline stays within a micron") {
  Path dense;
  Ring all;
  for (int i = 0; i < 60'000; ++i) {
    const double a = 2 * std::numbers::pi * i / 60'000, r = 40 + 6 * std::sin(9 * a);
    const Point p{r * std::cos(a), r * std::sin(a)};
    all.push_back(p);
    i == 0 ? dense.move(p) : dense.line(p);
  }
  dense.close();
  const Flat flat = flatten(dense, kFlatness, true);
  REQUIRE(flat.closed.size() == 1);
  CHECK(flat.closed[0].size() < 6000);
  Region thin;
  thin.islands.push_back({{flat.closed[0]}});
  const oracle::Distance away(thin);
  double worst = 0;
  for (const Point& p : all) worst = std::max(worst, away.at(p.x, p.y));
  CHECK(worst <= kNeedless * 1.01);
  CHECK(worst > 0.0003);
}

// Against Clipper's own difference.
TEST_CASE("what a region leaves inside its outlines is its filled self less it") {
  std::mt19937 random(7);
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  for (int round = 0; round < 60; ++round) {
    Region region;
    for (int plate = 0; plate < 2; ++plate) {
      const Point at{some(0, 60) + 200 * plate, some(0, 60)};
      double half = 80;
      for (int depth = static_cast<int>(some(1, 6)); depth > 0; --depth, half -= some(3, 14)) {
        const Region box = clean({{{at.x - half, at.y - half},
                                   {at.x + half, at.y - half},
                                   {at.x + half, at.y + half},
                                   {at.x - half, at.y + half}}});
        region = depth % 2 == 0 ? unite(region, box) : subtract(region, box);
        // Small ones beside each other, some of which meet the frame.
        const Point p{at.x + some(-half, half), at.y + some(-half, half)};
        const Region dot = clean({{{p.x, p.y}, {p.x + 5, p.y}, {p.x + 2, p.y + 6}}});
        region = depth % 2 == 0 ? subtract(region, dot) : unite(region, dot);
      }
    }
    std::vector<Ring> outer;
    for (const Island& island : region.islands) outer.push_back(island.rings.front());
    const Region should = subtract(clean(outer), region), is = left_inside(region);
    INFO(round);
    CHECK(area(is) == Approx(area(should)).margin(0.01));
    CHECK(area(subtract(is, grow(should, 0.001))) < 0.01);
  }
}

TEST_CASE("rings that nowhere meet nest as the sweep would have them") {  // Clipper's own union
  std::mt19937 random(77);
  for (const Fill fill : {Fill::NonZero, Fill::EvenOdd}) {
    for (int round = 0; round < 30; ++round) {
      std::vector<Ring> rings;
      std::uniform_int_distribution<int> coin(0, 1);
      for (int k = 0; k < 6; ++k) {  // shells one in the other, and two beside them, turned either way
        Ring ring = oracle::random_ring(random, {k == 5 ? 300.0 : 0.0, 0}, 20 + 15 * (k % 5), 30 + 15 * (k % 5), 12);
        if (coin(random)) std::reverse(ring.begin(), ring.end());
        rings.push_back(std::move(ring));
      }
      std::vector<Ring> touching = rings;
      touching.push_back({{-1000, 0}, {-990, 0}, {-990, 10}, {-1000, 10}});
      touching.push_back({{-990, 0}, {-980, 0}, {-980, 10}, {-990, 10}});  // shares an edge: goes through the sweep
      const Region nested = clean(rings, fill), swept = clean(touching, fill);
      CHECK(area(nested) == Approx(area(swept) - 200).margin(0.01));
      CHECK(nested.islands.size() == swept.islands.size() - 1);
      CHECK(point_count(nested) <= point_count(swept));
    }
  }
}

TEST_CASE("what is jagged all round grows and shrinks by what was asked everywhere, as a plain shape does") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> off(-0.6, 0.6), side(-70, 70);
  // The second and third are grown in strides; the last ones tremble, and lose their teeth first.
  for (const auto& [points, share] : {std::pair{300, 1.0}, {2500, 1.0}, {6000, 1.0}, {6000, 0.1}, {6000, 0.02}}) {
    Ring ring;
    for (int k = 0; k < points; ++k) {
      const double a = 2 * M_PI * k / points, r = 50 + 5 * std::sin(7 * a) + share * off(random);
      ring.push_back({r * std::cos(a), r * std::sin(a)});
    }
    const Region jagged = clean({ring});
    const oracle::Distance to_outline(jagged);
    for (const double mm : {3.0, -3.0, 12.0}) {
      const Region grown = grow(jagged, mm);
      int wrong = 0, looked = 0;
      for (int i = 0; i < 4000; ++i) {
        const Point p{side(random), side(random)};
        const double out = to_outline.at(p.x, p.y) * (contains(jagged, p) ? -1 : 1);
        if (std::abs(out - mm) < 0.02) continue;  // on the new outline itself
        ++looked;
        wrong += contains(grown, p) == (out < mm) ? 0 : 1;
      }
      INFO(points << " points, " << share << ", " << mm << " mm");
      double nearest = 1e9, farthest = 0;
      for (const Island& island : grown.islands) {
        for (const Ring& on : island.rings) {
          for (std::size_t i = 0; i < on.size(); i += 7) {
            const Point middle = (on[i] + on[(i + 1) % on.size()]) * 0.5;
            for (const Point& p : {on[i], middle}) {
              nearest = std::min(nearest, to_outline.at(p.x, p.y));
              farthest = std::max(farthest, to_outline.at(p.x, p.y));
            }
          }
        }
      }
      CHECK(nearest - std::abs(mm) > -0.0065);
      CHECK(farthest - std::abs(mm) < 0.0015);
      CHECK(looked > 3500);
      CHECK(wrong == 0);
    }
  }
}

TEST_CASE("many regions as one are what they are one after the other") {
  std::mt19937 random(6);
  std::uniform_real_distribution<double> at(0, 100), size(2, 20);
  for (const std::size_t count : {0U, 1U, 2U, 3U, 7U, 64U, 101U}) {
    std::vector<Region> many;
    Region one_by_one;
    for (std::size_t i = 0; i < count; ++i) {
      const Point p{at(random), at(random)};
      const double w = size(random), h = size(random);
      many.push_back(i % 5 == 4 ? Region{} : clean({{p, {p.x + w, p.y}, {p.x + w, p.y + h}, {p.x, p.y + h}}}));
      one_by_one = unite(one_by_one, many.back());
    }
    const Region all = united(many);
    CHECK(area(all) == Approx(area(one_by_one)).margin(1e-6));
    CHECK(area(subtract(all, one_by_one)) < 1e-6);
  }
}

TEST_CASE("a board with hundreds of openings, some with islands in them, is nested as GEOS has it") {
  const Geos geos;
  std::vector<Ring> rings{{{0, 0}, {250, 0}, {250, 250}, {0, 250}}};
  std::mt19937 random(8);
  for (int i = 0; i < 400; ++i) {
    const Point middle{6.0 + 12 * (i % 20), 6.0 + 12 * (i / 20)};
    Ring hole = oracle::random_ring(random, middle, 3, 5, 9);
    rings.push_back(hole);
    // Every second ring takes away: an island in every third opening, and a hole in every ninth.
    if (i % 3 == 0)
      rings.push_back({middle + Point{-1, -1}, middle + Point{1, -1}, middle + Point{1, 1}, middle + Point{-1, 1}});
    if (i % 9 == 0)
      rings.push_back(
          {middle + Point{-.5, -.5}, middle + Point{.5, -.5}, middle + Point{.5, .5}, middle + Point{-.5, .5}});
  }
  const Region board = clean(rings, Fill::EvenOdd);
  REQUIRE(board.islands.size() == 1 + 134);
  std::size_t holes = 0;
  for (const Island& island : board.islands) holes += island.rings.size() - 1;
  CHECK(holes == 400 + 45);
  CHECK(Geos::area_of(Geos::polygon(board)) == Approx(area(board)).epsilon(1e-9));
  for (const double mm : {-0.3, 0.2}) {
    const Region grown = grow(board, mm);
    CHECK(Geos::area_of(Geos::polygon(grown)) == Approx(area(grown)).epsilon(1e-9));
    // Islands with a hole in them are frames half a millimetre wide: shrunk by 0.3 all round they are gone.
    CHECK(grown.islands.size() == (mm < 0 ? 1 + 134 - 45 : 1 + 134));
  }
  const Region half = intersect(board, region_of(Box{0, 0, 129, 250}));
  CHECK(Geos::area_of(Geos::polygon(half)) == Approx(area(half)).epsilon(1e-9));
  CHECK(area(half) + area(subtract(board, half)) == Approx(area(board)).epsilon(1e-7));
}

TEST_CASE("an inner point lies well inside, whatever the shape") {
  std::mt19937 random(14);
  for (int kind = 0; kind < 60; ++kind) {
    for (const Island& island : some_shape(random, kind).islands) {
      const Point p = inner_point(island);
      CHECK(contains(island, p));
      CHECK(distance_to_outline({{island}}, p) > 0.02);
    }
  }
}

TEST_CASE("what comes out of outlines may have more points than artwork may") {
  Ring round;
  for (int k = 0; k < 52'000; ++k) {
    const double a = 2 * M_PI * k / 52'000;
    round.push_back({200 * std::cos(a), 200 * std::sin(a)});
  }
  CHECK_THROWS_WITH(clean({round}), Catch::Contains("50,000"));
  const Region disc = tidied({round});
  CHECK(area(disc) == Approx(M_PI * 200 * 200).epsilon(1e-6));
  CHECK(point_count(thinned(disc, 1e-5)) > 100);
}
