#include "artwork/made/by_hand.hpp"

#include "geometry/polyline.hpp"
#include "geometry/region.hpp"

namespace doyen {

Path hand_path(const std::vector<HandStroke>& strokes, bool closed, double tolerance) {
  Path path;
  for (const HandStroke& stroke : strokes) {
    if (stroke.way.size() < 2) continue;
    if (path.empty()) path.move(stroke.way.front());
    const Line2 kept = stroke.way.size() > 2 ? thinned(stroke.way, tolerance) : stroke.way;
    for (std::size_t i = 0; i + 1 < kept.size(); ++i) {
      if (kept.size() == 2) {
        path.line(kept[1]);
        continue;
      }
      const Point a = kept[i], b = kept[i + 1];
      const Point before = i > 0 ? kept[i - 1] : a, after = i + 2 < kept.size() ? kept[i + 2] : b;
      path.curve(a + (b - before) * (1.0 / 6), b - (after - a) * (1.0 / 6), b);
    }
  }
  if (closed && !path.empty()) path.close();
  return path;
}

}  // namespace doyen
