#include "cutting/detours.hpp"

#include <algorithm>
#include <cmath>

#include "cancel.hpp"

namespace doyen {
namespace {

constexpr double kLevel = 1e-6;  // mm: heights that are the same

struct Leave {
  std::size_t pass = 0, point = 0;  // on the way from this point to the next
  Point3 at;
};

// The ways of passes, by blocks of neighbours: those that lie too far off are passed over at once.
class Ways {
 public:
  explicit Ways(const std::vector<Pass>& passes) : passes_(passes), blocks_(passes.size()) {
    for (std::size_t p = 0; p < passes.size(); ++p) changed(p);
  }
  void changed(std::size_t p) {
    constexpr std::size_t kBlock = 32;
    const std::vector<Point3>& points = passes_[p].points;
    blocks_[p].clear();
    for (std::size_t i = 0; i + 1 < points.size(); i += kBlock) {
      Block& block = blocks_[p].emplace_back(Block{i, std::min(points.size() - 1, i + kBlock), {}});
      for (std::size_t k = block.begin; k <= block.end; ++k) block.box.add(points[k].flat());
    }
  }
  // The nearest place to `from`, at its height, of those passes that may be left, no farther than that.
  template <typename May>
  bool nearest(const Point3& from, double farthest, May may, Leave& found) const {
    const Point place = from.flat();
    double least = farthest * farthest + kLevel;
    bool any = false;
    for (std::size_t p = 0; p < passes_.size(); ++p) {
      if (!may(p)) continue;
      const std::vector<Point3>& points = passes_[p].points;
      for (const Block& block : blocks_[p]) {
        if (squared(block.box, place) >= least) continue;
        for (std::size_t i = block.begin; i < block.end; ++i) {
          if (std::abs(points[i].z - from.z) >= kLevel || std::abs(points[i + 1].z - from.z) >= kLevel) continue;
          const Point a = points[i].flat(), b = points[i + 1].flat();
          const Point q = a + (b - a) * nearest_share(place, a, b);
          const double away = dot(q - place, q - place);
          if (away >= least) continue;
          least = away;
          found = {p, i, {q.x, q.y, from.z}};
          any = true;
        }
      }
    }
    return any;
  }

 private:
  struct Block {
    std::size_t begin, end;  // from point to point
    Box box;
  };
  static double squared(const Box& box, Point p) {
    const double x = std::max({box.left - p.x, p.x - box.right, 0.0}),
                 y = std::max({box.bottom - p.y, p.y - box.top, 0.0});
    return x * x + y * y;
  }
  const std::vector<Pass>& passes_;
  std::vector<std::vector<Block>> blocks_;  // of each pass
};

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
  Ways ways(passes);
  const auto closed = [&](std::size_t p) {
    const std::vector<Point3>& points = passes[p].points;
    return points.size() > 2 && points.front() == points.back();
  };
  std::vector<Pass> alone;
  for (Pass& one : left) {
    Cancel::check_here();
    Leave leave, other;
    const bool front = ways.nearest(one.points.front(), farthest, closed, leave);
    const bool back = ways.nearest(one.points.back(), farthest, closed, other);
    if (back && (!front || distance(other.at, one.points.back()) < distance(leave.at, one.points.front()))) {
      std::reverse(one.points.begin(), one.points.end());
      leave = other;
    }
    if (!(front || back) || !edges.keeps(leave.at.flat(), one.points.front().flat())) {
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
    ways.changed(leave.pass);
  }
  left = std::move(alone);
}

}  // namespace

Detours with_detours(std::vector<Pass> passes, std::vector<Pass> aside, const KeepAway& edges, double farthest) {
  const Ways ways(passes);
  std::vector<std::vector<Detour>> of_pass(passes.size());
  Detours out;
  for (Pass& one : aside) {
    Cancel::check_here();
    std::vector<Point3> points = one.points;
    Leave best;
    double least = farthest;
    bool found = false, turned = false;
    // From where it begins, or from where it ends: the other end is then where it comes back from.
    for (const bool back : {false, true}) {
      const Point3& first = back ? points.back() : points.front();
      const Point3& last = back ? points.front() : points.back();
      Leave leave;
      if (!ways.nearest(
              first, farthest, [](std::size_t) { return true; }, leave))
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
