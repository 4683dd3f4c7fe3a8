#include "cutting/v_floor.hpp"

#include <algorithm>
#include <cmath>
#include <optional>
#include <unordered_map>

#include "cutting/chain.hpp"
#include "cutting/detours.hpp"
#include "cutting/keep_away.hpp"
#include "geometry/axis_rings.hpp"
#include "geometry/polyline.hpp"
#include "measure/whole.hpp"

namespace doyen {
namespace {

constexpr double kTiny = 0.01;  // mm²: rests smaller than this are dust
// Of a step: so much nearer than the ridges ask do rings lie, for what is just out of reach in corners.
constexpr double kSpare = 0.03;

// Rings `first`, `first` + `apart`, … mm within the outline, as far as `deepest`.
struct Drawn {
  double first = 0, apart = 1, deepest = 0;
  [[nodiscard]] double reach() const { return (0.5 + kSpare) * apart; }  // half of what the ridges allow
};

// The lines along what lies farther than reach from every ring: in corners, where rings stand farther apart, and in the
// middle of narrow places. All of that is near those parts of the axis that are farther than reach within the ring
// outside of them. A corner is gone through in one line.
class Between {
 public:
  Between(const MedialAxis& axis, const AxisRings& rings, const Drawn& drawn) : axis_(axis), drawn_(drawn) {
    for (const AxisRings::Rise& rise : rings.rises()) {
      if (rings.kept(rise)) look_at(rise);
    }
  }
  std::vector<Line2> lines() {
    for (std::size_t i = 0; i < parts_.size(); ++i) {
      for (const std::int32_t end : {parts_[i].from, parts_[i].to}) {
        if (end >= 0) at_[end].push_back(i);
      }
    }
    const auto ends_at = [&](std::int32_t end) { return end < 0 || at_[end].size() == 1; };
    std::vector<Line2> out;
    for (std::size_t i = 0; i < parts_.size(); ++i) {
      for (const std::int32_t end : {parts_[i].from, parts_[i].to}) {
        if (!parts_[i].done && ends_at(end)) out.push_back(from(i, end));
      }
    }
    for (std::size_t i = 0; i < parts_.size(); ++i) {  // what has no end
      if (!parts_[i].done) out.push_back(from(i, parts_[i].from));
    }
    return out;
  }

 private:
  struct Part {
    Line2 points;
    std::int32_t from, to;  // of the axis' points; below 0 where the axis goes on
    bool done = false;
  };
  // From that end of a part along the axis as far as it goes on.
  Line2 from(std::size_t i, std::int32_t end) {
    Line2 line;
    while (true) {
      Part& part = parts_[i];
      part.done = true;
      const bool turned = part.to == end;
      if (turned) std::reverse(part.points.begin(), part.points.end());
      line.insert(line.end(), part.points.begin() + (line.empty() ? 0 : 1), part.points.end());
      end = turned ? part.from : part.to;
      if (end < 0) break;
      const std::vector<std::size_t>& on = at_[end];
      const auto next = std::find_if(on.begin(), on.end(), [&](std::size_t k) { return !parts_[k].done; });
      if (next == on.end()) break;
      i = *next;
    }
    return thinned(line, 0.02 * drawn_.apart);
  }
  void look_at(const AxisRings::Rise& rise) {
    const double reach = drawn_.reach(), begin = std::max(rise.low.r, drawn_.first + reach);
    if (rise.low.r > drawn_.deepest) return;
    constexpr double kLevel = 1e-6;  // mm: between walls that run along each other
    if (rise.high.r - rise.low.r < kLevel) {
      const double past = rise.low.r - drawn_.first;
      if (past > 0 && std::fmod(past, drawn_.apart) > reach) add(rise, rise.low.r, rise.high.r);
      return;
    }
    if (rise.high.r <= begin) return;
    const double slope = (rise.high.r - rise.low.r) / std::max(1e-9, distance(rise.low.at, rise.high.at));
    if (!rise.one.is_point() && !rise.two.is_point()) {
      // So blunt a corner that the next ring's own corner comes within reach of where this one's does.
      if (slope >= (drawn_.apart - reach) / reach) return;
      constexpr double kSharp = 0.3;  // where it pays to go on between two such places
      if (slope > kSharp) return add(rise, begin, rise.high.r);
    }
    for (int k = std::max(0, static_cast<int>((begin - drawn_.first) / drawn_.apart) - 1);; ++k) {
      const double from = std::max(begin, drawn_.first + k * drawn_.apart + reach),
                   to = std::min(rise.high.r, drawn_.first + (k + 1) * drawn_.apart);
      if (from >= rise.high.r) break;
      if (from < to) add(rise, from, to);
    }
  }
  void add(const AxisRings::Rise& rise, double from, double to) {
    const bool whole_low = from <= rise.low.r, whole_high = to >= rise.high.r;
    const auto at = [&](double r) { return edge_point_at_radius(axis_, rise.low, rise.high, rise.one, rise.two, r); };
    const MedialAxis::Vertex a = whole_low ? rise.low : at(from), b = whole_high ? rise.high : at(to);
    Part part{{a.at}, whole_low ? rise.low_id : -1, whole_high ? rise.high_id : -1};
    std::vector<MedialAxis::Vertex> traced;
    trace_edge(axis_, a, b, rise.one, rise.two, 0.02 * drawn_.apart, traced);
    for (const MedialAxis::Vertex& v : traced) part.points.push_back(v.at);
    if (part.points.size() > 1 && distance(part.points.front(), part.points.back()) > 1e-9)
      parts_.push_back(std::move(part));
  }

  const MedialAxis& axis_;
  Drawn drawn_;
  std::vector<Part> parts_;
  std::unordered_map<std::int32_t, std::vector<std::size_t>> at_;  // the parts that meet in a point of the axis
};

// How far within the floor's outline the rest reaches at most, mm.
double deepest_of(const Region& floor, const Region& rest) {
  double away = 0.25;
  for (; away < 1e4; away *= 2) {
    Cancel::check_here();
    const KeepAway edges(floor, away);
    const auto far_off = [&](Point a, Point b) {
      const int parts = whole_up(distance(a, b) / away, 1, 100'000);
      for (int k = 0; k < parts; ++k) {
        if (edges.keeps(a + (b - a) * (static_cast<double>(k) / parts))) return true;
      }
      return false;
    };
    bool any = false;
    for (const Island& island : rest.islands) {
      Cancel::check_here();
      for (const Ring& ring : island.rings) {
        for (std::size_t i = 0; i < ring.size() && !any; ++i) any = far_off(ring[i], ring[(i + 1) % ring.size()]);
      }
    }
    if (!any) break;
  }
  return 1.5 * away;
}

// Rings follow narrow places with few lifts, and what larger bits left along walls; in one that is hundreds of rings
// wide straight rows do.
bool wide(const Island& patch, double step) {
  double outline = 0;
  for (const Ring& ring : patch.rings) outline += ring_length(ring);
  const double all = area(Region{{patch}});
  return std::sqrt(all) > 400 * step || 2 * all / outline > 50 * step;
}

// The rings over the rest and what is between them; nothing where the axis does not tell them.
std::optional<std::vector<Line2>> rings_over(const FloorOfV& floor, const Region& rest, double step,
                                             const Cancel& cancel) {
  AxisRings rings(floor.axis);
  std::vector<Box> boxes;
  for (const Island& patch : rest.islands) {
    const Box box = bounds(patch).grown(step);
    boxes.push_back(
        {box.left - floor.origin.x, box.bottom - floor.origin.y, box.right - floor.origin.x, box.top - floor.origin.y});
  }
  Drawn drawn{floor.within, step / (1 + 2 * kSpare), floor.within + deepest_of(floor.region, rest)};
  for (const AxisRings::Rise& rise : rings.rises()) {
    if (rise.high.r > drawn.deepest &&
        std::any_of(boxes.begin(), boxes.end(), [&](const Box& box) { return box.contains(rise.high.at); }))
      drawn.deepest = rise.high.r;
  }
  rings.keep_near(boxes, drawn.deepest + step);
  std::vector<Line2> found;
  const double last = std::min(rings.widest(), drawn.deepest + drawn.apart);
  for (int k = 1; drawn.first + k * drawn.apart < last; ++k) {
    cancel.check();
    const std::optional<std::vector<Line2>> ring = rings.at(drawn.first + k * drawn.apart);
    if (!ring) return std::nullopt;
    for (const Line2& line : *ring) found.push_back(thinned(line, std::min(0.002, step / 60)));
  }
  for (Line2& line : Between(floor.axis, rings, drawn).lines()) found.push_back(std::move(line));
  for (Line2& line : found) {
    for (Point& p : line) p = p + floor.origin;
  }
  return found;
}

std::vector<Line2> lines_over(const FloorOfV& floor, const Region& rest, double step, bool edge_done,
                              const Cancel& cancel) {
  Region in_rows, in_rings;
  for (const Island& patch : rest.islands) (wide(patch, step) ? in_rows : in_rings).islands.push_back(patch);
  std::vector<Line2> found;
  if (!in_rings.empty()) {
    if (const std::optional<std::vector<Line2>> rings = rings_over(floor, in_rings, step, cancel))
      found = clip_lines(*rings, grow(in_rings, step));
    else
      in_rows = rest;
  }
  if (!in_rows.empty()) {
    for (Line2& line : hatch(intersect(floor.region, grow(in_rows, step)), step, cancel))
      found.push_back(std::move(line));
  }
  if (!edge_done) {
    std::vector<Line2> edge;
    for (const Island& island : floor.region.islands) {
      for (const Ring& ring : island.rings) edge.push_back(closed_line(ring));
    }
    for (Line2& line : clip_lines(edge, grow(rest, step))) found.push_back(std::move(line));
  }
  return found;
}

// One part's lines as passes: with the bit down from one to the next, and on the longest of them for what is near it.
std::vector<Pass> joined(std::vector<Line2> lines, const Region& floor, double z, const Cancel& cancel) {
  std::vector<Pass> out;
  std::size_t points = 0;
  for (const Line2& line : chained(std::move(lines), floor, kStaysDown, cancel)) {
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
  const KeepAway edges(grow(floor, 0.002), 1e-6);
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

}  // namespace

std::vector<Region> rests_by_part(const Region& parts, const Region& rest) {
  std::vector<Box> boxes;
  for (const Island& part : parts.islands) boxes.push_back(bounds(part).grown(0.001));
  std::vector<Region> out(parts.islands.size());
  for (const Island& patch : rest.islands) {
    Cancel::check_here();
    const Box box = bounds(patch);
    std::vector<std::size_t> may;
    for (std::size_t i = 0; i < boxes.size(); ++i) {
      if (boxes[i].contains({box.left, box.bottom}) && boxes[i].contains({box.right, box.top})) may.push_back(i);
    }
    if (may.size() > 1) {
      const Point p = inside_of(patch);
      std::erase_if(may, [&](std::size_t i) { return !contains(Region{{parts.islands[i]}}, p); });
    }
    if (!may.empty()) out[may.front()].islands.push_back(patch);
  }
  return out;
}

std::vector<std::vector<Pass>> tidy_floor_with_v(const FloorOfV& floor, const Region& rest, const VFloor& v,
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
    out.push_back(joined(lines_over(floor, rest, apart(ridge), v.edge_done, cancel), floor.region, z, cancel));
  }
  return out;
}

}  // namespace doyen
