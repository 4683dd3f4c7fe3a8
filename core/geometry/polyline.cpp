#include "geometry/polyline.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/clipper_paths.hpp"
#include "geometry/tangle.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

namespace cl = ClipperLib;

}  // namespace

Line2 closed_line(const Ring& ring) {
  Line2 line = ring;
  line.push_back(ring.front());
  return line;
}

bool is_closed(const Line2& line) { return line.size() > 2 && line.front() == line.back(); }

namespace {

// Some of the lines, from `from` on; returns where to go on. Clipper's sweep grows with what lies side by side, and
// cannot be stopped.
std::size_t clip_some(const std::vector<Line2>& lines, std::size_t from, const Region& region,
                      const std::vector<Box>& boxes, std::vector<Line2>& out) {
  constexpr std::size_t kPoints = 6000;
  cl::Clipper clipper;
  Box box;
  for (std::size_t points = 0; from < lines.size() && points < kPoints; ++from) {
    clipper.AddPath(to_clipper(lines[from]), cl::ptSubject, false);
    for (const Point& p : lines[from]) box.add(p);
    points += lines[from].size();
  }
  for (std::size_t i = 0; i < region.islands.size(); ++i) {
    if (!boxes[i].meets(box)) continue;
    for (const Ring& ring : region.islands[i].rings) clipper.AddPath(to_clipper(ring), cl::ptClip, true);
  }
  cl::PolyTree tree;
  clipper.Execute(cl::ctIntersection, tree, cl::pftNonZero, cl::pftNonZero);
  cl::Paths found;
  cl::OpenPathsFromPolyTree(tree, found);
  for (const cl::Path& path : found) {
    if (path.size() < 2) continue;
    Line2& line = out.emplace_back();
    for (const cl::IntPoint& p : path)
      line.push_back({static_cast<double>(p.X) * kGrid, static_cast<double>(p.Y) * kGrid});
  }
  return from;
}

}  // namespace

std::vector<Line2> clip_lines(const std::vector<Line2>& lines, const Region& region) {
  if (lines.empty() || region.empty()) return {};
  std::vector<Box> boxes;
  for (const Island& island : region.islands) boxes.push_back(bounds(island));
  std::vector<Line2> out;
  for (std::size_t from = 0; from < lines.size();) {
    Cancel::check_here();
    from = clip_some(lines, from, region, boxes, out);
  }
  return out;
}

Region stroked(const std::vector<Line2>& lines, double width, StrokeEnd end, StrokeJoint joint, double miter) {
  if (!(width >= 0 && width <= kFarthest)) throw bad_input(say("A stroke is more than 100 m wide."));
  // One line at a time: Clipper would let opposite windings of two lines cancel.
  std::vector<Ring> rings;
  for (const Line2& line : lines) {
    if (line.size() > 100 && is_tangle({line}))
      throw bad_input(say("A line crosses itself more than 30,000 times; it is a tangle, not a stroke to carve."));
    cl::ClipperOffset offset(miter, 0.002 / kGrid);
    cl::Path path = to_clipper(line);
    const bool closed = path.size() > 3 && path.front() == path.back();
    if (closed) path.pop_back();
    const auto ends = closed                    ? cl::etClosedLine
                      : end == StrokeEnd::Flat  ? cl::etOpenButt
                      : end == StrokeEnd::Round ? cl::etOpenRound
                                                : cl::etOpenSquare;
    offset.AddPath(path, joint == StrokeJoint::Round ? cl::jtRound : cl::jtMiter, ends);
    cl::Paths paths;
    offset.Execute(paths, width / 2 / kGrid);
    for (const cl::Path& found : paths) {
      Ring& ring = rings.emplace_back();
      for (const cl::IntPoint& p : found)
        ring.push_back({static_cast<double>(p.X) * kGrid, static_cast<double>(p.Y) * kGrid});
    }
  }
  return clean(rings);
}

Region sweep(const std::vector<Line2>& lines, double radius, double arc_error) {
  cl::ClipperOffset offset(2.0, arc_error / kGrid);
  for (const Line2& line : lines) offset.AddPath(to_clipper(line), cl::jtRound, cl::etOpenRound);
  cl::Paths paths;
  offset.Execute(paths, radius / kGrid);
  std::vector<Ring> rings;
  for (const cl::Path& path : paths) {
    Ring& ring = rings.emplace_back();
    for (const cl::IntPoint& p : path)
      ring.push_back({static_cast<double>(p.X) * kGrid, static_cast<double>(p.Y) * kGrid});
  }
  return tidied(rings);
}

std::vector<Line2> hatch(const Region& region, double step, const Cancel& cancel, double degrees) {
  if (degrees != 0) {
    const Transform back = Transform::turn(degrees);
    std::vector<Line2> rows = hatch(transformed(region, Transform::turn(-degrees)), step, cancel);
    for (Line2& row : rows) {
      for (Point& p : row) p = back.apply(p);
    }
    return rows;
  }
  const Box box = bounds(region);
  if (box.empty() || !(step > 0)) return {};
  const auto rows = static_cast<std::size_t>(box.height() / step) + 1;
  const double first = box.bottom + (box.height() - static_cast<double>(rows - 1) * step) / 2;
  std::vector<std::vector<double>> crossings(rows);
  for (const Island& island : region.islands) {
    cancel.check();
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Point &a = ring[j].y < ring[i].y ? ring[j] : ring[i], &b = ring[j].y < ring[i].y ? ring[i] : ring[j];
        // Whether a row belongs to an edge is decided in one way only, by comparing heights: a row through a point
        // belongs to the edge above it, so that every row enters as often as it leaves. Where to begin looking is
        // rounded, and so is a row early.
        const double from = std::max(0.0, std::floor((a.y - first) / step) - 1);
        for (auto r = static_cast<std::size_t>(from); r < rows; ++r) {
          const double y = first + static_cast<double>(r) * step;
          if (y < a.y) continue;
          if (y >= b.y) break;
          crossings[r].push_back(a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y));
        }
      }
    }
  }
  std::vector<Line2> out;
  for (std::size_t r = 0; r < rows; ++r) {
    std::sort(crossings[r].begin(), crossings[r].end());
    const double y = first + static_cast<double>(r) * step;
    for (std::size_t k = 0; k + 1 < crossings[r].size(); k += 2) {
      if (crossings[r][k + 1] - crossings[r][k] > kGrid)
        out.push_back({{crossings[r][k], y}, {crossings[r][k + 1], y}});
    }
  }
  return out;
}

// From each kept point a cone holds every direction that passes all points since within the tolerance; one pass.
Line2 thinned(const Line2& line, double tolerance) {
  if (line.size() < 4) return line;
  std::vector<Point> out{line.front()};
  Point low, high;  // the cone's flanks; it is never as wide as half a turn
  double farthest = 0;
  bool open = true;  // nothing has narrowed the cone yet
  for (std::size_t i = 1; i < line.size(); ++i) {
    const Point d = line[i] - out.back();
    const double len = length(d);
    bool inside = len >= farthest - tolerance;
    if (len > tolerance) inside = inside && (open || (cross(low, d) >= 0 && cross(d, high) >= 0));
    // A point that is no number lies nowhere: it is passed on, and refused by whoever makes something of it.
    if (!inside && (!open || farthest > 0)) {  // the point before ends the stretch; this one begins the next
      out.push_back(line[i - 1]);
      open = true;
      farthest = 0;
      --i;
      continue;
    }
    farthest = std::max(farthest, len);
    if (len <= tolerance) continue;
    // What passes this point within the tolerance: turned by the angle whose sine that is of its distance.
    const double up = std::sqrt(len * len - tolerance * tolerance);
    const Point right{up * d.x + tolerance * d.y, up * d.y - tolerance * d.x};
    const Point left{up * d.x - tolerance * d.y, up * d.y + tolerance * d.x};
    if (open || cross(low, right) > 0) low = right;
    if (open || cross(left, high) > 0) high = left;
    open = false;
  }
  out.push_back(line.back());
  return out;
}

Region thinned(const Region& region, double tolerance) {
  std::vector<Ring> rings;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      Line2 line = ring;
      line.push_back(ring.front());
      line = thinned(line, tolerance);
      line.pop_back();
      if (line.size() >= 3) rings.push_back(std::move(line));
    }
  }
  return tidied(rings);
}

double ring_length(const Ring& ring) {
  double total = 0;
  for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) total += distance(ring[j], ring[i]);
  return total;
}

OnRing on_ring(const Ring& ring, double share) { return RingWalk(ring).at(share); }

RingWalk::RingWalk(const Ring& ring) : ring_(ring) {
  run_.reserve(ring.size() + 1);
  run_.push_back(0);
  for (std::size_t i = 0; i < ring.size(); ++i)
    run_.push_back(run_.back() + distance(ring[i], ring[(i + 1) % ring.size()]));
}

OnRing RingWalk::at(double share) const {
  const double along = (share - std::floor(share)) * length();
  const auto next = std::lower_bound(run_.begin() + 1, run_.end(), along);
  for (auto i = static_cast<std::size_t>(next - run_.begin()); i < run_.size(); ++i) {
    const Point &a = ring_[i - 1], &b = ring_[i % ring_.size()];
    const double len = run_[i] - run_[i - 1];
    if (len > 0) return {a + (b - a) * std::clamp((along - run_[i - 1]) / len, 0.0, 1.0), (b - a) * (1 / len)};
  }
  return {ring_.front(), {1, 0}};
}

double share_nearest(const Ring& ring, Point p) {
  double best = 1e300, share = 0, run = 0;
  for (std::size_t i = 0; i < ring.size(); ++i) {
    const Point& a = ring[i];
    const Point d = ring[(i + 1) % ring.size()] - a;
    const double len = length(d);
    const double t = len > 0 ? std::clamp(dot(p - a, d) / (len * len), 0.0, 1.0) : 0;
    const double away = distance(p, a + d * t);
    if (away < best) {
      best = away;
      share = run + t * len;
    }
    run += len;
  }
  return run > 0 ? share / run : 0;
}

double distance_to_outline(const Region& region, Point p) {
  double best = 1e300;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        best = std::min(best, distance(p, ring[j], ring[i]));
      }
    }
  }
  return best;
}

Point inner_point(const Island& island) {
  const Box box = bounds(island);
  const double y = snap_to_grid(box.centre().y) + kGrid / 3;  // through no corner
  std::vector<double> crossed;
  for (const Ring& ring : island.rings) {
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
      const Point &a = ring[i], &b = ring[j];
      if ((a.y > y) != (b.y > y)) crossed.push_back(a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y));
    }
  }
  std::sort(crossed.begin(), crossed.end());
  Point best = box.centre();
  double longest = -1;
  for (std::size_t i = 0; i + 1 < crossed.size(); i += 2) {
    if (crossed[i + 1] - crossed[i] <= longest) continue;
    longest = crossed[i + 1] - crossed[i];
    best = {(crossed[i] + crossed[i + 1]) / 2, y};
  }
  return best;
}

}  // namespace doyen
