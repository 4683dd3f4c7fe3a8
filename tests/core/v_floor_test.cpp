// Floors gone over with a V bit's tip: by places taken at random, what stands is no higher than the ridges asked for,
// no go takes more than the bit takes at once, and the way is no longer than what it makes: by plain geometry, from the
// bit's cone alone (common practice, no source).
#include "v_floors.hpp"

#include <catch2/catch.hpp>
#include <random>

#include "cutting/detours.hpp"
#include "cutting/groove.hpp"
#include "geometry/polyline.hpp"

using namespace doyen;

namespace {

using Leg = std::pair<Point3, Point3>;

std::vector<Leg> legs_of(const std::vector<Pass>& passes) {
  std::vector<Leg> legs;
  for (const Pass& pass : passes) {
    if (pass.points.size() == 1) legs.emplace_back(pass.points[0], pass.points[0]);
    for (std::size_t i = 0; i + 1 < pass.points.size(); ++i) legs.emplace_back(pass.points[i], pass.points[i + 1]);
  }
  return legs;
}

double away(Point p, Point a, Point b) {
  const Point d = b - a;
  const double t = std::clamp(dot(p - a, d) / std::max(1e-12, dot(d, d)), 0.0, 1.0);
  return distance(p, a + d * t);
}

// What a cone whose tip goes along level legs leaves at p.
double left_at(Point p, const std::vector<Leg>& legs, const VFloor& v, double uncut) {
  double z = uncut;
  for (const auto& [a, b] : legs)
    z = std::min(z, a.z + std::max(0.0, away(p, a.flat(), b.flat()) - v.tip / 2) / v.tan_half);
  return z;
}

double turns_sharper_than(double degrees, const std::vector<Pass>& passes) {
  double n = 0;
  for (const Pass& pass : passes) {
    for (std::size_t i = 1; i + 1 < pass.points.size(); ++i) {
      const Point a = pass.points[i].flat() - pass.points[i - 1].flat(),
                  b = pass.points[i + 1].flat() - pass.points[i].flat();
      if (std::abs(std::atan2(cross(a, b), dot(a, b))) * 180 / M_PI > degrees) ++n;
    }
  }
  return n;
}

// A star, or a bar with a hole, or a comb; some of it cleared by discs before.
struct Floor {
  Region region, rest;
};
Floor some_floor(std::mt19937& random, int kind) {
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  Floor out;
  if (kind % 3 == 0) {
    Ring star;
    const int points = 2 * (3 + kind % 4);
    const double inner = some(1, 2.5);
    for (int i = 0; i < points; ++i) {
      const double r = i % 2 == 0 ? some(3, 5) : inner, a = 2 * M_PI * (i + 0.5) / points;
      star.push_back({6 + r * std::cos(a), 6 + r * std::sin(a)});
    }
    out.region = clean({star});
  } else {
    const double w = some(6, 11), h = some(2, 5), lean = some(-1, 1);
    out.region = clean({{{1 + lean, 1}, {1 + w, 1}, {1 + w, 1 + h}, {1, 1 + h}}});
    for (int i = 0; i < kind % 3; ++i) {
      const double x = some(1.5, w), y = some(0.5, h), r = some(0.3, 0.9);
      Ring hole;
      for (int k = 0; k < 24; ++k)
        hole.push_back({x + r * std::cos(2 * M_PI * k / 24), y + r * std::sin(2 * M_PI * k / 24)});
      out.region = subtract(out.region, clean({hole}));
    }
  }
  out.rest = kind % 2 == 0 ? out.region : subtract(out.region, grow(grow(out.region, -0.8), 0.79));
  return out;
}

}  // namespace

TEST_CASE("floors under a V's tip: no ridge is higher than asked, nor does any go take more than the bit may") {
  std::mt19937 random(31);
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  for (int round = 0; round < 24; ++round) {
    const Floor floor = some_floor(random, round);
    VFloor v{.tan_half = std::tan(some(15, 45) * M_PI / 180),
             .tip = round % 4 == 1 ? some(0.1, 0.4) : 0.0,
             .floor = -some(1, 6),
             .ridge = some(0.05, 0.12),
             .step = round % 3 == 0 ? 0.0 : some(1, 3),
             .edge_done = round % 2 == 1};
    INFO("round " << round << ": ridge " << v.ridge << ", floor " << v.floor << ", step " << v.step);
    const std::vector<std::vector<Pass>> goes = tidied(floor.region, floor.rest, v);
    REQUIRE(!goes.empty());
    const Region loose = grow(floor.region, 0.004);
    std::vector<Leg> legs;
    std::vector<double> before;
    std::vector<Point> places;
    const Box box = bounds(floor.rest);
    while (places.size() < 1500) {
      const Point p{some(box.left, box.right), some(box.bottom, box.top)};
      if (contains(floor.rest, p)) places.push_back(p);
    }
    before.resize(places.size(), v.ground);
    for (std::size_t go = 0; go < goes.size(); ++go) {
      std::vector<Leg> now = legs_of(goes[go]);
      for (const auto& [a, b] : now) {
        REQUIRE(a.z == Approx(v.ground +
                              (v.floor - v.ground) * static_cast<double>(go + 1) / static_cast<double>(goes.size())));
        REQUIRE(b.z == a.z);
        REQUIRE(contains(loose, a.flat()));
      }
      if (v.edge_done) {  // as the groove's own way does, at each depth
        for (const Island& island : floor.region.islands) {
          for (const Ring& ring : island.rings) {
            for (std::size_t i = 0; i < ring.size(); ++i) {
              const Point a = ring[i], b = ring[(i + 1) % ring.size()];
              now.push_back({{a.x, a.y, now.front().first.z}, {b.x, b.y, now.front().first.z}});
            }
          }
        }
      }
      double worst = 0, took = 0;
      Point worst_at, took_at;
      for (std::size_t k = 0; k < places.size(); ++k) {
        const double z = std::min(before[k], left_at(places[k], now, v, v.ground));
        if (go + 1 == goes.size() && z - v.floor > worst) {
          worst = z - v.floor;
          worst_at = places[k];
        }
        // Along the edge the cone leans on the wall; farther in, all that it takes stood over the go before.
        if (before[k] - now.front().first.z > took) {
          took = before[k] - now.front().first.z;
          took_at = places[k];
        }
        before[k] = z;
      }
      INFO("the worst place " << worst_at.x << ", " << worst_at.y);
      if (go + 1 == goes.size()) CHECK(worst <= v.ridge + 0.003);
      INFO("the deepest taken at " << took_at.x << ", " << took_at.y << " in go " << go);
      if (v.step > 0) CHECK(took <= v.step + 0.01);
    }
  }
}

TEST_CASE(
    "the way over a floor under a V's tip is hardly longer than its rows, and turns hardly oftener than they do") {
  // A triangle with sides of 6 mm, its edge gone round before: rings 0.055 mm apart, with three corners each, and one
  // line through each corner.
  const double side = 6, height = side * std::sqrt(3.0) / 2;
  const Region triangle = clean({{{0, 0}, {side, 0}, {side / 2, height}}});
  const VFloor v{.tan_half = std::tan(M_PI / 6), .floor = -3, .ridge = 0.05, .edge_done = true};
  const std::vector<Pass> passes = tidied(triangle, triangle, v).front();
  const double step = 2 * v.ridge * v.tan_half, rings = height / 3 / step;
  CHECK(passes.size() == 1);
  CHECK(path_length(passes) <= 1.06 * (side * height / 2 / step) + 3 * (2 * height / 3) + 10 * step * rings);
  CHECK(turns_sharper_than(60, passes) <= 1.07 * (3 + 2) * rings + 20);
  // And a plain strip: no line twice between its rings.
  const Region strip = clean({{{0, 0}, {30, 0.2}, {30, 2.2}, {0, 2}}});
  CHECK(path_length(tidied(strip, strip, v).front()) <= 1.12 * area(strip) / step);
}

TEST_CASE("only the last go over a deep floor is fine: the others are as coarse as the bit allows") {
  const Region bar = clean({{{0, 0}, {20, 0}, {20, 3}, {0, 3}}});
  VFloor v{.tan_half = std::tan(M_PI / 6), .floor = -6, .ridge = 0.05, .step = 2.5};
  const std::vector<std::vector<Pass>> goes = tidied(bar, bar, v);
  REQUIRE(goes.size() == 3);
  CHECK(path_length(goes[0]) < 0.25 * path_length(goes[2]));
  CHECK(path_length(goes[1]) < 0.25 * path_length(goes[2]));
  // Where whole steps would leave nothing for the ridges there is one go more, not a deeper one.
  v.step = 2;
  CHECK(tidied(bar, bar, v).size() == 4);
}

TEST_CASE("what lies beside a way is done on that way: all of it, by short ways that cross no edge") {
  std::mt19937 random(8);
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  for (int round = 0; round < 40; ++round) {
    INFO("round " << round);
    // A ring round a square with a wall across part of it, and short lines anywhere.
    const Region room =
        subtract(clean({{{-2, -2}, {32, -2}, {32, 32}, {-2, 32}}}), clean({{{10, 5}, {11, 5}, {11, 27}, {10, 27}}}));
    const KeepAway edges(room, 1e-6);
    std::vector<Pass> passes{{{{0, 0, -2}, {30, 0, -2}, {30, 30, -2}, {0, 30, -2}, {0, 0, -2}}},
                             {{{5, 15, -1}, {15, 5, -1}}}};
    std::vector<Pass> aside;
    for (int i = 0; i < 9; ++i) {
      Pass& one = aside.emplace_back();
      const Point3 p{some(0, 30), some(0, 30), -2};
      one.points = {p};
      for (int k = 0; k < 3; ++k) {
        const Point3& last = one.points.back();
        one.points.push_back({last.x + some(-3, 3), last.y + some(-3, 3), -2});
      }
    }
    const double farthest = some(2, 14);
    const Detours done = with_detours(passes, aside, edges, farthest);
    REQUIRE(done.passes.size() == 2);
    std::size_t gone = 0;
    std::vector<Leg> walked = legs_of(done.passes);
    const auto goes_along = [&](const Point3& a, const Point3& b) {
      for (double t = 0; t <= 1; t += 0.05) {
        const Point p = a.flat() + (b.flat() - a.flat()) * t;
        REQUIRE(std::any_of(walked.begin(), walked.end(), [&](const Leg& leg) {
          return leg.first.z == a.z && away(p, leg.first.flat(), leg.second.flat()) < 1e-9;
        }));
      }
    };
    for (const Pass& one : aside) {
      const bool still = std::any_of(done.left.begin(), done.left.end(), [&](const Pass& left) {
        return left.points == one.points ||
               std::equal(one.points.begin(), one.points.end(), left.points.rbegin(), left.points.rend());
      });
      if (still) continue;
      ++gone;
      for (std::size_t i = 0; i + 1 < one.points.size(); ++i) goes_along(one.points[i], one.points[i + 1]);
    }
    CHECK(gone + done.left.size() == aside.size());
    // What was gone along before still is: every place of the old way lies on the new one.
    for (const auto& [a, b] : legs_of(passes)) goes_along(a, b);
    // No new way is longer than said, nor goes through the wall.
    std::vector<Leg> old = legs_of(passes);
    for (const Leg& leg : legs_of(aside)) old.push_back(leg);
    for (const Leg& leg_walked : walked) {
      const Point3 a = leg_walked.first, b = leg_walked.second;
      if (std::any_of(old.begin(), old.end(), [&](const Leg& leg) {
            const Point p = leg.first.flat(), q = leg.second.flat();
            return away(a.flat(), p, q) < 1e-9 && away(b.flat(), p, q) < 1e-9;
          }))
        continue;
      CHECK(distance(a, b) <= farthest + 1e-9);
      CHECK(edges.keeps(a.flat(), b.flat()));
    }
  }
}

TEST_CASE("where a deep way goes up into what is done and comes back, the bit stays down") {
  // A stem with two branches that end in corners, in two goes: the branches' shallow ends are done with the first.
  const std::vector<Pass> way{
      {{{0, 0, 0}, {10, 0, -6}, {10, 5, 0}, {10, 0, -6}, {20, 0, -6}, {20, 5, 0}, {20, 0, -6}, {30, 0, 0}}}};
  const std::vector<Pass> goes = in_levels(way, 0, 3);
  REQUIRE(goes.size() == 2);
  CHECK(deepest({goes[0]}) == Approx(-3));
  CHECK(deepest({goes[1]}) == Approx(-6));
  for (const Point3& p : goes[1].points) CHECK(p.z <= -3 + 1e-9);
}
