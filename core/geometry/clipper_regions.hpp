// Regions to the polygon library and back; for geometry/ alone.
#pragma once

#include "geometry/clipper_paths.hpp"

namespace doyen::clipping {

ClipperLib::Paths to_clipper(const std::vector<Ring>& rings);
ClipperLib::Paths to_clipper(const Region& region);
// Begins at its lowest leftmost point, so that equal shapes have equal rings wherever they lie.
Ring from_clipper(const ClipperLib::Path& path);

// From so many outlines on the library's own nesting goes over all of them for each: from_paths() finds theirs.
inline constexpr std::size_t kManyPaths = 400;

Region from_tree(const ClipperLib::PolyTree& tree);
// Outlines that do not cross, outer ones counter-clockwise: each hole goes to the least outer one round it.
Region from_paths(const ClipperLib::Paths& paths);

}  // namespace doyen::clipping
