#include "geometry/region.hpp"

#include <algorithm>
#include <clipper.hpp>
#include <numbers>

#include "problem.hpp"

namespace doyen {
namespace {

namespace cl = ClipperLib;

constexpr double kPerMm = 1.0 / kGrid;

cl::Path to_clipper(const Ring& ring) {
  cl::Path path;
  path.reserve(ring.size());
  for (const Point& p : ring) {
    if (!std::isfinite(p.x) || !std::isfinite(p.y) || std::abs(p.x) > kFarthest || std::abs(p.y) > kFarthest) {
      throw bad_input("An outline has a point that is not a number or lies more than 100 m away.");
    }
    path.emplace_back(std::llround(p.x * kPerMm), std::llround(p.y * kPerMm));
  }
  return path;
}

cl::Paths to_clipper(const std::vector<Ring>& rings) {
  cl::Paths paths;
  paths.reserve(rings.size());
  for (const Ring& ring : rings) paths.push_back(to_clipper(ring));
  return paths;
}

cl::Paths to_clipper(const Region& region) {
  cl::Paths paths;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) paths.push_back(to_clipper(ring));
  }
  return paths;
}

// Starts every ring at its lowest leftmost point, so that equal shapes have equal rings wherever they lie.
Ring from_clipper(const cl::Path& path) {
  const auto first = std::min_element(path.begin(), path.end(), [](const cl::IntPoint& a, const cl::IntPoint& b) {
    return a.X != b.X ? a.X < b.X : a.Y < b.Y;
  });
  Ring ring;
  ring.reserve(path.size());
  auto add = [&](const cl::IntPoint& p) {
    ring.push_back({static_cast<double>(p.X) * kGrid, static_cast<double>(p.Y) * kGrid});
  };
  std::for_each(first, path.end(), add);
  std::for_each(path.begin(), first, add);
  return ring;
}

void collect(const cl::PolyNode& node, Region& out) {
  for (const cl::PolyNode* outer : node.Childs) {
    if (outer->Contour.size() < 3) continue;
    Island island;
    island.rings.push_back(from_clipper(outer->Contour));
    for (const cl::PolyNode* hole : outer->Childs) {
      if (hole->Contour.size() >= 3) island.rings.push_back(from_clipper(hole->Contour));
      collect(*hole, out);
    }
    out.islands.push_back(std::move(island));
  }
}

Region from_tree(const cl::PolyTree& tree) {
  Region region;
  collect(tree, region);
  return region;
}

Region combine(const cl::Paths& subject, const cl::Paths& clip, cl::ClipType type, cl::PolyFillType fill) {
  cl::Clipper clipper;
  clipper.StrictlySimple(true);
  const bool some = clipper.AddPaths(subject, cl::ptSubject, true);
  if (!clipper.AddPaths(clip, cl::ptClip, true) && !some) return {};  // nothing that encloses an area
  cl::PolyTree tree;
  if (!clipper.Execute(type, tree, fill, cl::pftNonZero)) {
    throw bad_input("The outlines cross each other in a way that could not be joined.");
  }
  return from_tree(tree);
}

bool ring_contains(const Ring& ring, Point p) {
  bool inside = false;
  for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
    const Point& a = ring[i];
    const Point& b = ring[j];
    if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

// Outlines that cross themselves without end would keep the sweep busy for hours; no artwork does that.
constexpr std::size_t kMostCrossings = 30'000;

// Counts crossings through a grid of the segments, and stops counting at kMostCrossings or when that takes too long.
class TangleCount {
 public:
  explicit TangleCount(const std::vector<Ring>& rings) {
    double total = 0;
    for (const Ring& ring : rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        segments_.push_back({ring[j], ring[i]});
        total += distance(ring[j], ring[i]);
        box_.add(ring[i]);
      }
    }
    cell_ = std::max(
        {total / (2.0 * static_cast<double>(segments_.size()) + 1), kGrid, box_.width() / 4000, box_.height() / 4000});
  }

  bool too_many() {
    const auto columns = static_cast<std::size_t>(box_.width() / cell_) + 1;
    const auto rows = static_cast<std::size_t>(box_.height() / cell_) + 1;
    std::vector<std::vector<std::uint32_t>> cells(columns * rows);
    std::size_t tests = 0;
    for (std::size_t k = 0; k < segments_.size(); ++k) {
      const auto [a, b] = segments_[k];
      const auto row = [&](double y) {
        return std::min(rows - 1, static_cast<std::size_t>(std::max(0.0, (y - box_.bottom) / cell_)));
      };
      const auto column = [&](double x) {
        return std::min(columns - 1, static_cast<std::size_t>(std::max(0.0, (x - box_.left) / cell_)));
      };
      for (std::size_t r = row(std::min(a.y, b.y)); r <= row(std::max(a.y, b.y)); ++r) {
        // The part of the segment within this row of cells.
        double from = std::min(a.x, b.x), to = std::max(a.x, b.x);
        if (std::abs(b.y - a.y) > kGrid) {
          const double low = box_.bottom + static_cast<double>(r) * cell_;
          const double t0 = std::clamp((low - a.y) / (b.y - a.y), 0.0, 1.0),
                       t1 = std::clamp((low + cell_ - a.y) / (b.y - a.y), 0.0, 1.0);
          from = std::min(a.x + (b.x - a.x) * t0, a.x + (b.x - a.x) * t1);
          to = std::max(a.x + (b.x - a.x) * t0, a.x + (b.x - a.x) * t1);
        }
        for (std::size_t c = column(from); c <= column(to); ++c) {
          for (const std::uint32_t other : cells[r * columns + c]) {
            if (++tests > kMostTests) return false;
            if (cross_each_other(segments_[k], segments_[other]) && ++crossings_ > kMostCrossings) return true;
          }
          cells[r * columns + c].push_back(static_cast<std::uint32_t>(k));
        }
      }
    }
    return false;
  }

 private:
  static constexpr std::size_t kMostTests = 40'000'000;
  using Segment = std::pair<Point, Point>;
  static bool cross_each_other(const Segment& p, const Segment& q) {
    const auto side = [](const Segment& s, Point x) { return cross(s.second - s.first, x - s.first); };
    return side(p, q.first) * side(p, q.second) < 0 && side(q, p.first) * side(q, p.second) < 0;
  }
  std::vector<Segment> segments_;
  Box box_;
  double cell_ = 1;
  std::size_t crossings_ = 0;
};

void refuse_tangle(const std::vector<Ring>& rings) {
  std::size_t points = 0;
  for (const Ring& ring : rings) points += ring.size();
  if (points < 400) return;  // too few to cross that often
  if (TangleCount(rings).too_many()) {
    throw bad_input(
        "The outline crosses itself more than 30,000 times; it is a tangle, not a shape that can be carved.");
  }
}

}  // namespace

void Box::add(Point p) {
  left = std::min(left, p.x);
  right = std::max(right, p.x);
  bottom = std::min(bottom, p.y);
  top = std::max(top, p.y);
}

void Box::add(const Box& other) {
  left = std::min(left, other.left);
  right = std::max(right, other.right);
  bottom = std::min(bottom, other.bottom);
  top = std::max(top, other.top);
}

Box bounds(const Ring& ring) {
  Box box;
  for (const Point& p : ring) box.add(p);
  return box;
}

Box bounds(const Island& island) { return island.rings.empty() ? Box{} : bounds(island.rings.front()); }

Box bounds(const Region& region) {
  Box box;
  for (const Island& island : region.islands) box.add(bounds(island));
  return box;
}

double signed_area(const Ring& ring) {
  double twice = 0;
  for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) twice += cross(ring[j], ring[i]);
  return twice / 2;
}

double area(const Region& region) {
  double total = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) total += signed_area(ring);
  }
  return total;
}

bool contains(const Island& island, Point p) {
  bool inside = false;
  for (const Ring& ring : island.rings) inside ^= ring_contains(ring, p);
  return inside;
}

bool contains(const Region& region, Point p) {
  return std::any_of(region.islands.begin(), region.islands.end(), [&](const Island& i) { return contains(i, p); });
}

std::size_t point_count(const Region& region) {
  std::size_t n = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) n += ring.size();
  }
  return n;
}

Region clean(const std::vector<Ring>& rings, Fill fill) {
  const auto type = fill == Fill::NonZero ? cl::pftNonZero : cl::pftEvenOdd;
  cl::Paths paths = to_clipper(rings);
  refuse_tangle(rings);
  Region once = combine(paths, {}, cl::ctUnion, type);
  // Where outlines crossed, the rounded crossing points can leave hair-thin new crossings; a second pass removes them.
  std::size_t before = 0;
  for (const Ring& ring : rings) before += ring.size();
  if (point_count(once) == before) return once;
  return combine(to_clipper(once), {}, cl::ctUnion, cl::pftNonZero);
}

Region unite(const Region& a, const Region& b) {
  return combine(to_clipper(a), to_clipper(b), cl::ctUnion, cl::pftNonZero);
}

Region subtract(const Region& a, const Region& b) {
  return combine(to_clipper(a), to_clipper(b), cl::ctDifference, cl::pftNonZero);
}

Region intersect(const Region& a, const Region& b) {
  return combine(to_clipper(a), to_clipper(b), cl::ctIntersection, cl::pftNonZero);
}

Region grow(const Region& region, double mm, Corner corner, double arc_error) {
  if (mm == 0) return region;
  cl::ClipperOffset offset(4.0, arc_error * kPerMm);
  offset.AddPaths(to_clipper(region), corner == Corner::Round ? cl::jtRound : cl::jtMiter, cl::etClosedPolygon);
  cl::PolyTree tree;
  offset.Execute(tree, mm * kPerMm);
  return from_tree(tree);
}

Region opening(const Region& region, double radius, double arc_error) {
  return intersect(grow(grow(region, -radius, Corner::Round, arc_error), radius, Corner::Round, arc_error), region);
}

Transform Transform::then(const Transform& next) const {
  return {next.a * a + next.c * b, next.b * a + next.d * b,          next.a * c + next.c * d,
          next.b * c + next.d * d, next.a * e + next.c * f + next.e, next.b * e + next.d * f + next.f};
}

Transform Transform::turn(double degrees) {
  const double angle = degrees * std::numbers::pi / 180;
  const double c = degrees == 90 || degrees == -90 ? 0 : std::cos(angle);
  const double s = std::sin(angle);
  return {c, s, -s, c, 0, 0};
}

Ring transformed(const Ring& ring, const Transform& by) {
  Ring out;
  out.reserve(ring.size());
  for (const Point& p : ring) out.push_back(by.apply(p));
  if (by.determinant() < 0) std::reverse(out.begin(), out.end());
  return out;
}

Region transformed(const Region& region, const Transform& by) {
  Region out = region;
  for (Island& island : out.islands) {
    for (Ring& ring : island.rings) ring = transformed(ring, by);
  }
  return out;
}

}  // namespace doyen
