// Pieces made from other pieces.
#pragma once

#include <string>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

// Made from other pieces and following them. Its place is a shift from where its sources put it, its turn is about the
// middle of the result.
struct Derived {
  enum class How { Grow, Join, TakeAway, Overlap, Split, Mirror, Grid, Round, Along, Link };
  How how = How::Grow;
  std::vector<std::string>
      from;             // ids; TakeAway keeps the first less the others; Along repeats the first on the second
  double distance = 3;  // mm: grow by, negative shrinks; spacing of Along when count is 0
  Corner corner = Corner::Round;    // of Grow
  int steps = 1;                    // of Grow: so many outlines, each `distance` farther
  double band = 0;                  // mm, of Grow: 0 fills; else frames of this width
  int columns = 2, rows = 1;        // of Grid
  double step_x = 50, step_y = 50;  // mm, of Grid: from one to the next
  int count = 6;                    // of Round and Along
  double radius = 50;               // mm, of Round: from its centre to each copy's middle
  bool turned = true;               // copies of Round and Along turn with the way
  double angle = 90;                // degrees: the line of Mirror and Split, through the middle
  double share = 0.5;               // of Split: where the line crosses the width of what is split
  bool first_side = true;           // of Split: the part on the line's left
  double bridge = 4;                // mm, of Link: how wide the bridges are
  // Of Link: bridges set by hand, mm from the middle of the source's box. Where they leave it in several parts, Doyen
  // adds the shortest that are missing.
  struct Bridge {
    Point from, to;
    friend bool operator==(const Bridge&, const Bridge&) = default;
  };
  std::vector<Bridge> bridges{};
  friend bool operator==(const Derived&, const Derived&) = default;
};

}  // namespace doyen
