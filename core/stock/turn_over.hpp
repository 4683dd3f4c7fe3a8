// The board turned over: where things of one side lie on the other.
#pragma once

#include "geometry/region.hpp"
#include "stock/blank.hpp"

namespace doyen {

enum class Side { Front, Back };

// Which edge the board is turned over about, as a page or as a calendar.
enum class TurnOver { LeftEdge, FrontEdge };

// The piece whose hole the first of two pins stands in that the board is turned over onto.
inline constexpr const char* kFirstPin = "turning-pin-1";

// From the coordinates of one side (its face up, origin at its left front corner) to those of the other; twice is the
// place itself. Heights count from each side's own face.
inline Point turned_over(Point p, const Blank& blank, TurnOver turn) {
  return turn == TurnOver::LeftEdge ? Point{blank.width - p.x, p.y} : Point{p.x, blank.height - p.y};
}
Box turned_over(const Box& box, const Blank& blank, TurnOver turn);
Region turned_over(const Region& region, const Blank& blank, TurnOver turn);

}  // namespace doyen
