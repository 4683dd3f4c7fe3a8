// The board's surface as a grid of heights.
#pragma once

#include <algorithm>
#include <cmath>
#include <memory>
#include <string>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

// Heights at the centres of square cells, in mm: 0 = the blank's face, down negative. Row 0 is the nearest to the user
// (smallest y). The memory is left unset by the constructor; call clear() or paint it.
class HeightField {
 public:
  HeightField() = default;
  // Covers `box` with cells of `cell` mm. Throws Problem{BadInput} beyond 400 million cells.
  HeightField(const Box& box, double cell);
  HeightField(HeightField&&) = default;
  HeightField& operator=(HeightField&&) = default;

  [[nodiscard]] std::size_t columns() const { return columns_; }
  [[nodiscard]] std::size_t rows() const { return rows_; }
  [[nodiscard]] double cell() const { return cell_; }
  [[nodiscard]] Box box() const;
  [[nodiscard]] double x_of(std::size_t column) const { return left_ + (static_cast<double>(column) + 0.5) * cell_; }
  [[nodiscard]] double y_of(std::size_t row) const { return bottom_ + (static_cast<double>(row) + 0.5) * cell_; }
  [[nodiscard]] float* row(std::size_t r) { return z_.get() + r * columns_; }
  [[nodiscard]] const float* row(std::size_t r) const { return z_.get() + r * columns_; }
  [[nodiscard]] float at(std::size_t column, std::size_t r) const { return z_[r * columns_ + column]; }
  void clear();  // all at the face, on all processors

  // Columns (or rows) whose centres lie in [from, to], as a half-open range cut to the field.
  struct Range {
    std::size_t begin, end;
  };
  [[nodiscard]] Range columns_in(double from, double to) const { return range(from, to, left_, columns_); }
  [[nodiscard]] Range rows_in(double from, double to) const { return range(from, to, bottom_, rows_); }

 private:
  [[nodiscard]] Range range(double from, double to, double origin, std::size_t count) const {
    const double top = static_cast<double>(count);
    const double first = std::clamp(std::ceil((from - origin) / cell_ - 0.5), 0.0, top);
    const double last = std::clamp(std::floor((to - origin) / cell_ - 0.5) + 1, first, top);
    return {static_cast<std::size_t>(first), static_cast<std::size_t>(last)};
  }

  double left_ = 0, bottom_ = 0, cell_ = 1;
  std::size_t columns_ = 0, rows_ = 0;
  std::unique_ptr<float[]> z_;
};

// Which cells' middles lie in the region, row by row as the field's own: 1 inside, 0 outside.
std::vector<unsigned char> cells_inside(const Region& region, const HeightField& field);

// NumPy's .npy, float32, row 0 the farthest from the user. Written whole or not at all; throws Problem{CannotWrite}.
void write_npy(const HeightField& field, const std::string& path);

}  // namespace doyen
