#include "cutting/clearing.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "cutting/chain.hpp"
#include "geometry/polyline.hpp"
#include "measure/whole.hpp"

namespace doyen {
namespace {

constexpr double kTiny = 0.01;  // mm²: rests smaller than this are dust
// mm along a floor that cost a bit less time than a lift, a travel move and a plunge do.
constexpr double kStaysDown = 12;

// One connected part of the centres' region, drawn in step by step until nothing is left.
std::vector<Region> shells_of(const Island& centres, double step, const Cancel& cancel) {
  std::vector<Region> shells;
  Region shell{{centres}};
  constexpr int kMostShells = 20'000;
  for (int k = 0; k < kMostShells && !shell.empty(); ++k) {
    cancel.check();
    shells.push_back(std::move(shell));
    // From the last one, thinned: shells grow simpler inwards, and arcs of arcs would gather points.
    shell = grow(thinned(shells.back(), 0.002), -step);
  }
  return shells;
}

Line2 closed_line(const Ring& ring) {
  Line2 line = ring;
  line.push_back(ring.front());
  return line;
}

// The ring with its corners drawn round, so that the feed holds. Only for rings whose next outer neighbour sweeps the
// corner anyway: it moves by at most a sixth of `step`, and a tenth of one away from that neighbour.
Ring eased(const Ring& ring, double step) {
  constexpr double kTurn = 0.6;  // radians: gentler ones do not slow the machine much
  Ring out;
  const std::size_t n = ring.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Point before = ring[i] - ring[(i + n - 1) % n], after = ring[(i + 1) % n] - ring[i];
    const double a = length(before), b = length(after);
    const double turn = std::atan2(cross(before, after), dot(before, after));
    const double back = std::min({0.35 * step, 0.4 * a, 0.4 * b});
    if (std::abs(turn) < kTurn || std::abs(turn) > 2.2 || back < 0.02) {
      out.push_back(ring[i]);
      continue;
    }
    // A quadratic Bézier between the two points of touch; the corner itself is its handle.
    const Point from = ring[i] - before * (back / a), to = ring[i] + after * (back / b);
    constexpr int kParts = 5;
    for (int k = 0; k <= kParts; ++k) {
      const double t = static_cast<double>(k) / kParts;
      out.push_back(from * ((1 - t) * (1 - t)) + ring[i] * (2 * t * (1 - t)) + to * (t * t));
    }
  }
  return out;
}

// Their outlines as lines, innermost first.
std::vector<Line2> rings_inside_out(const std::vector<Region>& shells, double step) {
  std::vector<Line2> out;
  for (std::size_t k = shells.size(); k-- > 0;) {
    for (const Island& island : shells[k].islands) {
      for (const Ring& ring : island.rings) out.push_back(closed_line(k == 0 ? ring : eased(ring, step)));
    }
  }
  return out;
}

// Rows at an angle, then once round the outlines.
std::vector<Line2> rows_and_ring(const Island& part, double step, double degrees, const Cancel& cancel) {
  std::vector<Line2> out = hatch(Region{{part}}, step, cancel, degrees);
  for (const Ring& ring : part.rings) out.push_back(closed_line(ring));
  return out;
}

// What a bit of this radius leaves standing between one ring and the next: in corners, and in the middle of places that
// the next ring no longer enters.
Region crumbs_of(const std::vector<Region>& shells, double radius) {
  Region crumbs;
  for (std::size_t k = 0; k < shells.size(); ++k) {
    const Region deep = grow(shells[k], -radius);
    if (deep.empty()) continue;
    const Region left = k + 1 < shells.size() ? subtract(deep, grow(shells[k + 1], radius)) : deep;
    crumbs.islands.insert(crumbs.islands.end(), left.islands.begin(), left.islands.end());
  }
  return crumbs;
}

bool closed(const Line2& line) { return line.size() > 2 && line.front() == line.back(); }

void start_nearest(Line2& line, Point from) {
  if (!closed(line)) {
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
std::vector<Line2> join_neighbours(std::vector<Line2> lines, const Region& centres, double farthest) {
  std::vector<Line2> joined;
  const StraightWays ways(grow(centres, 0.002));
  for (Line2& line : lines) {
    if (!joined.empty()) {
      const Point from = joined.back().back();
      start_nearest(line, from);
      if (distance(from, line.front()) <= farthest && ways.inside(from, line.front())) {
        joined.back().insert(joined.back().end(), line.begin(), line.end());
        continue;
      }
    }
    joined.push_back(std::move(line));
  }
  return joined;
}

// Goes down along the line from one height to the next, back and forth (or round, when the line returns to its start)
// until the floor is reached, then runs the whole line at the floor.
Pass ramp_and_run(const Line2& line, double from_z, double to_z, double slope) {
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
      if (forward) {  // walk back to the start at the floor, so that the ramp's slope is cut away
        for (std::size_t k = at + 1; k-- > 0;) add(line[k], to_z);
      } else {
        for (std::size_t k = next + 1; k-- > 0;) add(line[k], to_z);
      }
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

// Where the bit's centre may go, and where a helix' middle may lie within that.
struct Room {
  const StraightWays& centres;
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
  if (!room.centres.inside(at(0), start)) return std::nullopt;
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

// The next go begins where the last one ended, at the same height, or near it over what that one cleared: the bit stays
// down. `cleared`: where it may go straight at that height.
void go_on(std::vector<Pass>& out, Pass next, const StraightWays* cleared = nullptr) {
  const bool level = !out.empty() && std::abs(out.back().points.back().z - next.points.front().z) < 1e-9;
  const double away = level ? distance(out.back().points.back(), next.points.front()) : 1e300;
  const bool on = away <= 1e-9 || (cleared != nullptr && away <= kStaysDown &&
                                   cleared->inside(out.back().points.back().flat(), next.points.front().flat()));
  if (!on) {
    out.push_back(std::move(next));
    return;
  }
  std::vector<Point3>& way = out.back().points;
  way.insert(way.end(), next.points.begin() + (away <= 1e-9 ? 1 : 0), next.points.end());
}

// Part after part, each whole: the one that begins nearest to where the bit is.
std::vector<Pass> nearest_next(std::vector<std::vector<Pass>> parts) {
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
    for (Pass& pass : part) out.push_back(std::move(pass));
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

// The lines that the bit's centre follows in one connected part of where it may go.
std::vector<Line2> lines_of(const Island& part, const ClearingShape& shape, double step, const Cancel& cancel) {
  const double radius = shape.diameter / 2;
  std::vector<Line2> lines;
  if (shape.way == Moves::Way::Rings) {
    const std::vector<Region> shells = shells_of(part, step, cancel);
    // Rings less than a radius apart sweep over each other everywhere: a place between two of them lies within a step
    // of the outer one. Only wider ones can leave crumbs; those are gone over. Corners are eased
    // where there is room for it between the two.
    lines = rings_inside_out(shells, step < 0.9 * radius ? step : 0);
    const Region crumbs = step > 0.98 * radius ? crumbs_of(shells, radius) : Region{};
    for (const Island& crumb : crumbs.islands) lines.insert(lines.begin(), closed_line(crumb.rings.front()));
  } else {
    lines = rows_and_ring(part, step, shape.row_angle, cancel);
  }
  if (!shape.climb) {
    for (Line2& line : lines) {
      if (closed(line)) std::reverse(line.begin(), line.end());
    }
  }
  return lines;
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

std::vector<Pass> clear_floor(const Region& region, const Region& already, const ClearingShape& shape,
                              const Cancel& cancel, Region* reached) {
  const double radius = shape.diameter / 2;
  Region centres = grow(region, -radius);
  // What is reached is only compared with other bits' reach: coarser arcs do, and cost a fraction of the time.
  constexpr double kRough = 0.006;  // mm
  const Region simple = thinned(centres, kRough);
  if (reached != nullptr) *reached = centres.empty() ? Region{} : grow(simple, radius, Corner::Round, kRough);
  if (centres.empty()) return {};
  const double step = shape.diameter * std::clamp(shape.stepover, 0.05, 0.95);
  Region wanted;  // what this bit shall still take
  if (!already.empty()) {
    // A little less than it sweeps: outlines that run along each other cost Clipper minutes.
    wanted = subtract(grow(simple, radius - 2.5 * kRough, Corner::Round, kRough), already);
    // Slivers along arcs are rounding, not wood.
    wanted = grow(grow(wanted, -0.004), 0.004);
    if (area(wanted) < shape.least) return {};
    // Only centres from which the bit reaches any of it: small bits would otherwise draw their rings all over a floor
    // that a large one has cleared.
    centres = intersect(centres, grow(wanted, radius + 0.01));
  }
  std::vector<std::vector<Pass>> parts;
  for (const Island& part : centres.islands) {
    cancel.check();
    const Region own{{part}};
    std::vector<Line2> lines = lines_of(part, shape, step, cancel);
    if (lines.empty()) continue;
    const StraightWays ways(grow(own, 0.002));
    const Region roomy = shape.entry == Moves::Entry::Helix ? grow(own, -kHelix * shape.diameter) : Region{};
    // Where larger bits have been, what is left is thin and scattered: nearest next. A whole floor grows from within.
    const std::vector<Line2> joined = already.empty() ? join_neighbours(std::move(lines), own, 2.5 * step)
                                                      : chained(std::move(lines), own, kStaysDown, cancel);
    std::vector<Pass>& out = parts.emplace_back();
    const double depth = shape.ground - shape.floor;
    const int levels = whole_up(depth / std::max(0.05, shape.depth_per_pass) - 1e-9, 1, 100'000);
    for (int level = 1; level <= levels; ++level) {
      const double above = shape.ground - depth * (level - 1) / levels;
      const double z = shape.ground - depth * level / levels;
      for (const Line2& line : joined)
        go_on(out, enter_and_run(line, above, z, shape, {ways, roomy}), level > 1 ? &ways : nullptr);
    }
  }
  return nearest_next(std::move(parts));
}

namespace {

// What lies farther than half a step from every ring: middles of narrow places, and corners. Gone round once more.
std::vector<Line2> between_rings(const std::vector<Region>& shells, double step) {
  std::vector<Line2> lines;
  for (std::size_t k = 0; k < shells.size(); ++k) {
    const Region deep = grow(shells[k], -0.5 * step);
    if (deep.empty()) continue;
    const Region left = k + 1 < shells.size() ? subtract(deep, grow(shells[k + 1], 0.5 * step)) : deep;
    for (const Island& island : left.islands) {
      if (area(Region{{island}}) < 1e-5) continue;
      for (const Ring& ring : island.rings) lines.push_back(closed_line(ring));
    }
  }
  return lines;
}

}  // namespace

std::vector<Pass> tidy_floor_with_v(const Region& region, const Region& rest, double tan_half, double tip, double floor,
                                    double ridge, const Cancel& cancel) {
  if (area(rest) < kTiny) return {};
  const double step = std::max(0.02, 2 * ridge * tan_half + 0.9 * tip);
  const Region near_rest = grow(rest, step);
  std::vector<Line2> lines;
  for (const Island& part : region.islands) {
    if (!bounds(part).meets(bounds(near_rest))) continue;
    // Rings follow narrow floors with few lifts; in a floor hundreds of rings wide, straight rows do.
    const Region own{{part}};
    const bool wide = std::sqrt(area(own)) > 400 * step;
    std::vector<Line2> found;
    if (wide) {
      found = hatch(intersect(own, near_rest), step, cancel);
    } else {
      const std::vector<Region> shells = shells_of(part, step, cancel);
      found = rings_inside_out(shells, 0);
      for (Line2& line : between_rings(shells, step)) found.push_back(std::move(line));
      found = clip_lines(found, near_rest);
    }
    for (Line2& line : found) lines.push_back(std::move(line));
  }
  std::vector<Pass> out;
  for (const Line2& line : chained(std::move(lines), region, kStaysDown, cancel)) {
    Pass& pass = out.emplace_back();
    for (const Point& p : line) {
      const Point3 q{p.x, p.y, floor};
      if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
    }
  }
  return out;
}

}  // namespace doyen
