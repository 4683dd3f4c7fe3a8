#include "cutting/operation.hpp"

#include <algorithm>

namespace doyen {

std::vector<Pass> turned_over(std::vector<Pass> passes, const Blank& blank, TurnOver turn) {
  for (Pass& pass : passes) {
    for (Point3& p : pass.points) {
      const Point q = turned_over(p.flat(), blank, turn);
      p = {q.x, q.y, p.z};
    }
  }
  return passes;
}

Point order_passes(std::vector<Pass>& passes, Point from, bool reversible) {
  constexpr std::size_t kMostSearched = 3000;  // beyond this the order they were made in is already local
  for (std::size_t i = 0; i < passes.size(); ++i) {
    if (passes.size() <= kMostSearched) {
      std::size_t best = i;
      double nearest = 1e300;
      bool turn = false;
      for (std::size_t k = i; k < passes.size(); ++k) {
        const double to_front = distance(from, passes[k].points.front().flat());
        const double to_back = reversible ? distance(from, passes[k].points.back().flat()) : 1e300;
        if (std::min(to_front, to_back) < nearest) {
          nearest = std::min(to_front, to_back);
          best = k;
          turn = to_back < to_front;
        }
      }
      std::swap(passes[i], passes[best]);
      if (turn) std::reverse(passes[i].points.begin(), passes[i].points.end());
    }
    from = passes[i].points.back().flat();
  }
  return from;
}

}  // namespace doyen
