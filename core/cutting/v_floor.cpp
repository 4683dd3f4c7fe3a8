#include "cutting/v_floor.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

#include "cutting/axis_walk.hpp"
#include "cutting/chain.hpp"
#include "cutting/detours.hpp"
#include "cutting/keep_away.hpp"
#include "cutting/rings.hpp"
#include "geometry/polyline.hpp"
#include "measure/whole.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

constexpr double kTiny = 0.01;  // mm²: rests smaller than this are dust
// of a step: so much nearer than the ridges ask do rings lie, for what is just out of reach in corners and by rounding
constexpr double kSpare = 0.03;

// The middle of the least disc that holds the points, near enough: step by step towards the farthest of them
// (M. Bădoiu, K. L. Clarkson, Smaller core-sets for balls, 2003).
Point middle_of(const Ring& ring) {
  const Box box = bounds(ring);
  Point middle{(box.left + box.right) / 2, (box.bottom + box.top) / 2};
  for (int k = 2; k < 40; ++k) {
    const Point farthest = *std::max_element(
        ring.begin(), ring.end(), [&](Point a, Point b) { return distance(a, middle) < distance(b, middle); });
    middle = middle + (farthest - middle) * (1.0 / k);
  }
  return middle;
}

// The lines along what lies between rings, farther than `reach` mm from each: in corners, where rings stand farther
// apart, and in the middle of narrow places. From ring to ring they go on as one, so that a corner is gone through
// once.
class Between {
 public:
  Between(const Island& part, const std::vector<Region>& shells, double step)
      : step_(step), reach_((0.5 + kSpare) * step), walls_(grow(Region{{part}}, 0.002), 1e-6) {
    for (std::size_t k = 0; k < shells.size(); ++k) {
      const Region deep = grow(shells[k], -reach_);
      if (deep.empty()) continue;
      const Region left = k + 1 < shells.size() ? subtract(deep, grow(shells[k + 1], reach_)) : deep;
      std::vector<Line2> found;
      for (const Island& crumb : left.islands) {
        if (area(Region{{crumb}}) >= 1e-3 * step * step) add_middle(crumb, found);
      }
      go_on(std::move(found), k);
    }
  }
  std::vector<Line2> lines() && {
    for (Line2& line : lines_) {
      line = thinned(line, 0.02 * step_);
      if (line.size() == 1)
        line.push_back(line.front() + Point{0.02 * step_, 0});  // a line for what cuts and joins lines
    }
    return std::move(lines_);
  }

 private:
  // A bit that goes along these lines comes within reach of all of the crumb.
  void add_middle(const Island& crumb, std::vector<Line2>& out) const {
    const Ring& ring = crumb.rings.front();
    const Point middle = middle_of(ring);
    if (std::all_of(ring.begin(), ring.end(), [&](Point p) { return distance(p, middle) <= reach_; })) {
      out.push_back({middle});
      return;
    }
    IslandGroove groove;
    try {
      groove.axis = medial_axis(crumb);
    } catch (const Problem&) {  // it touches itself: then round it
      for (const Ring& one : crumb.rings) out.push_back(closed_line(one));
      return;
    }
    AxisWalk walk(groove.axis, GrooveShape{});
    walk.peel_within(reach_);
    walk.chain(groove);
    for (const Pass& pass : groove.passes) {
      Line2& line = out.emplace_back();
      for (const Point3& p : pass.points) line.push_back(p.flat() + groove.axis.origin);
    }
  }
  // Each line that ended between the two rings before goes on where it is near; else a line begins.
  void go_on(std::vector<Line2> found, std::size_t shell) {
    const double farthest = 4 * step_;
    std::vector<Open> open;
    for (Line2& line : found) {
      double least = farthest;
      std::size_t best = open_.size();
      bool turned = false;
      for (std::size_t i = 0; i < open_.size(); ++i) {
        if (open_[i].shell + 1 != shell) continue;
        const Point end = lines_[open_[i].line].back();
        for (const bool back : {false, true}) {
          const double away = distance(end, back ? line.back() : line.front());
          if (away >= least) continue;
          least = away;
          best = i;
          turned = back;
        }
      }
      if (turned) std::reverse(line.begin(), line.end());
      if (best == open_.size() || !walls_.keeps(lines_[open_[best].line].back(), line.front())) {
        open.push_back({lines_.size(), shell});
        lines_.push_back(std::move(line));
        continue;
      }
      Line2& longer = lines_[open_[best].line];
      longer.insert(longer.end(), line.begin(), line.end());
      open.push_back({open_[best].line, shell});
      open_[best].shell = shell;  // taken
    }
    open_ = std::move(open);
  }

  struct Open {
    std::size_t line, shell;  // which line, and between which ring and the next it ends
  };
  double step_, reach_;
  KeepAway walls_;
  std::vector<Line2> lines_;
  std::vector<Open> open_;
};

// Part of a floor with the rests in it, and how far from its walls they reach, mm.
struct Room {
  Island part;
  Region rest;
  double deepest = 0;
};

// How far from the walls the farthest of the points lies, mm, to the next power of two.
double farthest_from(const Region& walls, const Region& rest) {
  double away = 0.5;
  for (; away < 1e4; away *= 2) {
    const KeepAway edges(walls, away);
    const bool all_near = std::all_of(rest.islands.begin(), rest.islands.end(), [&](const Island& island) {
      return std::none_of(island.rings.front().begin(), island.rings.front().end(),
                          [&](Point p) { return edges.keeps(p); });
    });
    if (all_near) break;
  }
  return away;
}

// Only the surroundings of what is left: a ground that a larger bit has cleared is not drawn in all over for its
// corners.
void add_rooms(const Island& part, const Region& rest, double step, std::vector<Room>& out) {
  const Region own{{part}}, left = intersect(own, rest);
  if (left.empty()) return;
  const double walls = farthest_from(own, left);
  std::vector<Ring> near;
  std::vector<double> deepest;
  for (const Island& patch : left.islands) {
    const Box box = bounds(patch);
    deepest.push_back(walls + std::min(box.right - box.left, box.top - box.bottom) + step);
    // What is drawn in from the sides of this box does not come to the patch.
    const Box wide = box.grown(deepest.back() + 2 * step);
    near.push_back(
        {{wide.left, wide.bottom}, {wide.right, wide.bottom}, {wide.right, wide.top}, {wide.left, wide.top}});
  }
  for (const Island& room : intersect(own, clean(near)).islands) {
    Room& one = out.emplace_back(Room{room, {}});
    const Box box = bounds(room);
    for (std::size_t i = 0; i < left.islands.size(); ++i) {
      if (!bounds(left.islands[i]).meets(box)) continue;
      one.rest.islands.push_back(left.islands[i]);
      one.deepest = std::max(one.deepest, deepest[i]);
    }
    if (one.rest.empty()) out.pop_back();
  }
}

std::vector<Line2> lines_over(const Room& room, double step, bool edge_done, const Cancel& cancel) {
  // Rings follow narrow floors with few lifts, and what larger bits left along walls; in a floor hundreds of rings wide
  // straight rows do.
  const Region near_rest = grow(room.rest, step);
  double outline = 0, all = 0;
  for (const Island& island : room.rest.islands) {
    for (const Ring& ring : island.rings) outline += ring_length(ring);
    all += area(Region{{island}});
  }
  if (std::sqrt(all) > 400 * step || 2 * all / outline > 50 * step)
    return hatch(intersect(Region{{room.part}}, near_rest), step, cancel);
  const double apart = step / (1 + 2 * kSpare);
  const std::vector<Region> shells = shells_of(room.part, apart, cancel, room.deepest);
  std::vector<Line2> found = rings_inside_out(shells, edge_done ? 1 : 0);
  for (Line2& line : Between(room.part, shells, apart).lines()) found.push_back(std::move(line));
  return clip_lines(found, near_rest);
}

// One part's lines as passes: with the bit down from one to the next, and on the longest of them for what is near it.
std::vector<Pass> joined(std::vector<Line2> lines, const Island& part, double z, const Cancel& cancel) {
  const Region own{{part}};
  std::vector<Pass> out;
  std::size_t points = 0;
  for (const Line2& line : chained(std::move(lines), own, kStaysDown, cancel)) {
    Pass& pass = out.emplace_back();
    for (const Point& p : line) {
      const Point3 q{p.x, p.y, z};
      if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
    }
    points = std::max(points, pass.points.size());
  }
  constexpr std::size_t kMostLooked = 200'000'000;  // points that are looked at at most: a second
  if (out.size() < 2 || out.size() * out.size() * points > kMostLooked) return out;
  std::stable_sort(out.begin(), out.end(),
                   [](const Pass& a, const Pass& b) { return path_length(a) > path_length(b); });
  const KeepAway edges(grow(own, 0.002), 1e-6);
  Detours done{{}, std::move(out)};
  while (!done.left.empty()) {
    cancel.check();
    const std::size_t before = done.left.size();
    if (!done.passes.empty()) done = with_detours(std::move(done.passes), std::move(done.left), edges, kStaysDown);
    if (done.left.size() < before) continue;
    done.passes.push_back(std::move(done.left.front()));
    done.left.erase(done.left.begin());
  }
  return std::move(done.passes);
}

std::vector<Pass> at_one_height(const Region& region, const Region& rest, double step, double z, bool edge_done,
                                const Cancel& cancel) {
  const Box near_rest = bounds(rest).grown(step);
  std::vector<std::vector<Pass>> found(region.islands.size());
  tbb::parallel_for(std::size_t{0}, region.islands.size(), [&](std::size_t i) {
    const Island& part = region.islands[i];
    if (!bounds(part).meets(near_rest)) return;
    const Cancel::Scope stops(cancel);
    std::vector<Room> rooms;
    add_rooms(part, rest, step, rooms);
    std::vector<std::vector<Line2>> of_room(rooms.size());
    tbb::parallel_for(std::size_t{0}, rooms.size(), [&](std::size_t k) {
      cancel.check();
      const Cancel::Scope room_stops(cancel);
      of_room[k] = lines_over(rooms[k], step, edge_done, cancel);
    });
    std::vector<Line2> lines;
    for (std::vector<Line2>& some : of_room)
      lines.insert(lines.end(), std::make_move_iterator(some.begin()), std::make_move_iterator(some.end()));
    found[i] = joined(std::move(lines), part, z, cancel);
  });
  std::vector<Pass> out;
  for (std::vector<Pass>& some : found)
    out.insert(out.end(), std::make_move_iterator(some.begin()), std::make_move_iterator(some.end()));
  return out;
}

}  // namespace

std::vector<std::vector<Pass>> tidy_floor_with_v(const Region& region, const Region& rest, const VFloor& v,
                                                 const Cancel& cancel) {
  if (area(rest) < kTiny) return {};
  const auto apart = [&](double ridge) { return std::max(0.008, 2 * ridge * v.tan_half + 0.9 * v.tip); };
  const double depth = v.ground - v.floor;
  int levels = 1;
  if (v.step > 0 && depth > v.step * 1.0001) {
    levels = whole_up(depth / v.step - 1e-9, 1, 100'000);
    // Ridges of the goes above are taken by the next one on top of its own depth.
    if (v.step - depth / levels < 0.1 * v.step) ++levels;
  }
  std::vector<std::vector<Pass>> out;
  for (int level = 1; level <= levels; ++level) {
    cancel.check();
    const double ridge = level == levels ? v.ridge : std::max(v.ridge, v.step - depth / levels);
    const double z = v.ground - depth * level / levels;
    out.push_back(at_one_height(region, rest, apart(ridge), z, v.edge_done, cancel));
  }
  return out;
}

}  // namespace doyen
