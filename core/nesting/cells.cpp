#include "nesting/cells.hpp"

#include <algorithm>
#include <bit>
#include <cmath>

namespace doyen {
namespace {

constexpr int kBits = 64;

template <typename Act>
void for_each_edge(const Region& region, Act act) {
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) act(ring[i], ring[(i + 1) % ring.size()]);
    }
  }
}

}  // namespace

Cells::Cells(int columns, int rows)
    : columns_(std::max(0, columns)),
      rows_(std::max(0, rows)),
      words_(static_cast<std::size_t>(columns_ / kBits + 1)),
      bits_(words_ * static_cast<std::size_t>(rows_)) {}

bool Cells::marked(int column, int row) const {
  if (column < 0 || row < 0 || column >= columns_ || row >= rows_) return false;
  return ((bits_[words_ * static_cast<std::size_t>(row) + static_cast<std::size_t>(column / kBits)] >>
           (column % kBits)) &
          1U) != 0;
}

void Cells::mark_stretch(int row, int from, int to) {
  if (row < 0 || row >= rows_) return;
  from = std::max(from, 0);
  to = std::min(to, columns_ - 1);
  Word* line = &bits_[words_ * static_cast<std::size_t>(row)];
  for (int word = from / kBits; from <= to && word <= to / kBits; ++word) {
    const int first = std::max(from - word * kBits, 0), last = std::min(to - word * kBits, kBits - 1);
    const Word all = ~Word{0};
    line[word] |= (all << first) & (all >> (kBits - 1 - last));
  }
}

// Each edge within every row that it passes.
void Cells::mark_edges(const Region& region, Point corner, double cell) {
  for_each_edge(region, [&](Point a, Point b) {
    a = (a - corner) * (1 / cell);
    b = (b - corner) * (1 / cell);
    if (a.y > b.y) std::swap(a, b);
    const int first = std::max(0, static_cast<int>(std::floor(a.y))),
              last = std::min(rows_ - 1, static_cast<int>(std::floor(b.y)));
    for (int row = first; row <= last; ++row) {
      const auto at = [&](double y) {
        const double share = b.y > a.y ? std::clamp((y - a.y) / (b.y - a.y), 0.0, 1.0) : 0.0;
        return a.x + (b.x - a.x) * share;
      };
      double from = a.x, to = b.x;
      if (b.y > a.y) {
        from = at(row);
        to = at(row + 1);
      }
      if (from > to) std::swap(from, to);
      mark_stretch(row, static_cast<int>(std::floor(from)), static_cast<int>(std::floor(to)));
    }
  });
}

// Between its outlines, along the middle of each row.
void Cells::mark_inside(const Region& region, Point corner, double cell) {
  std::vector<std::vector<double>> crossings(static_cast<std::size_t>(rows_));
  for_each_edge(region, [&](Point a, Point b) {
    a = (a - corner) * (1 / cell);
    b = (b - corner) * (1 / cell);
    if (a.y > b.y) std::swap(a, b);
    for (int row = std::max(0, static_cast<int>(std::ceil(a.y - 0.5))); row < rows_ && row + 0.5 < b.y; ++row)
      crossings[static_cast<std::size_t>(row)].push_back(a.x + (b.x - a.x) * (row + 0.5 - a.y) / (b.y - a.y));
  });
  for (int row = 0; row < rows_; ++row) {
    std::vector<double>& at = crossings[static_cast<std::size_t>(row)];
    std::sort(at.begin(), at.end());
    for (std::size_t i = 0; i + 1 < at.size(); i += 2)
      mark_stretch(row, static_cast<int>(std::floor(at[i])), static_cast<int>(std::floor(at[i + 1])));
  }
}

void Cells::mark(const Region& region, Point corner, double cell) {
  mark_inside(region, corner, cell);
  mark_edges(region, corner, cell);
}

void Cells::mark_beyond(const Region& region, Point corner, double cell) {
  Cells inside(columns_, rows_);
  inside.mark_inside(region, corner, cell);
  for (std::size_t i = 0; i < bits_.size(); ++i) bits_[i] |= ~inside.bits_[i];
  mark_edges(region, corner, cell);
}

void Cells::mark(const CellRuns& shape, int right, int up) {
  for (std::size_t row = 0; row < shape.size(); ++row) {
    for (const CellRun& run : shape[row]) mark_stretch(static_cast<int>(row) + up, run.from + right, run.to + right);
  }
}

CellRuns Cells::runs() const {
  CellRuns all(static_cast<std::size_t>(rows_));
  for (int row = 0; row < rows_; ++row) {
    for (int column = 0; column < columns_; ++column) {
      if (!marked(column, row)) continue;
      const int from = column;
      while (column + 1 < columns_ && marked(column + 1, row)) ++column;
      all[static_cast<std::size_t>(row)].push_back({from, column});
    }
  }
  return all;
}

int Cells::last_marked(int row, int from, int to) const {
  const Word* line = &bits_[words_ * static_cast<std::size_t>(row)];
  for (int word = to / kBits; word >= from / kBits; --word) {
    const int first = std::max(from - word * kBits, 0), last = std::min(to - word * kBits, kBits - 1);
    const Word all = ~Word{0}, found = line[word] & (all << first) & (all >> (kBits - 1 - last));
    if (found != 0) return word * kBits + static_cast<int>(std::bit_width(found)) - 1;
  }
  return -1;
}

}  // namespace doyen
