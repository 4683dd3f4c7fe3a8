#include "cutting/peck.hpp"

#include "measure/whole.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {

Pass pecked(Point hole, double from, double to, double step) {
  const int pecks = whole_up((from - to) / std::max(0.1, step) - 1e-9, 1, 1000);
  Pass pass;
  pass.points.push_back({hole.x, hole.y, from});
  for (int k = 1; k <= pecks; ++k) {
    pass.points.push_back({hole.x, hole.y, from + (to - from) * k / pecks});
    if (k < pecks) pass.points.push_back({hole.x, hole.y, from});
  }
  return pass;
}

}  // namespace doyen
