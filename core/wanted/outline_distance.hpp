// Exact distances from cells to outlines, by painting what lies nearest to each segment and each corner. It shares
// nothing with the medial axis, with offsets, or with anything that plans.
#pragma once

#include <cstdint>
#include <vector>

#include "geometry/polyline.hpp"

namespace doyen {

// The cells of one part of the board: square, `cell` mm wide, the first one's middle at `first`.
struct CellGrid {
  Point first;  // mm on the board
  double cell = 1;
  int columns = 0, rows = 0;
  [[nodiscard]] std::size_t size() const { return static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows); }
  [[nodiscard]] std::size_t at(int column, int row) const {
    return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) + static_cast<std::size_t>(column);
  }
  [[nodiscard]] Point middle(int column, int row) const { return {first.x + column * cell, first.y + row * cell}; }
  [[nodiscard]] Point middle(std::size_t i) const {
    return middle(static_cast<int>(i % static_cast<std::size_t>(columns)),
                  static_cast<int>(i / static_cast<std::size_t>(columns)));
  }
  [[nodiscard]] Box box() const;                  // of the cells' middles
  [[nodiscard]] CellGrid grown(int cells) const;  // so many more on every side
};

// Segments, with the corners between them, made ready to be asked for by many grids.
class OutlineSegments {
 public:
  OutlineSegments() = default;
  explicit OutlineSegments(const Region& region);
  explicit OutlineSegments(const std::vector<Line2>& lines);  // open ends and single points count, too
  [[nodiscard]] bool empty() const { return segments_.empty() && corners_.empty(); }
  [[nodiscard]] const Box& box() const { return box_; }
  // Some part of them may lie in this box; false is sure.
  [[nodiscard]] bool near(const Box& box) const;

  // Lowers each cell to its distance from the nearest outline, mm, where that is less than it holds and than `most`.
  void lower_to_distance(const CellGrid& grid, double most, std::vector<float>& distances) const;

 private:
  struct Segment {
    Point a, b;
  };
  struct Corner {  // what lies nearest to `at`: beyond the end of one segment and before the start of the next
    Point at;
    Point in, out;  // directions; zero where an open line ends
  };
  struct Run {  // neighbours along one ring, so that many are passed over at once
    Box box;
    std::size_t segments_begin, segments_end, corners_begin, corners_end;
  };
  void add(const std::vector<Point>& points, bool closed);
  std::vector<Segment> segments_;
  std::vector<Corner> corners_;
  std::vector<Run> runs_;
  Box box_;
};

// A region as one grid sees it.
class SeenFigure {
 public:
  // `most`: farther than so many mm from its outline every distance is `most`.
  SeenFigure(const Region& region, const OutlineSegments& outline, const CellGrid& grid, double most);
  // It asks nothing of any cell: all lie outside, farther than `most`.
  [[nodiscard]] bool away() const { return !near_ && !inside_; }
  [[nodiscard]] bool inside(std::size_t i) const { return near_ ? in_[i] != 0 : inside_; }
  [[nodiscard]] double distance(std::size_t i) const { return near_ ? static_cast<double>(away_[i]) : most_; }

 private:
  double most_;
  bool near_ = false, inside_ = false;  // where no outline is near, all cells lie inside or all outside
  std::vector<std::uint8_t> in_;
  std::vector<float> away_;
};

// 1 where the cell's middle lies inside, by crossings counted along each row; `inside` has the grid's size.
void mark_inside(const Region& region, const CellGrid& grid, std::vector<std::uint8_t>& inside);

}  // namespace doyen
