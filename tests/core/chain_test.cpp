// Lines chained so that the bit stays down: each is followed once and whole, and what joins them stays inside, by GEOS.
#include "cutting/chain.hpp"

#include <geos_c.h>

#include <catch2/catch.hpp>
#include <map>
#include <random>

#include "made_pieces.hpp"
#include "v_floors.hpp"

using namespace doyen;

namespace {

struct WaysByGeos {
  GEOSContextHandle_t handle = GEOS_init_r();
  ~WaysByGeos() { GEOS_finish_r(handle); }
  GEOSGeometry* ring(const Ring& points) const {
    GEOSCoordSequence* s = GEOSCoordSeq_create_r(handle, static_cast<unsigned>(points.size() + 1), 2);
    for (std::size_t i = 0; i <= points.size(); ++i)
      GEOSCoordSeq_setXY_r(handle, s, static_cast<unsigned>(i), points[i % points.size()].x,
                           points[i % points.size()].y);
    return GEOSGeom_createLinearRing_r(handle, s);
  }
  GEOSGeometry* area_of(const Island& island) const {
    std::vector<GEOSGeometry*> holes;
    for (std::size_t i = 1; i < island.rings.size(); ++i) holes.push_back(ring(island.rings[i]));
    return GEOSGeom_createPolygon_r(handle, ring(island.rings[0]), holes.data(), static_cast<unsigned>(holes.size()));
  }
  bool way_inside(const Region& region, Point a, Point b) const {
    GEOSCoordSequence* s = GEOSCoordSeq_create_r(handle, 2, 2);
    GEOSCoordSeq_setXY_r(handle, s, 0, a.x, a.y);
    GEOSCoordSeq_setXY_r(handle, s, 1, b.x, b.y);
    GEOSGeometry* line = GEOSGeom_createLineString_r(handle, s);
    bool inside = false;
    for (const Island& island : region.islands) {
      GEOSGeometry* area = area_of(island);
      inside = inside || GEOSCovers_r(handle, area, line) == 1;
      GEOSGeom_destroy_r(handle, area);
    }
    GEOSGeom_destroy_r(handle, line);
    return inside;
  }
};

using Leg = std::pair<std::pair<double, double>, std::pair<double, double>>;

Leg leg(Point a, Point b) {
  const std::pair one{a.x, a.y}, two{b.x, b.y};
  return one < two ? Leg{one, two} : Leg{two, one};
}

std::map<Leg, int> legs_of(const std::vector<Line2>& lines) {
  std::map<Leg, int> legs;
  for (const Line2& line : lines) {
    for (std::size_t i = 0; i + 1 < line.size(); ++i) ++legs[leg(line[i], line[i + 1])];
  }
  return legs;
}

}  // namespace

TEST_CASE("chained lines are all there, once and whole; what joins them is short and stays inside") {
  std::mt19937 random(5);
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  const WaysByGeos geos;
  for (int round = 0; round < 40; ++round) {
    INFO("round " << round);
    // A field with letters' worth of holes in it, and rows over it.
    Region field{{Island{{{{0, 0}, {120, 0}, {120, 60}, {0, 60}}}}}};
    for (int i = 0; i < 7; ++i) {
      const double x = some(5, 100), y = some(5, 45), w = some(2, 14), h = some(2, 12);
      field = subtract(field, Region{{Island{{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}}}}});
    }
    const double step = some(0.8, 3), farthest = some(2, 20);
    std::vector<Line2> lines = hatch(field, step, {}, some(0, 90));
    const std::size_t rows = lines.size();
    for (const Island& island : field.islands) {
      for (const Ring& ring : island.rings) {
        Line2 closed = ring;
        closed.push_back(ring.front());
        lines.push_back(closed);
      }
    }
    const std::map<Leg, int> wanted = legs_of(lines);
    const std::vector<Line2> chains = chained(lines, field, farthest);
    if (farthest > 4 * step) CHECK(chains.size() < rows / 4 + field.islands.size() + 8);
    std::map<Leg, int> walked = legs_of(chains);
    for (const auto& [one, times] : wanted) {
      REQUIRE(walked[one] >= times);
      walked[one] -= times;
    }
    const Region loose = grow(field, 0.01);
    for (const auto& [one, times] : walked) {
      if (times == 0) continue;
      const Point a{one.first.first, one.first.second}, b{one.second.first, one.second.second};
      REQUIRE(distance(a, b) <= farthest + 1e-9);
      REQUIRE(geos.way_inside(loose, a, b));
    }
  }
}

TEST_CASE("round letters that stand a V goes over the ground with few lifts, and all of it") {
  // A ground with nine posts in it, tidied everywhere. Swept, by what the V's tip takes at the ridge: no place of it is
  // farther from the bit's way than half a row.
  Region ground{{Island{{{{0, 0}, {60, 0}, {60, 40}, {0, 40}}}}}};
  for (int i = 0; i < 9; ++i) {
    const double x = 8 + 18 * (i % 3), y = 6 + 12 * (i / 3);
    ground = subtract(ground, Region{{Island{{{{x, y}, {x + 6, y}, {x + 6, y + 5}, {x, y + 5}}}}}});
  }
  const double ridge = 0.4, tan_half = std::tan(M_PI / 6);
  const std::vector<Pass> passes = tidied(ground, ground, {tan_half, 0, 0, -3, ridge}).front();
  CHECK(passes.size() <= 5);
  std::vector<std::pair<Point, Point>> legs;
  for (const Pass& pass : passes) {
    for (std::size_t i = 0; i + 1 < pass.points.size(); ++i)
      legs.emplace_back(pass.points[i].flat(), pass.points[i + 1].flat());
  }
  const auto away = [&](Point p) {
    double least = 1e300;
    for (const auto& [a, b] : legs) {
      const Point d = b - a;
      const double t = std::clamp(dot(p - a, d) / std::max(1e-12, dot(d, d)), 0.0, 1.0);
      least = std::min(least, distance(p, a + d * t));
    }
    return least;
  };
  const double step = 2 * ridge * tan_half;
  for (double x = 0.3; x < 60; x += 0.7) {
    for (double y = 0.3; y < 40; y += 0.7) {
      if (contains(ground, {x, y})) REQUIRE(away({x, y}) <= step / 2 + 0.03);
    }
  }
}
