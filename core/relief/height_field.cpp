#include "relief/height_field.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <cstring>

#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "wording/say.hpp"

namespace doyen {

HeightField::HeightField(const Box& box, double cell) : left_(box.left), bottom_(box.bottom), cell_(cell) {
  constexpr double kMostCells = 4e8;
  if (!(cell > 0) || box.empty()) throw bad_input(say("A relief needs a board and a cell size above zero."));
  const double columns = std::max(1.0, std::ceil(box.width() / cell - 1e-6));
  const double rows = std::max(1.0, std::ceil(box.height() / cell - 1e-6));
  if (!(columns * rows <= kMostCells)) {
    throw bad_input(say("The relief would need more than 400 million cells; choose a larger cell."));
  }
  columns_ = static_cast<std::size_t>(columns);
  rows_ = static_cast<std::size_t>(rows);
  z_ = std::make_unique_for_overwrite<float[]>(columns_ * rows_);
}

Box HeightField::box() const {
  return {left_, bottom_, left_ + cell_ * static_cast<double>(columns_), bottom_ + cell_ * static_cast<double>(rows_)};
}

void HeightField::clear() {
  tbb::parallel_for(tbb::blocked_range<std::size_t>(0, rows_, 64), [&](const auto& range) {
    std::memset(row(range.begin()), 0, (range.end() - range.begin()) * columns_ * sizeof(float));
  });
}

std::vector<unsigned char> cells_inside(const Region& region, const HeightField& field) {
  std::vector<unsigned char> inside(field.columns() * field.rows(), 0);
  // Where each row's middle line crosses the outlines: between odd and even crossings it is inside.
  std::vector<std::vector<double>> crossings(field.rows());
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        // A row more on either side: which rows an end belongs to must be decided in one way for both of its edges.
        const HeightField::Range rows =
            field.rows_in(std::min(a.y, b.y) - field.cell(), std::max(a.y, b.y) + field.cell());
        for (std::size_t r = rows.begin; r < rows.end; ++r) {
          const double y = field.y_of(r);
          if ((a.y <= y) != (b.y <= y)) crossings[r].push_back(a.x + (y - a.y) / (b.y - a.y) * (b.x - a.x));
        }
      }
    }
  }
  for (std::size_t r = 0; r < field.rows(); ++r) {
    std::vector<double>& at = crossings[r];
    std::sort(at.begin(), at.end());
    for (std::size_t i = 0; i + 1 < at.size(); i += 2) {
      const HeightField::Range columns = field.columns_in(at[i], at[i + 1]);
      std::fill(
          inside.begin() + static_cast<std::ptrdiff_t>(r * field.columns() + columns.begin),
          inside.begin() + static_cast<std::ptrdiff_t>(r * field.columns() + std::max(columns.begin, columns.end)), 1);
    }
  }
  return inside;
}

void write_npy(const HeightField& field, const std::string& path) {
  std::string header = "{'descr': '<f4', 'fortran_order': False, 'shape': (" + std::to_string(field.rows()) + ", " +
                       std::to_string(field.columns()) + "), }";
  const std::size_t unpadded = 10 + header.size() + 1;
  header.append((64 - unpadded % 64) % 64, ' ');
  header += '\n';
  std::string bytes("\x93NUMPY\x01\x00", 8);
  bytes += static_cast<char>(header.size() & 0xFF);
  bytes += static_cast<char>(header.size() >> 8);
  bytes += header;
  const std::size_t row_bytes = field.columns() * sizeof(float);
  bytes.reserve(bytes.size() + field.rows() * row_bytes);
  for (std::size_t r = field.rows(); r-- > 0;) {
    bytes.append(reinterpret_cast<const char*>(field.row(r)), row_bytes);
  }
  write_file_atomically(path, bytes);
}

}  // namespace doyen
