// Many regions as one.
#pragma once

#include <vector>

#include "geometry/region.hpp"

namespace doyen {

// By halves, so that each outline is gone over as often as halving takes, and not once for every other region.
inline Region united(std::vector<Region> regions) {
  if (regions.empty()) return {};
  for (std::size_t step = 1; step < regions.size(); step *= 2) {
    for (std::size_t i = 0; i + step < regions.size(); i += 2 * step) {
      if (regions[i + step].empty()) continue;
      regions[i] = regions[i].empty() ? std::move(regions[i + step]) : unite(regions[i], regions[i + step]);
      regions[i + step] = {};
    }
  }
  return std::move(regions.front());
}

}  // namespace doyen
