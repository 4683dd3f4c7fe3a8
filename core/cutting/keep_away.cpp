#include "cutting/keep_away.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

bool cross_each_other(Point a, Point b, Point c, Point d) {
  const double side_c = cross(b - a, c - a), side_d = cross(b - a, d - a);
  const double side_a = cross(d - c, a - c), side_b = cross(d - c, b - c);
  return ((side_c < 0) != (side_d < 0)) && ((side_a < 0) != (side_b < 0));
}

}  // namespace

KeepAway::KeepAway(const Region& region, double mm) : away_(mm), size_(std::max(1.5, mm)) {
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        edges_.push_back({a, b});
        const std::size_t index = edges_.size() - 1;
        // A long edge is put down in parts, so that it lies only where it is.
        const int parts = std::max(1, static_cast<int>(std::ceil(distance(a, b) / size_)));
        for (int k = 0; k < parts; ++k) {
          each_cell(a + (b - a) * (static_cast<double>(k) / parts), a + (b - a) * (static_cast<double>(k + 1) / parts),
                    0, [&](std::int64_t key) {
                      std::vector<std::size_t>& there = cells_[key];
                      if (there.empty() || there.back() != index) there.push_back(index);
                    });
        }
      }
    }
  }
}

template <typename Act>
void KeepAway::each_cell(Point a, Point b, double grown, Act act) const {
  const auto at = [&](double mm) { return static_cast<std::int64_t>(std::floor(mm / size_)); };
  for (std::int64_t c = at(std::min(a.x, b.x) - grown); c <= at(std::max(a.x, b.x) + grown); ++c) {
    for (std::int64_t r = at(std::min(a.y, b.y) - grown); r <= at(std::max(a.y, b.y) + grown); ++r)
      act(c * 2'000'003 + r);
  }
}

bool KeepAway::keeps(Point a, Point b) const {
  bool away = true;
  each_cell(a, b, away_, [&](std::int64_t key) {
    const auto there = cells_.find(key);
    if (!away || there == cells_.end()) return;
    away = std::none_of(there->second.begin(), there->second.end(), [&](std::size_t i) {
      const auto& [c, d] = edges_[i];
      return std::min({distance(a, c, d), distance(b, c, d), distance(c, a, b), distance(d, a, b)}) < away_ ||
             cross_each_other(a, b, c, d);
    });
  });
  return away;
}

}  // namespace doyen
