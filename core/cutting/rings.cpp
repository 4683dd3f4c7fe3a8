#include "cutting/rings.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/cell_index.hpp"

namespace doyen {
namespace {

constexpr int kMostShells = 20'000;

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

// A ring and where it stands among the others.
struct Standing {
  Line2 line;
  Box box;
  std::vector<std::size_t> outside;  // the rings beside it that lie a step farther out, which wait for it
  int waits_for = 0;                 // rings farther in that are not done yet
  bool done = false;
};

double away(const Box& box, Point p) {
  const double x = std::max({box.left - p.x, p.x - box.right, 0.0});
  const double y = std::max({box.bottom - p.y, p.y - box.top, 0.0});
  return std::hypot(x, y);
}

// Which rings of one shell pass near a place.
class Near {
 public:
  Near(const Region& shell, std::size_t first, double reach)
      : size_(std::max(1.0, 2 * reach)), reach_(reach), cells_(point_count(shell)) {
    std::size_t ring_number = first;
    for (const Island& island : shell.islands) {
      for (const Ring& ring : island.rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) add(ring[i], ring[(i + 1) % ring.size()], ring_number);
        ++ring_number;
      }
    }
  }
  void add_near(Point p, std::vector<std::size_t>& rings) const {
    for (std::int64_t x = column(p.x - reach_); x <= column(p.x + reach_); ++x) {
      for (std::int64_t y = column(p.y - reach_); y <= column(p.y + reach_); ++y) {
        cells_.all_in(key(x, y), [&](std::uint32_t e) {
          const Edge& edge = edges_[e];
          if (std::find(rings.begin(), rings.end(), edge.ring) == rings.end() && distance(p, edge.a, edge.b) <= reach_)
            rings.push_back(edge.ring);
          return true;
        });
      }
    }
  }

 private:
  struct Edge {
    Point a, b;
    std::size_t ring;
  };
  [[nodiscard]] std::int64_t column(double mm) const { return static_cast<std::int64_t>(std::floor(mm / size_)); }
  static std::uint64_t key(std::int64_t x, std::int64_t y) { return static_cast<std::uint64_t>(x * 2'000'003 + y); }
  void add(Point a, Point b, std::size_t ring) {
    const auto number = static_cast<std::uint32_t>(edges_.size());
    edges_.push_back({a, b, ring});
    // A long edge is put down in parts, so that it lies only where it is.
    const int parts = std::max(1, static_cast<int>(std::ceil(distance(a, b) / size_)));
    Point from = a;
    for (int k = 1; k <= parts; ++k) {
      const Point to = a + (b - a) * (static_cast<double>(k) / parts);
      for (std::int64_t x = column(std::min(from.x, to.x)); x <= column(std::max(from.x, to.x)); ++x) {
        for (std::int64_t y = column(std::min(from.y, to.y)); y <= column(std::max(from.y, to.y)); ++y)
          cells_.add(key(x, y), number);
      }
      from = to;
    }
  }

  double size_, reach_;
  std::vector<Edge> edges_;
  CellIndex cells_;
};

// All rings of the shells, and which of them wait for which.
std::vector<Standing> standing_of(const std::vector<Region>& shells, double step, double ease) {
  std::vector<Standing> rings;
  std::size_t first_outside = 0;
  for (std::size_t k = 0; k < shells.size(); ++k) {
    const std::size_t first = rings.size();
    const Near outside(k == 0 ? Region{} : shells[k - 1], first_outside, 1.08 * step + 0.02);
    for (const Island& island : shells[k].islands) {
      for (const Ring& ring : island.rings) {
        Standing& one = rings.emplace_back();
        one.line = closed_line(k == 0 ? ring : eased(ring, ease));
        one.box = bounds(ring);
        for (const Point& p : ring) outside.add_near(p, one.outside);
        for (const std::size_t outer : one.outside) ++rings[outer].waits_for;
      }
    }
    first_outside = first;
  }
  return rings;
}

// Turned so that it begins at the place that is nearest, on an edge where need be.
void begin_nearest(Line2& line, Point from) {
  line.pop_back();
  std::size_t best = 0;
  Point at = line.front();
  double least = 1e300;
  for (std::size_t i = 0; i < line.size(); ++i) {
    const Point a = line[i], b = line[(i + 1) % line.size()];
    const Point p = a + (b - a) * nearest_share(from, a, b);
    if (distance(from, p) >= least) continue;
    least = distance(from, p);
    at = p;
    best = i;
  }
  std::rotate(line.begin(), line.begin() + static_cast<std::ptrdiff_t>((best + 1) % line.size()), line.end());
  if (distance(line.back(), at) < 1e-6)
    std::rotate(line.begin(), line.end() - 1, line.end());
  else if (distance(line.front(), at) >= 1e-6)
    line.insert(line.begin(), at);
  line.push_back(line.front());
}

double away(const Line2& line, Point p) {
  double least = 1e300;
  for (const Point& q : line) least = std::min(least, dot(q - p, q - p));
  return std::sqrt(least);
}

// Hands out rings: one that is free, and of those the nearest.
class RingOrder {
 public:
  explicit RingOrder(std::vector<Standing> rings) : rings_(std::move(rings)) {
    for (std::size_t i = 0; i < rings_.size(); ++i) {
      if (rings_[i].waits_for == 0) free_.push_back(i);
    }
  }
  [[nodiscard]] bool empty() const { return free_.empty(); }
  Line2 next(Point here) {
    std::size_t best = 0;
    double least = 1e300;
    for (std::size_t k = 0; k < free_.size(); ++k) {
      const Standing& ring = rings_[free_[k]];
      if (away(ring.box, here) >= least) continue;
      const double to = away(ring.line, here);
      if (to >= least) continue;
      least = to;
      best = k;
    }
    const std::size_t chosen = free_[best];
    free_[best] = free_.back();
    free_.pop_back();
    for (const std::size_t outer : rings_[chosen].outside) {
      if (--rings_[outer].waits_for == 0) free_.push_back(outer);
    }
    Line2 line = std::move(rings_[chosen].line);
    begin_nearest(line, here);
    return line;
  }

 private:
  std::vector<Standing> rings_;
  std::vector<std::size_t> free_;
};

// With fewer points; what crosses itself by as little as `tolerance` then is gone where it is drawn in by more.
Island thinned(const Island& island, double tolerance) {
  Island out;
  for (const Ring& ring : island.rings) {
    Line2 line = doyen::thinned(closed_line(ring), tolerance);
    line.pop_back();
    if (line.size() > 2)
      out.rings.push_back(std::move(line));
    else if (out.rings.empty())
      break;  // of the outline nothing is left
  }
  return out;
}

// From the last one, thinned: shells grow simpler inwards, and arcs of arcs would gather points.
Region drawn_in(const Region& shell, double step) {
  const double tolerance = std::min(0.002, step / 60);
  Region plain;
  for (const Island& island : shell.islands) {
    if (Island thin = thinned(island, tolerance); !thin.rings.empty()) plain.islands.push_back(std::move(thin));
  }
  return grow(plain, -step);
}

std::vector<Region> drawn_from_the_last(const Island& part, double step, const Cancel& cancel) {
  std::vector<Region> shells;
  Region shell{{part}};
  for (int k = 0; k < kMostShells && !shell.empty(); ++k) {
    cancel.check();
    shells.push_back(std::move(shell));
    shell = drawn_in(shells.back(), step);
  }
  return shells;
}

}  // namespace

Region without_slivers(const Region& region) { return grow(grow(region, -0.004), 0.004); }

std::vector<std::vector<Region>> shells_of(const DrawnIn& floor, const Region& centres, double radius, double step,
                                           const Cancel& cancel) {
  std::vector<std::vector<Region>> parts;
  for (const Island& part : centres.islands) {
    if (floor.at_once())
      parts.push_back({Region{{part}}});
    else
      parts.push_back(drawn_from_the_last(part, step, cancel));
  }
  for (std::size_t k = 1; floor.at_once() && k < kMostShells; ++k) {
    cancel.check();
    const Region shell = floor.by(radius + static_cast<double>(k) * step, std::min(0.01, step / 60));
    if (shell.empty()) break;
    for (const Island& island : shell.islands) {
      const auto lies_in = [&](const std::vector<Region>& part) {
        return contains(part.front(), island.rings.front().front());
      };
      const auto part = std::find_if(parts.begin(), parts.end(), lies_in);
      if (part == parts.end()) continue;
      part->resize(std::max(part->size(), k + 1));
      if (Island thin = thinned(island, std::min(0.002, step / 60)); !thin.rings.empty())
        part->at(k).islands.push_back(std::move(thin));
    }
  }
  return parts;
}

std::vector<Line2> floor_rings(const std::vector<Region>& shells, const KeepAway& walls, double step, double radius,
                               bool climb, const Cancel& cancel) {
  // Rings less than a radius apart sweep over each other everywhere: a place between two of them lies within a step of
  // the outer one. Only wider ones can leave crumbs; those are gone over. Corners are eased where there is room for it
  // between the two.
  std::vector<Line2> joined;
  const double farthest = 2.5 * step;
  Point here;
  const auto go_on = [&](Line2 line) {
    if (!joined.empty() && distance(here, line.front()) <= farthest && walls.keeps(here, line.front()))
      joined.back().insert(joined.back().end(), line.begin(), line.end());
    else
      joined.push_back(std::move(line));
    here = joined.back().back();
  };
  if (step > 0.98 * radius) {
    for (const Island& crumb : crumbs_of(shells, radius).islands) {
      Line2 line = closed_line(crumb.rings.front());
      begin_nearest(line, here);
      go_on(std::move(line));
    }
  }
  std::vector<Standing> rings = standing_of(shells, step, step < 0.9 * radius ? step : 0);
  if (!climb) {
    for (Standing& ring : rings) std::reverse(ring.line.begin(), ring.line.end());
  }
  for (RingOrder order(std::move(rings)); !order.empty();) {
    cancel.check();
    go_on(order.next(here));
  }
  return joined;
}

std::vector<Line2> rings_where_wanted(const Region& centres, Region wanted, double step, double radius, double least,
                                      const Cancel& cancel) {
  std::vector<Line2> out;
  // What is left is narrow: rings as far apart as the bit is nearly wide do for most of it; closer ones for the rest,
  // which need not go along the walls again.
  for (const double apart : {std::max(step, 1.5 * radius), std::min(step, 0.8 * radius)}) {
    Region shell = out.empty() ? centres : grow(centres, -apart);
    while (!shell.empty() && area(wanted) >= least) {
      cancel.check();
      const Region within_reach = grow(wanted, radius + kBeside, Corner::Round, kRough);
      std::vector<Line2> rings;
      for (const Island& island : shell.islands) {
        for (const Ring& ring : island.rings) rings.push_back(closed_line(ring));
      }
      const std::vector<Line2> now = clip_lines(rings, within_reach);
      if (now.empty() && intersect(shell, within_reach).empty()) break;
      if (!now.empty()) {
        wanted = without_slivers(subtract(wanted, sweep(now, radius - 0.5 * kRough, kRough)));
        out.insert(out.end(), now.begin(), now.end());
      }
      shell = drawn_in(shell, apart);
    }
  }
  return out;
}

}  // namespace doyen
