#include "treatments/drill/drill_places.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

void add_along(const Line2& line, double spacing, std::vector<Point>& holes) {
  const bool closed = line.size() > 3 && line.front() == line.back();
  double whole = 0;
  for (std::size_t i = 1; i < line.size(); ++i) whole += distance(line[i - 1], line[i]);
  // As near to the spacing asked for as goes in evenly.
  const int gaps = std::clamp(static_cast<int>(std::lround(std::min(1e6, whole / spacing) + 1e-9)), 1, 5000);
  std::size_t i = 1;
  double run = 0;
  for (int k = 0; k < (closed ? gaps : gaps + 1); ++k) {
    const double wanted = whole * k / gaps;
    while (i + 1 < line.size() && run + distance(line[i - 1], line[i]) < wanted) {
      run += distance(line[i - 1], line[i]);
      ++i;
    }
    const double len = distance(line[i - 1], line[i]);
    holes.push_back(len > 0 ? line[i - 1] + (line[i] - line[i - 1]) * std::min(1.0, (wanted - run) / len)
                            : line[i - 1]);
  }
}

}  // namespace

std::vector<Point> drill_points(const Outlines& outlines, const DrillChoices& drill) {
  std::vector<Point> holes;
  if (drill.spacing <= 0) {
    for (const Island& island : outlines.region.islands)
      holes.push_back(centroid(Region{{Island{{island.rings.front()}}}}));
    for (const Line2& line : outlines.lines) holes.push_back(line.front());
    return holes;
  }
  for (const Line2& line : outlines.lines) {
    if (line.size() > 1) add_along(line, drill.spacing, holes);
  }
  for (const Island& island : outlines.region.islands) {
    for (const Ring& ring : island.rings) {
      Line2 line = ring;
      line.push_back(ring.front());
      add_along(line, drill.spacing, holes);
    }
  }
  return holes;
}

}  // namespace doyen
