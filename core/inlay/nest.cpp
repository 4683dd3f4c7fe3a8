#include "inlay/nest.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace doyen {
namespace {

using Word = std::uint64_t;

// Which cells a shape covers, with the room it asks; rows of bits, the left column in the lowest bit.
class Mask {
 public:
  Mask(std::size_t columns, std::size_t rows) : columns_(columns), words_((columns + 63) / 64), bits_(words_ * rows) {}
  // Cells whose middles lie in the region.
  Mask(const Region& region, double cell)
      : Mask(cells(bounds(region).width(), cell), cells(bounds(region).height(), cell)) {
    const Box box = bounds(region);
    for (std::size_t r = 0; r < rows(); ++r) {
      const double y = box.bottom + (static_cast<double>(r) + 0.5) * cell;
      std::vector<double> crossings;
      for (const Island& island : region.islands) {
        for (const Ring& ring : island.rings) {
          for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            if ((a.y <= y) != (b.y <= y)) crossings.push_back(a.x + (y - a.y) / (b.y - a.y) * (b.x - a.x));
          }
        }
      }
      std::sort(crossings.begin(), crossings.end());
      for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) {
        const auto from = static_cast<std::size_t>(std::max(0.0, std::floor((crossings[i] - box.left) / cell)));
        const auto to = static_cast<std::size_t>(std::max(0.0, std::ceil((crossings[i + 1] - box.left) / cell)));
        for (std::size_t c = from; c < std::min(to, columns_); ++c) row(r)[c / 64] |= Word{1} << (c % 64);
      }
    }
  }
  [[nodiscard]] std::size_t columns() const { return columns_; }
  [[nodiscard]] std::size_t rows() const { return words_ == 0 ? 0 : bits_.size() / words_; }
  [[nodiscard]] Word* row(std::size_t r) { return bits_.data() + r * words_; }
  [[nodiscard]] const Word* row(std::size_t r) const { return bits_.data() + r * words_; }

  [[nodiscard]] bool meets(const Mask& shape, std::size_t column, std::size_t at) const {
    for (std::size_t r = 0; r < shape.rows(); ++r) {
      const Word *mine = row(at + r), *its = shape.row(r);
      for (std::size_t w = 0; w < shape.words_; ++w) {
        if ((its[w] & window(mine, column + w * 64)) != 0) return true;
      }
    }
    return false;
  }
  void add(const Mask& shape, std::size_t column, std::size_t at) {
    for (std::size_t r = 0; r < shape.rows(); ++r) {
      Word* mine = row(at + r);
      const Word* its = shape.row(r);
      for (std::size_t w = 0; w < shape.words_; ++w) {
        const std::size_t first = column + w * 64, word = first / 64, shift = first % 64;
        if (its[w] == 0) continue;
        mine[word] |= its[w] << shift;
        if (shift > 0 && word + 1 < words_) mine[word + 1] |= its[w] >> (64 - shift);
      }
    }
  }

 private:
  static std::size_t cells(double mm, double cell) { return static_cast<std::size_t>(std::ceil(mm / cell)); }
  [[nodiscard]] Word window(const Word* from, std::size_t column) const {
    const std::size_t word = column / 64, shift = column % 64;
    if (word >= words_) return 0;
    Word value = from[word] >> shift;
    if (shift > 0 && word + 1 < words_) value |= from[word + 1] << (64 - shift);
    return value;
  }
  std::size_t columns_, words_;
  std::vector<Word> bits_;
};

struct Shape {
  Mask mask, turned;
  Box box;  // of the shape with its room
  std::size_t index;
};

SetOut lay_out(const std::vector<Shape>& shapes, std::size_t columns, double cell, bool may_turn,
               const Cancel& cancel) {
  std::size_t high = 0;
  for (const Shape& s : shapes) high += s.mask.rows();
  Mask board(columns, high + 1);
  SetOut out;
  out.places.resize(shapes.size());
  for (const Shape& s : shapes) {
    bool set = false;
    for (std::size_t r = 0; !set && r + s.mask.rows() <= board.rows(); ++r) {
      cancel.check();
      for (std::size_t c = 0; !set && c + s.mask.columns() <= columns; ++c) {
        for (const bool turn : {false, true}) {
          const Mask& mask = turn ? s.turned : s.mask;
          if ((turn && !may_turn) || board.meets(mask, c, r)) continue;
          board.add(mask, c, r);
          // Its own box lies in the mask's cells from their left front corner on, turned from their right back one.
          const double wide = static_cast<double>(mask.columns()) * cell,
                       deep = static_cast<double>(mask.rows()) * cell;
          const double x = static_cast<double>(c) * cell, y = static_cast<double>(r) * cell;
          out.places[s.index] = {turn ? Point{x + wide - s.box.width() / 2, y + deep - s.box.height() / 2}
                                      : Point{x + s.box.width() / 2, y + s.box.height() / 2},
                                 turn};
          out.width = std::max(out.width, x + wide);
          out.height = std::max(out.height, y + deep);
          set = true;
          break;
        }
      }
    }
  }
  return out;
}

}  // namespace

SetOut nest(const std::vector<Region>& shapes, double clear, bool may_turn, const Cancel& cancel) {
  double total = 0, widest = 0;
  std::vector<Region> grown;
  for (const Region& shape : shapes) {
    grown.push_back(grow(shape, clear, Corner::Round, 0.1));
    const Box box = bounds(grown.back());
    total += box.width() * box.height();
    widest = std::max(widest, box.width());
  }
  const double cell = std::clamp(std::sqrt(total) / 200, 0.5, 20.0);
  std::vector<Shape> set;
  for (std::size_t i = 0; i < grown.size(); ++i) {
    // Half a cell's diagonal more, since a cell counts by its middle.
    const Region room = grow(grown[i], 0.71 * cell, Corner::Round, 0.1);
    const Box box = bounds(room);
    set.push_back({Mask(room, cell),
                   Mask(transformed(room, Transform{-1, 0, 0, -1, box.left + box.right, box.bottom + box.top}), cell),
                   box, i});
  }
  std::stable_sort(set.begin(), set.end(), [](const Shape& a, const Shape& b) {
    return a.box.width() * a.box.height() > b.box.width() * b.box.height();
  });
  SetOut best;
  double best_area = 1e300;
  const auto narrowest = static_cast<std::size_t>(std::ceil(widest / cell)) + 3;
  const int widths = shapes.size() == 1 ? 1 : shapes.size() > 40 ? 2 : 7;
  for (int i = 0; i < widths; ++i) {
    const double wide = std::sqrt(total) * (0.7 + 0.3 * i);
    const std::size_t columns = std::max(narrowest, static_cast<std::size_t>(std::ceil(wide / cell)));
    SetOut one = lay_out(set, columns, cell, may_turn, cancel);
    // A little waste is worth a board that is not all length.
    const double longish = std::max(one.width / one.height, one.height / one.width);
    const double area = one.width * one.height * (1 + 0.03 * std::max(0.0, longish - 2));
    if (area < best_area) {
      best_area = area;
      best = std::move(one);
    }
  }
  return best;
}

}  // namespace doyen
