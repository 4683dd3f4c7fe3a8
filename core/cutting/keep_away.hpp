// Which straight ways keep some distance from the outlines of a region, with whatever looks at many of them.
#pragma once

#include <cstdint>
#include <unordered_map>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

class KeepAway {
 public:
  KeepAway(const Region& region, double mm);
  [[nodiscard]] bool keeps(Point a, Point b) const;
  [[nodiscard]] bool keeps(Point p) const { return keeps(p, p); }

 private:
  struct Edge {
    Point a, b;
  };
  template <typename Act>
  void each_cell(Point a, Point b, double grown, Act act) const;
  double away_;
  double size_;  // of a cell, mm
  std::vector<Edge> edges_;
  std::unordered_map<std::int64_t, std::vector<std::size_t>> cells_;
};

}  // namespace doyen
