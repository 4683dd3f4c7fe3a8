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
      Cancel::check_here();
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

// Part of a floor with the rests in it.
struct Room {
  Island part;
  Region rest;
};

// About how far from the walls the rest reaches, mm.
double farthest_from(const Region& walls, const Region& rest) {
  double away = 0.5;
  for (; away < 1e4; away *= 2) {
    Cancel::check_here();
    const KeepAway edges(walls, away);
    const bool all_near = std::all_of(rest.islands.begin(), rest.islands.end(), [&](const Island& island) {
      return std::none_of(island.rings.front().begin(), island.rings.front().end(),
                          [&](Point p) { return edges.keeps(p); });
    });
    if (all_near) break;
  }
  return away;
}

Point inside_of(const Island& island) {
  const Region own{{island}};
  const Ring& ring = island.rings.front();
  for (std::size_t i = 0; i < ring.size(); ++i) {
    const Point a = ring[i], along = ring[(i + 1) % ring.size()] - a;
    const double mm = length(along);
    if (mm < 0.002) continue;
    const Point p = a + along * 0.5 + Point{-along.y, along.x} * (std::min(0.003, mm / 4) / mm);
    if (contains(own, p)) return p;
  }
  return ring.front();
}

// Which of the rests lie in which part of the floor: each lies in one alone.
std::vector<Region> rests_by_part(const Region& floor, const Region& rest) {
  std::vector<Box> boxes;
  for (const Island& part : floor.islands) boxes.push_back(bounds(part).grown(0.001));
  std::vector<Region> out(floor.islands.size());
  for (const Island& patch : rest.islands) {
    Cancel::check_here();
    const Box box = bounds(patch);
    std::vector<std::size_t> may;
    for (std::size_t i = 0; i < boxes.size(); ++i) {
      if (boxes[i].contains({box.left, box.bottom}) && boxes[i].contains({box.right, box.top})) may.push_back(i);
    }
    if (may.size() > 1) {
      const Point p = inside_of(patch);
      std::erase_if(may, [&](std::size_t i) { return !contains(Region{{floor.islands[i]}}, p); });
    }
    if (!may.empty()) out[may.front()].islands.push_back(patch);
  }
  return out;
}

// Only the surroundings of what is left: a ground that a larger bit has cleared is not drawn in all over for its
// corners.
std::vector<Room> rooms_of(const Island& part, const Region& left, double step) {
  if (left.empty()) return {};
  const Region own{{part}};
  const Box whole = bounds(part);
  const double walls = farthest_from(own, left);
  std::vector<Ring> near;
  bool all = false;
  for (const Island& patch : left.islands) {
    // What is drawn in from the sides of this box hardly comes to the patch.
    const Box wide = bounds(patch).grown(walls + 3 * step);
    all = all || (wide.contains({whole.left, whole.bottom}) && wide.contains({whole.right, whole.top}));
    near.push_back(
        {{wide.left, wide.bottom}, {wide.right, wide.bottom}, {wide.right, wide.top}, {wide.left, wide.top}});
  }
  std::vector<Room> out;
  for (const Island& room : all ? own.islands : intersect(own, clean(near)).islands) {
    Room& one = out.emplace_back(Room{room, {}});
    const Box box = bounds(room);
    for (std::size_t i = 0; i < left.islands.size(); ++i) {
      if (bounds(left.islands[i]).meets(box)) one.rest.islands.push_back(left.islands[i]);
    }
    if (one.rest.empty()) out.pop_back();
  }
  return out;
}

// The room drawn in until that no longer comes to the rest.
std::vector<Region> shells_over(const Room& room, const Region& near_rest, double step, const Cancel& cancel) {
  std::vector<Point> places;
  for (const Island& patch : near_rest.islands) places.push_back(inside_of(patch));
  std::vector<Region> shells;
  Region shell{{room.part}};
  while (!shell.empty()) {
    cancel.check();
    shells.push_back(std::move(shell));
    const Region& last = shells.back();
    if (std::none_of(places.begin(), places.end(), [&](Point p) { return contains(last, p); }) &&
        clip_lines(rings_inside_out({last}), near_rest).empty())
      break;
    shell = next_shell(last, step);
  }
  return shells;
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
  const std::vector<Region> shells = shells_over(room, near_rest, apart, cancel);
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
  const std::vector<Region> rests = rests_by_part(region, rest);
  std::vector<std::vector<Pass>> found(region.islands.size());
  tbb::parallel_for(std::size_t{0}, region.islands.size(), [&](std::size_t i) {
    const Island& part = region.islands[i];
    const Cancel::Scope stops(cancel);
    const std::vector<Room> rooms = rooms_of(part, rests[i], step);
    if (rooms.empty()) return;
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
