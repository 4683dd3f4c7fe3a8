// Where on the board there is room: for pieces that are added, so that none lands on another.
#pragma once

#include <optional>

#include "job/job.hpp"

namespace doyen {

class Room {
 public:
  // What lies on the job's board but `except`. What is cut out holds others inside; so does a shape that is not cut and
  // is as large as a panel. Pieces whose outlines cannot be made stand in nobody's way.
  explicit Room(const Job& job, const std::string& except = {});
  // The middle nearest to `wanted` of a box of this size (mm) that keeps the board's margin, lies over no clamp or
  // fault, and leaves a gap to everything else; nothing when there is none.
  [[nodiscard]] std::optional<Point> nearest(double width, double height, Point wanted) const;
  [[nodiscard]] bool clear(const Box& box) const;

 private:
  void block(const Region& region, bool inside_too);
  [[nodiscard]] int edges_in(const Box& box) const;
  [[nodiscard]] bool inside_any(Point at) const;

  Box room_;
  Region board_;  // empty: the room's own rectangle
  double cell_ = 1, gap_ = 1;
  int columns_ = 0, rows_ = 0;
  std::vector<int> edges_;  // by cell, summed from the left front corner
  std::vector<Region> solid_;
};

// Moves a piece to where there is room, nearest to where it lies, made smaller for that if it may be. False, and where
// it was: there is none. What has no outlines stays as it is.
bool make_room(const Job& job, Piece& piece, bool may_shrink);

}  // namespace doyen
