// Rings walked at one depth, with what runs up from them into corners.
#pragma once

#include <algorithm>
#include <cstdint>
#include <unordered_map>
#include <vector>

#include "cutting/pass.hpp"

namespace doyen {

// A limit pass is a closed ring along the floor's edge; the branches that run up from it into the corners are walked as
// detours of that ring instead of with a lift each.
class RingSplicer {
 public:
  RingSplicer(std::vector<Ring> rings, double z) : rings_(std::move(rings)), z_(z), detours_(rings_.size()) {
    for (std::size_t r = 0; r < rings_.size(); ++r) {
      for (std::size_t i = 0; i < rings_[r].size(); ++i) cells_.emplace(cell(rings_[r][i]), Key{r, i});
    }
  }

  // Takes the pass over when one of its points lies on a ring's point; the ring will walk it.
  bool take(const Pass& pass) {
    for (std::size_t i = 0; i < pass.points.size(); ++i) {
      const Point3& p = pass.points[i];
      if (std::abs(p.z - z_) > kNear) continue;
      if (const Key* key = nearest(p.flat())) {
        detours_[key->ring].push_back({key->point, tour(pass, i)});
        return true;
      }
    }
    return false;
  }

  std::vector<Pass> finish() {
    std::vector<Pass> out;
    for (std::size_t r = 0; r < rings_.size(); ++r) {
      std::stable_sort(detours_[r].begin(), detours_[r].end(),
                       [](const Detour& a, const Detour& b) { return a.point < b.point; });
      Pass pass;
      const auto add = [&](const Point3& p) {
        if (pass.points.empty() || !(pass.points.back() == p)) pass.points.push_back(p);
      };
      auto next = detours_[r].begin();
      for (std::size_t i = 0; i <= rings_[r].size(); ++i) {
        const Point& p = rings_[r][i % rings_[r].size()];
        add({p.x, p.y, z_});
        for (; i < rings_[r].size() && next != detours_[r].end() && next->point == i; ++next) {
          for (const Point3& q : next->points) add(q);
          add({p.x, p.y, z_});
        }
      }
      out.push_back(std::move(pass));
    }
    return out;
  }

 private:
  static constexpr double kNear = 0.02;  // mm
  struct Key {
    std::size_t ring, point;
  };
  struct Detour {
    std::size_t point;
    std::vector<Point3> points;
  };
  static std::int64_t cell(Point p, int dx = 0, int dy = 0) {
    const auto x = static_cast<std::int64_t>(std::floor(p.x / kNear)) + dx;
    const auto y = static_cast<std::int64_t>(std::floor(p.y / kNear)) + dy;
    return x * 1'000'003 + y;
  }
  const Key* nearest(Point p) const {
    const Key* best = nullptr;
    double away = kNear;
    for (int dx = -1; dx <= 1; ++dx) {
      for (int dy = -1; dy <= 1; ++dy) {
        const auto [from, to] = cells_.equal_range(cell(p, dx, dy));
        for (auto it = from; it != to; ++it) {
          const double d = distance(p, rings_[it->second.ring][it->second.point]);
          if (d < away) {
            away = d;
            best = &it->second;
          }
        }
      }
    }
    return best;
  }
  // Out along one side and back, then along the other side and back.
  static std::vector<Point3> tour(const Pass& pass, std::size_t i) {
    const auto& p = pass.points;
    std::vector<Point3> out;
    for (std::size_t k = i; k < p.size(); ++k) out.push_back(p[k]);
    for (std::size_t k = p.size() - 1; k-- > i;) out.push_back(p[k]);
    for (std::size_t k = i; k-- > 0;) out.push_back(p[k]);
    for (std::size_t k = 1; k <= i && i > 0; ++k) out.push_back(p[k]);
    return out;
  }

  std::vector<Ring> rings_;
  double z_;
  std::vector<std::vector<Detour>> detours_;
  std::unordered_multimap<std::int64_t, Key> cells_;
};

}  // namespace doyen
