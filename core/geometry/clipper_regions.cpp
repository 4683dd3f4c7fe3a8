#include "geometry/clipper_regions.hpp"

#include <algorithm>

namespace doyen::clipping {

namespace cl = ClipperLib;

cl::Paths to_clipper(const std::vector<Ring>& rings) {
  cl::Paths paths;
  paths.reserve(rings.size());
  for (const Ring& ring : rings) paths.push_back(doyen::to_clipper(ring));
  return paths;
}

cl::Paths to_clipper(const Region& region) {
  cl::Paths paths;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) paths.push_back(doyen::to_clipper(ring));
  }
  return paths;
}

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

namespace {

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

}  // namespace

Region from_tree(const cl::PolyTree& tree) {
  Region region;
  collect(tree, region);
  return region;
}

namespace {

// Whether the hole lies in that outline; they touch at most.
bool lies_in(const cl::Path& hole, const cl::Path& outer) {
  for (const cl::IntPoint& p : hole) {
    if (const int where = cl::PointInPolygon(p, outer); where >= 0) return where == 1;
  }
  return true;
}

struct GridBox {
  cl::cInt left, bottom, right, top;
  [[nodiscard]] bool holds(const GridBox& o) const {
    return left <= o.left && o.right <= right && bottom <= o.bottom && o.top <= top;
  }
};

GridBox box_of(const cl::Path& path) {
  GridBox box{path.front().X, path.front().Y, path.front().X, path.front().Y};
  for (const cl::IntPoint& p : path)
    box = {std::min(box.left, p.X), std::min(box.bottom, p.Y), std::max(box.right, p.X), std::max(box.top, p.Y)};
  return box;
}

}  // namespace

Region from_paths(const cl::Paths& paths) {
  struct Outer {
    const cl::Path* path;
    GridBox box;
    double area;
    std::size_t island;
  };
  Region region;
  std::vector<Outer> outers;
  for (const cl::Path& path : paths) {
    const double area = path.size() < 3 ? 0 : cl::Area(path);
    if (area <= 0) continue;
    outers.push_back({&path, box_of(path), area, region.islands.size()});
    region.islands.push_back({{from_clipper(path)}});
  }
  std::sort(outers.begin(), outers.end(), [](const Outer& a, const Outer& b) { return a.area < b.area; });
  for (const cl::Path& path : paths) {
    if (path.size() < 3 || cl::Area(path) >= 0) continue;
    const GridBox box = box_of(path);
    const auto round = std::find_if(outers.begin(), outers.end(),
                                    [&](const Outer& o) { return o.box.holds(box) && lies_in(path, *o.path); });
    if (round != outers.end()) region.islands[round->island].rings.push_back(from_clipper(path));
  }
  return region;
}

}  // namespace doyen::clipping
