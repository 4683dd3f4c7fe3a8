#include "cuts/clearing.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/polyline.hpp"

namespace doyen {
namespace {

constexpr double kTiny = 0.01;  // mm²: rests smaller than this are dust

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

// Their outlines as lines, innermost first.
std::vector<Line2> rings_inside_out(const std::vector<Region>& shells) {
  std::vector<Line2> out;
  for (std::size_t k = shells.size(); k-- > 0;) {
    for (const Island& island : shells[k].islands) {
      for (const Ring& ring : island.rings) {
        out.push_back(ring);
        out.back().push_back(ring.front());
      }
    }
  }
  return out;
}

// A corner so sharp that the next ring's own corner stays farther from it than the bit reaches: under about 47 degrees
// with the usual stepover. Looked at over a short stretch, because thinning may have cut its tip.
bool has_sharp_corner(const Region& shell, double step) {
  constexpr double kSharp = 2.2;  // radians of turning, a corner under 54 degrees
  for (const Island& island : shell.islands) {
    for (const Ring& ring : island.rings) {
      const std::size_t n = ring.size();
      for (std::size_t i = 0; i < n; ++i) {
        const Point before = ring[i] - ring[(i + n - 1) % n];
        if (std::atan2(cross(before, ring[(i + 1) % n] - ring[i]), dot(before, ring[(i + 1) % n] - ring[i])) < 0.2)
          continue;
        double turned = 0, gone = 0;
        Point way = before;
        for (std::size_t k = 0; k < n && gone < 0.2 * step; ++k) {
          const Point next = ring[(i + k + 1) % n] - ring[(i + k) % n];
          turned += std::atan2(cross(way, next), dot(way, next));
          gone += length(next);
          way = next;
        }
        if (turned > kSharp) return true;
      }
    }
  }
  return false;
}

// What a bit of this radius leaves standing between one ring and the next, in sharp corners only.
Region crumbs_of(const std::vector<Region>& shells, double radius, double step) {
  Region crumbs;
  for (std::size_t k = 0; k < shells.size(); ++k) {
    if (!has_sharp_corner(shells[k], step)) continue;
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

bool inside_all_along(const Region& region, Point a, Point b) {
  constexpr int kLooks = 6;
  for (int i = 1; i < kLooks; ++i) {
    if (!contains(region, a + (b - a) * (static_cast<double>(i) / kLooks))) return false;
  }
  return true;
}

// Lines at one depth become passes, joined where the way between them stays inside the centres' region.
std::vector<Line2> join_neighbours(std::vector<Line2> lines, const Region& centres, double farthest) {
  std::vector<Line2> joined;
  const Region loose = grow(centres, 0.002);
  for (Line2& line : lines) {
    if (!joined.empty()) {
      const Point from = joined.back().back();
      start_nearest(line, from);
      if (distance(from, line.front()) <= farthest && inside_all_along(loose, from, line.front())) {
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

}  // namespace

std::vector<Pass> clear_floor(const Region& region, const Region& already, const ClearingShape& shape,
                              const Cancel& cancel) {
  const double radius = shape.diameter / 2;
  Region centres = grow(region, -radius);
  if (centres.empty()) return {};
  const double step = shape.diameter * std::clamp(shape.stepover, 0.05, 0.95);
  Region wanted;  // what this bit shall still take
  if (!already.empty()) {
    wanted = subtract(grow(centres, radius), grow(already, 0.003));
    // Slivers along arcs are rounding, not wood.
    wanted = grow(grow(wanted, -0.004), 0.004);
    if (area(wanted) < kTiny) return {};
    // Only centres from which the bit reaches any of it: small bits would otherwise draw their rings all over a floor
    // that a large one has cleared.
    centres = intersect(centres, grow(wanted, radius + 0.01));
  }
  std::vector<Pass> out;
  for (const Island& part : centres.islands) {
    cancel.check();
    const std::vector<Region> shells = shells_of(part, step, cancel);
    std::vector<Line2> lines = rings_inside_out(shells);
    const Region own{{part}};
    // Sharp inner corners of successive rings can leave a crumb between them; go over what is left.
    const Region crumbs = crumbs_of(shells, radius, step);
    for (const Island& crumb : crumbs.islands) {
      Line2 line = crumb.rings.front();
      line.push_back(line.front());
      lines.insert(lines.begin(), std::move(line));
    }
    if (lines.empty()) continue;
    const std::vector<Line2> joined = join_neighbours(std::move(lines), own, 2.5 * step);
    const double depth = shape.ground - shape.floor;
    const int levels = std::max(1, static_cast<int>(std::ceil(depth / std::max(0.05, shape.depth_per_pass) - 1e-9)));
    for (int level = 1; level <= levels; ++level) {
      const double above = shape.ground - depth * (level - 1) / levels;
      const double z = shape.ground - depth * level / levels;
      for (const Line2& line : joined) out.push_back(ramp_and_run(line, above, z, shape.ramp_slope));
    }
  }
  return out;
}

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
    std::vector<Line2> found = wide ? hatch(intersect(own, near_rest), step, cancel)
                                    : clip_lines(rings_inside_out(shells_of(part, step, cancel)), near_rest);
    for (Line2& line : found) lines.push_back(std::move(line));
  }
  std::vector<Pass> out;
  for (const Line2& line : join_neighbours(std::move(lines), region, 4 * step)) {
    Pass& pass = out.emplace_back();
    for (const Point& p : line) {
      const Point3 q{p.x, p.y, floor};
      if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
    }
  }
  return out;
}

}  // namespace doyen
