#include "stock/turn_over.hpp"

#include <algorithm>

namespace doyen {

Box turned_over(const Box& box, const Blank& blank, TurnOver turn) {
  const Point a = turned_over(Point{box.left, box.bottom}, blank, turn);
  const Point b = turned_over(Point{box.right, box.top}, blank, turn);
  return {std::min(a.x, b.x), std::min(a.y, b.y), std::max(a.x, b.x), std::max(a.y, b.y)};
}

Region turned_over(const Region& region, const Blank& blank, TurnOver turn) {
  return transformed(region, turn == TurnOver::LeftEdge ? Transform{-1, 0, 0, 1, blank.width, 0}
                                                        : Transform{1, 0, 0, -1, 0, blank.height});
}

}  // namespace doyen
