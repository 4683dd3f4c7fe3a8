#include "relief/rounded_edge.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

// Less would not be seen: of several short sides one is made, never farther off than that.
Ring coarser(const Ring& ring, double step) {
  Ring out;
  for (const Point p : ring) {
    if (out.empty() || distance(out.back(), p) >= step) out.push_back(p);
  }
  return out;
}

}  // namespace

void round_edge(HeightField& field, const Region& sign, double radius) {
  if (radius <= 0 || sign.empty()) return;
  const std::vector<unsigned char> inside = cells_inside(sign, field);
  const auto lower = [&](Point a, Point b) {
    const auto columns = field.columns_in(std::min(a.x, b.x) - radius, std::max(a.x, b.x) + radius);
    const auto rows = field.rows_in(std::min(a.y, b.y) - radius, std::max(a.y, b.y) + radius);
    for (std::size_t r = rows.begin; r < rows.end; ++r) {
      for (std::size_t c = columns.begin; c < columns.end; ++c) {
        if (inside[r * field.columns() + c] == 0) continue;
        const double in = radius - distance(Point{field.x_of(c), field.y_of(r)}, a, b);
        if (in <= 0) continue;
        const double z = std::sqrt(std::max(0.0, radius * radius - in * in)) - radius;
        float& height = field.row(r)[c];
        height = std::min(height, static_cast<float>(z));
      }
    }
  };
  for (const Island& island : sign.islands) {
    const Ring ring = coarser(island.rings.front(), field.cell() / 2);
    for (std::size_t i = 0; i < ring.size(); ++i) lower(ring[i], ring[(i + 1) % ring.size()]);
  }
}

}  // namespace doyen
