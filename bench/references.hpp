// What our own work is measured against, of the same input.
#pragma once

#include <boost/polygon/voronoi.hpp>
#include <polyclipping/clipper.hpp>

#include "clock.hpp"
#include "geometry/region.hpp"

namespace doyen::bench {

// R: the bare Boost.Polygon Voronoi build of the segments. Seconds.
inline double bare_build(const Region& region) {
  boost::polygon::voronoi_builder<std::int32_t> builder;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
        builder.insert_segment(to_grid(ring[j].x), to_grid(ring[j].y), to_grid(ring[i].x), to_grid(ring[i].y));
    }
  }
  boost::polygon::voronoi_diagram<double> diagram;
  const auto from = Clock::now();
  builder.construct(&diagram);
  const double took = seconds_since(from);
  return took;
}

// The rings alone, by Clipper's own offsetting and cleaning and nothing else: what a bit of this diameter would be led
// along. The regions that clear_floor() steps through are offset the same number of times. Seconds.
inline double bare_offsets(const Region& centres_of, double radius, double step) {
  constexpr double kUnit = 1e4;  // Clipper's grid: 0.1 µm
  ClipperLib::Paths paths;
  for (const Island& island : centres_of.islands) {
    for (const Ring& ring : island.rings) {
      auto& path = paths.emplace_back();
      for (const Point& p : ring)
        path.emplace_back(static_cast<ClipperLib::cInt>(p.x * kUnit), static_cast<ClipperLib::cInt>(p.y * kUnit));
    }
  }
  const auto from = Clock::now();
  double by = -radius;
  while (!paths.empty()) {
    ClipperLib::ClipperOffset offset(2, 0.002 * kUnit);
    offset.AddPaths(paths, ClipperLib::jtRound, ClipperLib::etClosedPolygon);
    ClipperLib::Paths next;
    offset.Execute(next, by * kUnit);
    ClipperLib::CleanPolygons(next, paths, 0.002 * kUnit);  // Clipper's own, or its points multiply without end
    by = -step;
  }
  return seconds_since(from);
}

}  // namespace doyen::bench
