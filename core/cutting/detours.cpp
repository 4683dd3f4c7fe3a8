#include "cutting/detours.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

constexpr double kLevel = 1e-6;  // mm: heights that are the same

struct Leave {
  std::size_t pass = 0, point = 0;  // on the way from this point to the next
  Point3 at;
};

bool level_at(const Pass& pass, std::size_t i, double z) {
  return i + 1 < pass.points.size() && std::abs(pass.points[i].z - z) < kLevel &&
         std::abs(pass.points[i + 1].z - z) < kLevel;
}

// The nearest place of the passes to `from`, at its height.
template <typename May>
bool nearest_leave(const std::vector<Pass>& passes, const Point3& from, May may, Leave& found) {
  double least = 1e300;
  for (std::size_t p = 0; p < passes.size(); ++p) {
    if (!may(p)) continue;
    const std::vector<Point3>& points = passes[p].points;
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
      if (!level_at(passes[p], i, from.z)) continue;
      const Point a = points[i].flat(), b = points[i + 1].flat();
      const Point q = a + (b - a) * nearest_share(from.flat(), a, b);
      const double away = distance(q, from.flat());
      if (away >= least) continue;
      least = away;
      found.pass = p;
      found.point = i;
      found.at = {q.x, q.y, from.z};
    }
  }
  return least < 1e300;
}

struct Detour {
  Leave leave;
  std::vector<Point3> points;
};

// The way with its detours, each where it leaves.
std::vector<Point3> woven(const std::vector<Point3>& way, std::vector<Detour> detours) {
  const auto along = [&](const Detour& d) { return distance(way[d.leave.point], d.leave.at); };
  std::stable_sort(detours.begin(), detours.end(), [&](const Detour& a, const Detour& b) {
    return a.leave.point != b.leave.point ? a.leave.point < b.leave.point : along(a) < along(b);
  });
  std::vector<Point3> out;
  const auto add = [&](const Point3& q) {
    if (out.empty() || !(out.back() == q)) out.push_back(q);
  };
  auto next = detours.begin();
  for (std::size_t i = 0; i < way.size(); ++i) {
    add(way[i]);
    for (; next != detours.end() && next->leave.point == i; ++next) {
      add(next->leave.at);
      for (const Point3& q : next->points) add(q);
      add(next->leave.at);
    }
  }
  return out;
}

// A closed way may begin anywhere: it ends where one of `left` is near, and goes on along that.
void go_on_from_closed(std::vector<Pass>& passes, std::vector<Pass>& left, const KeepAway& edges, double farthest) {
  const auto closed = [&](std::size_t p) {
    const std::vector<Point3>& points = passes[p].points;
    return points.size() > 2 && points.front() == points.back();
  };
  std::vector<Pass> alone;
  for (Pass& one : left) {
    Leave leave, other;
    const bool front = nearest_leave(passes, one.points.front(), closed, leave);
    const bool back = nearest_leave(passes, one.points.back(), closed, other);
    if (back && (!front || distance(other.at, one.points.back()) < distance(leave.at, one.points.front()))) {
      std::reverse(one.points.begin(), one.points.end());
      leave = other;
    }
    if (!(front || back) || distance(leave.at, one.points.front()) > farthest ||
        !edges.keeps(leave.at.flat(), one.points.front().flat())) {
      alone.push_back(std::move(one));
      continue;
    }
    std::vector<Point3>& way = passes[leave.pass].points;
    std::vector<Point3> turned;
    const auto add = [&](const Point3& q) {
      if (turned.empty() || !(turned.back() == q)) turned.push_back(q);
    };
    add(leave.at);
    for (std::size_t k = 1; k < way.size(); ++k) add(way[(leave.point + k) % (way.size() - 1)]);
    add(leave.at);
    for (const Point3& q : one.points) add(q);
    way = std::move(turned);
  }
  left = std::move(alone);
}

}  // namespace

Detours with_detours(std::vector<Pass> passes, std::vector<Pass> aside, const KeepAway& edges, double farthest) {
  std::vector<std::vector<Detour>> of_pass(passes.size());
  Detours out;
  for (Pass& one : aside) {
    std::vector<Point3> points = one.points;
    Leave best;
    double least = farthest;
    bool found = false, turned = false;
    // From where it begins, or from where it ends: the other end is then where it comes back from.
    for (const bool back : {false, true}) {
      const Point3& first = back ? points.back() : points.front();
      const Point3& last = back ? points.front() : points.back();
      Leave leave;
      if (!nearest_leave(
              passes, first, [](std::size_t) { return true; }, leave))
        continue;
      const double way = distance(leave.at, first) + distance(last, leave.at);
      if (way > least || !edges.keeps(leave.at.flat(), first.flat()) || !edges.keeps(last.flat(), leave.at.flat()))
        continue;
      least = way;
      best = leave;
      found = true;
      turned = back;
    }
    if (!found) {
      out.left.push_back(std::move(one));
      continue;
    }
    if (turned) std::reverse(points.begin(), points.end());
    of_pass[best.pass].push_back({best, std::move(points)});
  }
  for (std::size_t p = 0; p < passes.size(); ++p) {
    if (!of_pass[p].empty()) passes[p].points = woven(passes[p].points, std::move(of_pass[p]));
  }
  go_on_from_closed(passes, out.left, edges, farthest);
  out.passes = std::move(passes);
  return out;
}

}  // namespace doyen
