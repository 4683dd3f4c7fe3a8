#include "geometry/region.hpp"

#include <algorithm>
#include <array>
#include <map>
#include <numbers>

#include "cancel.hpp"
#include "geometry/clipper_regions.hpp"
#include "geometry/meetings.hpp"
#include "geometry/polyline.hpp"
#include "geometry/tangle.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

namespace cl = ClipperLib;
using clipping::from_clipper;
using clipping::from_paths;
using clipping::from_tree;
using clipping::kManyPaths;
using clipping::to_clipper;

Region combine(const cl::Paths& subject, const cl::Paths& clip, cl::ClipType type, cl::PolyFillType fill) {
  Cancel::check_here();
  cl::Clipper clipper;
  clipper.StrictlySimple(true);
  const bool some = clipper.AddPaths(subject, cl::ptSubject, true);
  if (!clipper.AddPaths(clip, cl::ptClip, true) && !some) return {};  // nothing that encloses an area
  cl::PolyTree tree;
  cl::Paths flat;
  const bool many = subject.size() + clip.size() > kManyPaths;
  if (!(many ? clipper.Execute(type, flat, fill, cl::pftNonZero) : clipper.Execute(type, tree, fill, cl::pftNonZero)))
    throw bad_input(say("The outlines cross each other in a way that could not be joined."));
  return many ? from_paths(flat) : from_tree(tree);
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

constexpr std::size_t kMostPointsOfOne = 50'000;

// Consecutive points that are equal on the grid become one; rings that enclose nothing go.
cl::Paths without_repeats(const cl::Paths& paths) {
  cl::Paths out;
  for (const cl::Path& path : paths) {
    cl::Path thin;
    thin.reserve(path.size());
    for (const GridPoint& p : path) {
      if (thin.empty() || thin.back() != p) thin.push_back(p);
    }
    while (thin.size() > 1 && thin.back() == thin.front()) thin.pop_back();
    if (thin.size() >= 3) out.push_back(std::move(thin));
  }
  return out;
}

// The same ring again changes nothing where every ring fills, and takes itself away where every second one does.
cl::Paths without_doubles(cl::Paths paths, Fill fill) {
  constexpr std::size_t kFew = 8;
  if (paths.size() < kFew) return paths;
  const auto less = [](const GridPoint& a, const GridPoint& b) { return a.X != b.X ? a.X < b.X : a.Y < b.Y; };
  std::map<std::vector<std::pair<cl::cInt, cl::cInt>>, std::size_t>
      seen;  // how often, by the ring from its least point on
  std::vector<std::size_t*> count;
  for (const cl::Path& path : paths) {
    const auto first = static_cast<std::size_t>(std::min_element(path.begin(), path.end(), less) - path.begin());
    std::vector<std::pair<cl::cInt, cl::cInt>> key;
    key.reserve(path.size());
    for (std::size_t i = 0; i < path.size(); ++i) {
      const GridPoint& p = path[(first + i) % path.size()];
      key.emplace_back(p.X, p.Y);
    }
    count.push_back(&seen[std::move(key)]);
    ++*count.back();
  }
  if (seen.size() == paths.size()) return paths;
  cl::Paths out;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    const bool wanted = fill == Fill::NonZero ? *count[i] > 0 : *count[i] % 2 == 1;
    *count[i] = 0;  // the first one stands for all
    if (wanted) out.push_back(std::move(paths[i]));
  }
  return out;
}

// Rings that nowhere meet need no sweep: only who lies inside whom.
Region nest(const cl::Paths& paths, Fill fill) {
  struct Node {
    Ring ring;
    Box box;
    double area;
    int winding = 0;  // just outside it
    std::size_t parent = SIZE_MAX, island = SIZE_MAX;
  };
  std::vector<Node> nodes;
  for (const cl::Path& path : paths) {
    Node node;
    node.ring = from_clipper(path);
    node.box = bounds(node.ring);
    node.area = signed_area(node.ring);
    nodes.push_back(std::move(node));
  }
  std::sort(nodes.begin(), nodes.end(),
            [](const Node& a, const Node& b) { return std::abs(a.area) > std::abs(b.area); });
  Region region;
  for (std::size_t i = 0; i < nodes.size(); ++i) {
    Cancel::check_here();
    Node& node = nodes[i];
    const Point p = node.ring.front();
    for (std::size_t k = i; k-- > 0;) {  // the smallest that holds it
      if (nodes[k].box.contains(p) && ring_contains(nodes[k].ring, p)) {
        node.parent = k;
        break;
      }
    }
    const int turn = node.area > 0 ? 1 : -1;
    if (node.parent != SIZE_MAX) {
      const Node& up = nodes[node.parent];
      node.winding = up.winding + (up.area > 0 ? 1 : -1);
      if (fill == Fill::EvenOdd) node.winding &= 1;
    }
    const auto filled = [&](int w) { return fill == Fill::EvenOdd ? (w & 1) != 0 : w != 0; };
    const bool outside = filled(node.winding), inside = filled(node.winding + turn);
    const std::size_t around = node.parent == SIZE_MAX ? SIZE_MAX : nodes[node.parent].island;
    if (outside == inside) {
      node.island = around;  // no edge of the region: what lies within belongs to what is around
    } else if (inside) {
      node.island = region.islands.size();
      Ring ring = node.ring;
      if (turn < 0) std::reverse(ring.begin() + 1, ring.end());
      region.islands.push_back({{std::move(ring)}});
    } else {
      Ring ring = node.ring;
      if (turn > 0) std::reverse(ring.begin() + 1, ring.end());
      region.islands[around].rings.push_back(std::move(ring));
      node.island = around;
    }
  }
  return region;
}

}  // namespace

double distance(const Box& box, Point a, Point b) {
  // The share of the move that lies between the rectangle's sides, axis by axis.
  double from = 0, to = 1;
  for (const auto& [p, d, low, high] :
       {std::array{a.x, b.x - a.x, box.left, box.right}, std::array{a.y, b.y - a.y, box.bottom, box.top}}) {
    if (std::abs(d) < 1e-12) {
      if (p < low || p > high) to = -1;
      continue;
    }
    from = std::max(from, std::min((low - p) / d, (high - p) / d));
    to = std::min(to, std::max((low - p) / d, (high - p) / d));
  }
  if (from <= to) return 0;
  double least = 1e300;
  for (const Point& corner :
       {Point{box.left, box.bottom}, Point{box.right, box.bottom}, Point{box.right, box.top}, Point{box.left, box.top}})
    least = std::min(least, distance(corner, a, b));
  for (const Point& end : {a, b})
    least = std::min(
        least, distance(end, Point{std::clamp(end.x, box.left, box.right), std::clamp(end.y, box.bottom, box.top)}));
  return least;
}

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

Region region_of(const Box& box) {
  return clean({{{box.left, box.bottom}, {box.right, box.bottom}, {box.right, box.top}, {box.left, box.top}}});
}

double area(const Region& region) {
  double total = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) total += signed_area(ring);
  }
  return total;
}

Point centroid(const Region& region) {
  Point sum;
  double twice = 0;
  const Point about = bounds(region).centre();  // near the figures, so that nothing cancels
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Point a = ring[j] - about, b = ring[i] - about;
        const double k = cross(a, b);
        twice += k;
        sum = sum + (a + b) * (k / 3);
      }
    }
  }
  return std::abs(twice) < 1e-12 ? about : about + sum * (1 / twice);
}

bool contains(const Island& island, Point p) {
  bool inside = false;
  for (const Ring& ring : island.rings) inside ^= ring_contains(ring, p);
  return inside;
}

bool contains(const Region& region, Point p) {
  return std::any_of(region.islands.begin(), region.islands.end(), [&](const Island& i) { return contains(i, p); });
}

Region filled(const Region& region) {
  std::vector<Ring> rings;
  for (const Island& island : region.islands) rings.push_back(island.rings.front());
  return tidied(rings);
}

std::size_t point_count(const Region& region) {
  std::size_t n = 0;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) n += ring.size();
  }
  return n;
}

namespace {

void check_points_of_one(const cl::Paths& paths) {
  std::size_t largest = 0, all = 0;
  for (const cl::Path& path : paths) {
    largest = std::max(largest, path.size());
    all += path.size();
  }
  if (largest > kMostPointsOfOne)
    throw bad_input(say("One outline has {0} points, more than the 50,000 that one may have; thin it.", largest));
  check_points(all);
}

void check_heap(std::size_t points) {
  if (points > kMostPointsOfOne)
    throw bad_input(
        say("Outlines that lie on each other have {0} points together, more than the 50,000 that one may have; thin "
            "them, or use fewer.",
            points));
}

Region cleaned(const std::vector<Ring>& rings, Fill fill, bool artwork) {
  const auto type = fill == Fill::NonZero ? cl::pftNonZero : cl::pftEvenOdd;
  const cl::Paths paths = without_doubles(without_repeats(to_clipper(rings)), fill);
  std::size_t before = 0;
  for (const cl::Path& path : paths) before += path.size();
  if (before == 0) return {};
  if (artwork) check_points_of_one(paths);
  Cancel::check_here();
  Meetings meetings(paths);
  if (meetings.none()) return nest(paths, fill);
  if (meetings.too_many()) {
    throw bad_input(say("The outline crosses itself more than 30,000 times; it is a tangle, not a shape to carve."));
  }
  if (artwork) check_heap(meetings.largest_heap());
  Region once = combine(paths, {}, cl::ctUnion, type);
  // Where outlines crossed, the rounded crossing points can leave hair-thin new crossings; a second pass removes them.
  if (point_count(once) == before) return once;
  return combine(to_clipper(once), {}, cl::ctUnion, cl::pftNonZero);
}

}  // namespace

Region clean(const std::vector<Ring>& rings, Fill fill) { return cleaned(rings, fill, true); }

Region tidied(const std::vector<Ring>& rings) { return cleaned(rings, Fill::NonZero, false); }

void check_points(std::size_t points) {
  if (points > kMostPoints)
    throw bad_input(say("The outlines have more than 600,000 points; thin them, or bring them in parts."));
}

bool is_tangle(const std::vector<Ring>& rings) { return Meetings(without_repeats(to_clipper(rings))).too_many(); }

Region unite(const Region& a, const Region& b) {
  return combine(to_clipper(a), to_clipper(b), cl::ctUnion, cl::pftNonZero);
}

Region subtract(const Region& a, const Region& b) {
  return combine(to_clipper(a), to_clipper(b), cl::ctDifference, cl::pftNonZero);
}

Region intersect(const Region& a, const Region& b) {
  return combine(to_clipper(a), to_clipper(b), cl::ctIntersection, cl::pftNonZero);
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

Region left_inside(const Region& region) {
  struct Hole {
    Island ring;
    Box box;
  };
  std::vector<Hole> holes;
  for (const Island& island : region.islands) {
    for (std::size_t i = 1; i < island.rings.size(); ++i)
      holes.push_back({{{island.rings[i]}}, bounds(island.rings[i])});
  }
  std::vector<Ring> rings;
  for (const Hole& hole : holes) rings.push_back(hole.ring.rings.front());
  for (const Island& island : region.islands) {
    const Ring& outer = island.rings.front();
    const auto within = [&](const Hole& hole) {
      return hole.box.contains(outer.front()) && contains(hole.ring, outer.front());
    };
    if (std::any_of(holes.begin(), holes.end(), within)) rings.push_back(outer);
  }
  return clean(rings, Fill::EvenOdd);
}

Region moved_on_grid(Region region, Point by) {
  for (Island& island : region.islands) {
    for (Ring& ring : island.rings) {
      for (Point& p : ring) p = {snap_to_grid(p.x + by.x), snap_to_grid(p.y + by.y)};
    }
  }
  return region;
}

Region transformed(const Region& region, const Transform& by) {
  Region out = region;
  for (Island& island : out.islands) {
    for (Ring& ring : island.rings) ring = transformed(ring, by);
  }
  return out;
}

}  // namespace doyen
