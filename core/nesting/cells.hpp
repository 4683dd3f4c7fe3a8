// Regions as cells of a grid: which cells a shape touches, by row, and which of a board's are taken.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

// Marked cells side by side in one row, both ends among them.
struct CellRun {
  int from = 0, to = 0;
};
// A shape's, by row from the front.
using CellRuns = std::vector<std::vector<CellRun>>;

// One bit a cell.
class Cells {
 public:
  Cells(int columns, int rows);
  // Every cell that the region touches, at `cell` mm a side, counted from `corner`. Nothing beyond the grid is marked.
  void mark(const Region& region, Point corner, double cell);
  // Every cell that is not wholly inside the region.
  void mark_beyond(const Region& region, Point corner, double cell);
  // A shape's, moved by whole cells.
  void mark(const CellRuns& shape, int right, int up);
  [[nodiscard]] CellRuns runs() const;
  [[nodiscard]] bool marked(int column, int row) const;
  // The last marked cell of those in the row, both ends among them; -1: none is.
  [[nodiscard]] int last_marked(int row, int from, int to) const;
  [[nodiscard]] int columns() const { return columns_; }
  [[nodiscard]] int rows() const { return rows_; }

 private:
  using Word = std::uint64_t;
  void mark_stretch(int row, int from, int to);
  void mark_edges(const Region& region, Point corner, double cell);
  void mark_inside(const Region& region, Point corner, double cell);
  int columns_, rows_;
  std::size_t words_;  // a row
  std::vector<Word> bits_;
};

}  // namespace doyen
