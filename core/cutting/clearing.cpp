#include "cutting/clearing.hpp"

#include <tbb/parallel_for.h>
#include <tbb/task_group.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "cutting/chain.hpp"
#include "cutting/keep_away.hpp"
#include "cutting/rings.hpp"
#include "geometry/polyline.hpp"
#include "measure/whole.hpp"

namespace doyen {
namespace {

// Closed lines the way round that was asked for.
void turn_round(std::vector<Line2>& lines, const ClearingShape& shape) {
  if (shape.climb) return;
  for (Line2& line : lines) {
    if (is_closed(line)) std::reverse(line.begin(), line.end());
  }
}

// Rows at an angle, then once round the outlines.
std::vector<Line2> rows_and_ring(const Island& part, double step, double degrees, const Cancel& cancel) {
  std::vector<Line2> out = hatch(Region{{part}}, step, cancel, degrees);
  for (const Ring& ring : part.rings) out.push_back(closed_line(ring));
  return out;
}

void start_nearest(Line2& line, Point from) {
  if (!is_closed(line)) {
    if (distance(line.back(), from) < distance(line.front(), from)) std::reverse(line.begin(), line.end());
    return;
  }
  line.pop_back();
  const auto nearest = std::min_element(line.begin(), line.end(),
                                        [&](Point a, Point b) { return distance(a, from) < distance(b, from); });
  std::rotate(line.begin(), nearest, line.end());
  line.push_back(line.front());
}

// Lines at one depth become passes, joined where the way between them stays inside the centres' region.
std::vector<Line2> join_neighbours(std::vector<Line2> lines, const KeepAway& walls, double farthest) {
  std::vector<Line2> joined;
  for (Line2& line : lines) {
    if (!joined.empty()) {
      const Point from = joined.back().back();
      start_nearest(line, from);
      if (distance(from, line.front()) <= farthest && walls.keeps(from, line.front())) {
        joined.back().insert(joined.back().end(), line.begin(), line.end());
        continue;
      }
    }
    joined.push_back(std::move(line));
  }
  return joined;
}

// Round and round a line that returns to its start, in its own direction, as a screw's thread goes down; then once at
// the floor. Nothing where whole rounds would be much longer than what the slope asks.
std::optional<Pass> thread_and_run(const Line2& line, double from_z, double to_z, double slope) {
  if (line.size() < 3 || !is_closed(line)) return std::nullopt;
  double total = 0;
  for (std::size_t i = 1; i < line.size(); ++i) total += distance(line[i - 1], line[i]);
  const double needed = (from_z - to_z) / slope;
  constexpr double kMuch = 1.3;
  const int rounds = whole_up(needed / total - 1e-9, 1, 100'000);
  if (!(total > 0 && needed > 0) || rounds * total > kMuch * needed) return std::nullopt;
  Pass pass;
  const auto add = [&](Point p, double z) { pass.points.push_back({p.x, p.y, z}); };
  double gone = 0;
  add(line.front(), from_z);
  for (int round = 0; round < rounds; ++round) {
    for (std::size_t i = 1; i < line.size(); ++i) {
      gone += distance(line[i - 1], line[i]);
      const bool last = round + 1 == rounds && i + 1 == line.size();
      add(line[i], last ? to_z : from_z + (to_z - from_z) * gone / (rounds * total));
    }
  }
  for (std::size_t i = 1; i < line.size(); ++i) add(line[i], to_z);
  return pass;
}

// Goes down along the line from one height to the next, round and round where it returns to its start soon enough, else
// back and forth, until the floor is reached; then runs the whole line at the floor.
Pass ramp_and_run(const Line2& line, double from_z, double to_z, double slope) {
  if (std::optional<Pass> round = thread_and_run(line, from_z, to_z, slope)) return std::move(*round);
  Pass pass;
  const auto add = [&](Point p, double z) {
    const Point3 q{p.x, p.y, z};
    if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
  };
  add(line.front(), from_z);
  double z = from_z;
  std::size_t at = 0;
  bool forward = true;
  // The ramp uses at most this much of the line, so that it ends near where the full run begins.
  const double reach = std::max(2.0, (from_z - to_z) / slope / 2 + 1e-6);
  double gone = 0;
  for (int guard = 0; z > to_z + 1e-9 && guard < 100'000; ++guard) {
    const bool turn_forward = !forward && at == 0;
    const bool turn_back = forward && (at + 1 == line.size() || gone >= reach);
    if (turn_forward)
      forward = true;
    else if (turn_back)
      forward = false;
    const std::size_t next = forward ? at + 1 : at - 1;
    const double len = distance(line[at], line[next]);
    const double drop = len * slope;
    if (z - drop <= to_z && drop > 0) {
      const double t = (z - to_z) / drop;
      add(line[at] + (line[next] - line[at]) * t, to_z);
      z = to_z;
      // Walk back to the start at the floor, so that the ramp's slope is cut away.
      for (std::size_t k = std::min(at, next) + 1; k-- > 0;) add(line[k], to_z);
      break;
    }
    z -= drop;
    gone += forward ? len : -len;
    at = next;
    add(line[at], z);
    if (len <= 0 && line.size() < 3) break;
  }
  if (z > to_z + 1e-9) add(line.front(), to_z);
  for (const Point& p : line) add(p, to_z);
  return pass;
}

constexpr double kHelix = 0.3;  // of the bit's diameter, the helix' radius: under half of it leaves no core

Point nearest_on(const Region& region, Point p) {
  Point best = p;
  double least = 1e300;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      const Point q = on_ring(ring, share_nearest(ring, p)).at;
      if (distance(q, p) >= least) continue;
      least = distance(q, p);
      best = q;
    }
  }
  return best;
}

// From which walls the bit keeps off, and where a helix' middle may lie.
struct Room {
  const KeepAway& walls;
  const Region& roomy;
};

// Down a helix as near to the line's first point as there is room for one, then to that point and along the line.
// Nothing when there is no room.
std::optional<Pass> helix_and_run(const Line2& line, double from_z, double to_z, const ClearingShape& shape,
                                  const Room& room) {
  if (room.roomy.empty()) return std::nullopt;
  const double radius = kHelix * shape.diameter;
  const Point start = line.front();
  const Point middle = contains(room.roomy, start) ? start : nearest_on(room.roomy, start);
  const Point way = start - middle;
  const double first = length(way) > 1e-9 ? std::atan2(way.y, way.x) : 0;
  constexpr int kParts = 24;
  const auto at = [&](int k) {
    const double a = first + 2 * std::numbers::pi * (k % kParts) / kParts * (shape.climb ? 1 : -1);
    return middle + Point{std::cos(a), std::sin(a)} * radius;
  };
  if (!room.walls.keeps(at(0), start)) return std::nullopt;
  const double a_turn = 2 * std::numbers::pi * radius * shape.ramp_slope;
  const int turns = whole_up((from_z - to_z) / a_turn, 1, 100'000);
  Pass pass;
  const auto add = [&](Point p, double z) {
    const Point3 q{p.x, p.y, z};
    if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
  };
  for (int k = 0; k <= turns * kParts; ++k) add(at(k), from_z + (to_z - from_z) * k / (turns * kParts));
  for (int k = 1; k <= kParts; ++k) add(at(k), to_z);  // once round at the bottom, so that the slope is cut away
  for (const Point& p : line) add(p, to_z);
  return pass;
}

// The next go begins where the last one ended, or near it where the bit may go there straight: it stays down, and goes
// deeper only when it is there. `cleared`: may it go straight at the height where the last one ended?
template <typename Cleared>
void go_on(std::vector<Pass>& out, Pass next, Cleared cleared) {
  const bool first = out.empty();
  const Point3 from = first ? Point3{} : out.back().points.back(), to = next.points.front();
  const double away = first ? 1e300 : distance(from.flat(), to.flat());
  const bool level = !first && std::abs(from.z - to.z) < 1e-9;
  if (first || away > kStaysDown || !((level && away <= 1e-9) || cleared(from, to))) {
    out.push_back(std::move(next));
    return;
  }
  std::vector<Point3>& way = out.back().points;
  if (to.z < from.z - 1e-9 && away > 1e-9) way.push_back({to.x, to.y, from.z});
  way.insert(way.end(), next.points.begin() + (level && away <= 1e-9 ? 1 : 0), next.points.end());
}
void go_on(std::vector<Pass>& out, Pass next) {
  go_on(out, std::move(next), [](const Point3&, const Point3&) { return false; });
}

// Part after part, each whole: the one that begins nearest to where the bit is. `cleared` as above.
template <typename Cleared>
std::vector<Pass> nearest_next(std::vector<std::vector<Pass>> parts, Cleared cleared) {
  std::vector<Pass> out;
  std::vector<std::size_t> left;
  for (std::size_t i = 0; i < parts.size(); ++i) {
    if (!parts[i].empty()) left.push_back(i);
  }
  Point here{0, 0};
  while (!left.empty()) {
    std::size_t best = 0;
    const auto away = [&](std::size_t k) { return distance(here, parts[left[k]].front().points.front().flat()); };
    for (std::size_t k = 1; k < left.size(); ++k) {
      if (away(k) < away(best)) best = k;
    }
    std::vector<Pass>& part = parts[left[best]];
    here = part.back().points.back().flat();
    go_on(out, std::move(part.front()), cleared);
    out.insert(out.end(), std::make_move_iterator(part.begin() + 1), std::make_move_iterator(part.end()));
    left[best] = left.back();
    left.pop_back();
  }
  return out;
}

Pass enter_and_run(const Line2& line, double from_z, double to_z, const ClearingShape& shape, const Room& room) {
  if (shape.entry == Moves::Entry::Helix) {
    if (auto pass = helix_and_run(line, from_z, to_z, shape, room)) return std::move(*pass);
  }
  return ramp_and_run(line, from_z, to_z, shape.ramp_slope);
}

// The rows that the bit's centre follows in one connected part of where it may go, in an order in which it stays down
// where it may.
std::vector<Line2> floor_rows(const Island& part, const KeepAway& walls, const ClearingShape& shape, double step,
                              const Cancel& cancel) {
  std::vector<Line2> lines = rows_and_ring(part, step, shape.row_angle, cancel);
  turn_round(lines, shape);
  return join_neighbours(std::move(lines), walls, 2.5 * step);
}

// What larger bits have left, and where a bit stands beside it: it may come straight down there.
class Beside {
 public:
  Beside(Region wanted, double radius) : wanted_(std::move(wanted)), away_(wanted_, radius) {
    for (const Island& island : wanted_.islands) boxes_.push_back(bounds(island));
  }
  [[nodiscard]] bool free(Point p) const {
    if (!away_.keeps(p)) return false;
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (boxes_[i].contains(p) && contains(wanted_.islands[i], p)) return false;
    }
    return true;
  }
  [[nodiscard]] bool free_way(Point a, Point b) const { return free(a) && away_.keeps(a, b); }
  // Turns the line so that it begins at such a place, if one is to be had: the bit comes from `from`.
  bool begin(Line2& line, Point from) const {
    if (!is_closed(line)) {
      start_nearest(line, from);
      if (free(line.front())) return true;
      if (!free(line.back())) return false;
      std::reverse(line.begin(), line.end());
      return true;
    }
    line.pop_back();
    const auto at = std::find_if(line.begin(), line.end(), [&](Point p) { return free(p); });
    const bool found = at != line.end();
    if (found) std::rotate(line.begin(), at, line.end());
    line.push_back(line.front());
    return found;
  }

 private:
  Region wanted_;
  KeepAway away_;
  std::vector<Box> boxes_;
};

// Along the line at one height, where the bit comes straight down beside the wood. `floor`: what larger bits left
// there.
Pass level_pass(const Line2& line, double z, double floor) {
  Pass pass;
  pass.gone_above = floor;
  for (const Point& p : line) {
    const Point3 q{p.x, p.y, z};
    if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
  }
  return pass;
}

}  // namespace

std::vector<Pass> clean_walls(const Region& region, const ClearingShape& shape, double leave_on) {
  std::vector<Pass> out;
  const double depth = shape.ground - shape.floor;
  const bool thick = leave_on > kCleanShare * shape.diameter;
  const int levels = thick ? whole_up(depth / std::max(0.05, shape.depth_per_pass) - 1e-9, 1, 100'000) : 1;
  for (const Island& part : grow(region, -shape.diameter / 2).islands) {
    for (const Ring& ring : part.rings) {
      Line2 line = closed_line(ring);
      if (!shape.climb) std::reverse(line.begin(), line.end());
      for (int level = 1; level <= levels; ++level)
        go_on(out, ramp_and_run(line, shape.ground - depth * (level - 1) / levels,
                                shape.ground - depth * level / levels, shape.ramp_slope));
    }
  }
  return out;
}

namespace {

// The lines that clear it, by connected part of where the bit's centre goes.
struct Parts {
  std::vector<Region> rooms;
  std::vector<std::vector<Line2>> lines;  // of each
  std::optional<Beside> beside;           // where larger bits have been
};

Parts whole_floor(const DrawnIn& floor, const Region& centres, const KeepAway& walls, const ClearingShape& shape,
                  double step, const Cancel& cancel) {
  Parts out;
  const double radius = shape.diameter / 2;
  for (const Island& part : centres.islands) {
    cancel.check();
    out.rooms.push_back({{part}});
    if (shape.way != Moves::Way::Rings) out.lines.push_back(floor_rows(part, walls, shape, step, cancel));
  }
  if (shape.way == Moves::Way::Rings) {
    for (const std::vector<Region>& shells : shells_of(floor, centres, radius, step, cancel))
      out.lines.push_back(floor_rings(shells, walls, step, radius, shape.climb, cancel));
  }
  return out;
}

Parts what_is_left(const DrawnIn& floor, const Region& centres, const Region& already, const ClearingShape& shape,
                   double step, const Cancel& cancel) {
  Parts out;
  const double radius = shape.diameter / 2;
  // A little less than all that the bit sweeps: outlines that run along each other cost Clipper minutes.
  const Region reach = floor.swept(centres, radius, radius - 2.5 * kRough, kRough);
  Region wanted = without_slivers(subtract(reach, already));
  if (area(wanted) < shape.least) return out;
  // Only where the bit reaches any of it: small bits would otherwise draw their rings all over a floor that a large one
  // has cleared. Place by place: what lies all over a board costs Clipper far more at once.
  std::vector<Box> boxes;
  std::vector<Ring> near;
  for (const Island& island : wanted.islands) {
    const Box& box = boxes.emplace_back(bounds(island));
    const Box wide = box.grown(2.2 * radius);
    near.push_back(
        {{wide.left, wide.bottom}, {wide.right, wide.bottom}, {wide.right, wide.top}, {wide.left, wide.top}});
  }
  for (const Island& part : intersect(centres, clean(near)).islands) out.rooms.push_back({{part}});
  out.lines.resize(out.rooms.size());
  if (shape.all_gone) out.beside.emplace(wanted, radius + shape.lean + kBeside - 0.01);
  tbb::parallel_for(std::size_t{0}, out.rooms.size(), [&](std::size_t i) {
    cancel.check();
    const Cancel::Scope stops(cancel);
    const Region& room = out.rooms[i];
    if (shape.way == Moves::Way::Rings) {
      const Box reached = bounds(room).grown(radius);
      Region here;
      for (std::size_t k = 0; k < boxes.size(); ++k) {
        if (boxes[k].meets(reached)) here.islands.push_back(wanted.islands[k]);
      }
      here = intersect(here, grow(room, radius, Corner::Round, kRough));
      out.lines[i] = rings_where_wanted(room, std::move(here), step, radius, shape.least / 5, cancel);
    } else {
      out.lines[i] = rows_and_ring(room.islands.front(), step, shape.row_angle, cancel);
    }
    turn_round(out.lines[i], shape);
    out.lines[i] = chained(std::move(out.lines[i]), room, kStaysDown, cancel);  // thin and scattered: nearest next
  });
  return out;
}

// One part, level by level. `ways`: where the bit may go straight at a depth that it has cleared. `rest`: larger bits
// have been there, the lines may be followed either way round.
std::vector<Pass> level_by_level(const Region& room, const KeepAway& ways, std::vector<Line2> lines,
                                 const ClearingShape& shape, bool rest, const std::optional<Beside>& beside) {
  std::vector<Pass> out;
  if (lines.empty()) return out;
  const Region roomy = shape.entry == Moves::Entry::Helix ? grow(room, -kHelix * shape.diameter) : Region{};
  const double depth = shape.ground - shape.floor;
  const int levels = whole_up(depth / std::max(0.05, shape.depth_per_pass) - 1e-9, 1, 100'000);
  for (int level = 1; level <= levels; ++level) {
    const double above = shape.ground - depth * (level - 1) / levels;
    const double z = shape.ground - depth * level / levels;
    for (Line2& line : lines) {
      const Point here = out.empty() ? Point{} : out.back().points.back().flat();
      const bool straight = beside && beside->begin(line, here);
      if (rest && !straight && !is_closed(line)) start_nearest(line, here);
      go_on(out, straight ? level_pass(line, z, shape.floor) : enter_and_run(line, above, z, shape, {ways, roomy}),
            [&](const Point3& from, const Point3& to) {
              // Over what this part's last level cleared: straight down from there only beside the wood.
              return level > 1 && std::abs(from.z - above) < 1e-9 && (straight || std::abs(from.z - to.z) < 1e-9) &&
                     ways.keeps(from.flat(), to.flat());
            });
    }
    if (rest) std::reverse(lines.begin(), lines.end());
  }
  return out;
}

// `centres`: the floor drawn in by the bit's radius.
std::vector<Pass> clear_floor(const DrawnIn& floor, const Region& centres, const Region& already,
                              const ClearingShape& shape, const Cancel& cancel) {
  if (centres.empty()) return {};
  const double radius = shape.diameter / 2;
  const double step = shape.diameter * std::clamp(shape.stepover, 0.05, 0.95);
  const KeepAway walls(floor.floor(), radius - 0.004);
  Parts parts = already.empty() ? whole_floor(floor, centres, walls, shape, step, cancel)
                                : what_is_left(floor, centres, already, shape, step, cancel);
  std::vector<std::vector<Pass>> cut;
  for (std::size_t i = 0; i < parts.rooms.size(); ++i) {
    cancel.check();
    const Region& room = parts.rooms[i];
    cut.push_back(already.empty() ? level_by_level(room, walls, std::move(parts.lines[i]), shape, false, parts.beside)
                                  : level_by_level(room, KeepAway(grow(room, 0.002), 1e-6), std::move(parts.lines[i]),
                                                   shape, true, parts.beside));
  }
  if (!parts.beside) return nearest_next(std::move(cut), [](const Point3&, const Point3&) { return false; });
  // From one part to the next over what larger bits have cleared down to the floor, off every wall.
  return nearest_next(std::move(cut), [&](const Point3& from, const Point3& to) {
    const Point a = from.flat(), b = to.flat();
    return walls.keeps(a, b) && parts.beside->free_way(a, b);
  });
}

}  // namespace

std::vector<Pass> clear_floor(const Region& region, const Region& already, const ClearingShape& shape,
                              const Cancel& cancel, Region* reached) {
  const DrawnIn floor(region);
  const double radius = shape.diameter / 2;
  const Region centres = floor.by(radius);
  if (reached != nullptr) *reached = floor.swept(centres, radius, radius, kRough);
  return clear_floor(floor, centres, already, shape, cancel);
}

std::vector<std::vector<Pass>> clear_in_turn(const DrawnIn& floor, const std::vector<ClearingShape>& large_first,
                                             const Cancel& cancel, const WithCleared& with_cleared) {
  struct Turn {
    Region centres, swept;
    std::vector<Pass> passes;
  };
  std::vector<Turn> turns(large_first.size());
  const auto for_each = [&](const auto& work) {
    tbb::parallel_for(std::size_t{0}, turns.size(), [&](std::size_t i) {
      cancel.check();
      const Cancel::Scope stops(cancel);
      work(i);
    });
  };
  // What each sweeps tells the next what is left; where each goes is then its own matter.
  for_each([&](std::size_t i) {
    const bool last = i + 1 == turns.size();
    const double radius = large_first[i].diameter / 2;
    turns[i].centres = floor.by(radius);
    if (!last || with_cleared.work)
      turns[i].swept = floor.swept(turns[i].centres, radius, radius + (last ? with_cleared.beyond : 0), kRough);
  });
  tbb::task_group beside;
  if (with_cleared.work && !turns.empty()) {
    beside.run([&] {
      const Cancel::Scope stops(cancel);
      with_cleared.work(std::move(turns.back().swept));
    });
  }
  const auto find_ways = [&] {
    for_each([&](std::size_t i) {
      turns[i].passes =
          clear_floor(floor, turns[i].centres, i == 0 ? Region{} : turns[i - 1].swept, large_first[i], cancel);
    });
  };
  beside.run_and_wait(find_ways);
  std::vector<std::vector<Pass>> out;
  for (Turn& turn : turns) out.push_back(std::move(turn.passes));
  return out;
}

}  // namespace doyen
