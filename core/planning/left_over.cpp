#include "planning/left_over.hpp"

#include <algorithm>
#include <cmath>

#include "planning/outputs.hpp"

namespace doyen {
namespace {

constexpr std::size_t kMostLeft = 3;
constexpr double kCellsLeft = 400'000;  // about so many look at the whole board

struct Span {
  std::size_t left = 0, right = 0, low = 0, high = 0;  // cells, the ends not included
  [[nodiscard]] std::size_t cells() const { return (right - left) * (high - low); }
};

// The largest rectangle of free cells that is no narrower than so many: row by row, as bars over each column.
Span largest(const std::vector<unsigned char>& free, std::size_t columns, std::size_t rows, std::size_t narrowest) {
  Span best;
  std::vector<std::size_t> tall(columns + 1, 0), open;
  for (std::size_t r = 0; r < rows; ++r) {
    for (std::size_t c = 0; c < columns; ++c) tall[c] = free[r * columns + c] != 0 ? tall[c] + 1 : 0;
    open.clear();
    for (std::size_t c = 0; c <= columns; ++c) {
      while (!open.empty() && tall[open.back()] >= tall[c]) {
        const std::size_t height = tall[open.back()];
        open.pop_back();
        const Span here{open.empty() ? 0 : open.back() + 1, c, r + 1 - height, r + 1};
        if (std::min(here.right - here.left, height) >= narrowest && here.cells() > best.cells()) best = here;
      }
      open.push_back(c);
    }
  }
  return best;
}

// What lies so near to a cell that is cut is not free.
void take_round(std::vector<unsigned char>& free, const HeightField& front, std::ptrdiff_t c, std::ptrdiff_t r) {
  const auto reach = static_cast<std::ptrdiff_t>(std::ceil(kBesideCuts / front.cell()));
  const auto columns = static_cast<std::ptrdiff_t>(front.columns()), rows = static_cast<std::ptrdiff_t>(front.rows());
  for (std::ptrdiff_t y = std::max<std::ptrdiff_t>(0, r - reach); y <= std::min(rows - 1, r + reach); ++y) {
    for (std::ptrdiff_t x = std::max<std::ptrdiff_t>(0, c - reach); x <= std::min(columns - 1, c + reach); ++x)
      free[static_cast<std::size_t>(y * columns + x)] = 0;
  }
}

// Nothing is cut there, and it stays with the board.
std::vector<unsigned char> free_cells(const Plan& plan, const HeightField& front, const Cancel& cancel) {
  const Blank& blank = plan.job.blank;
  Region taken;
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    if (plan.job.items[i].cut.kind == Treatment::Kind::CutOut) taken = unite(taken, plan.pieces[i]->outlines.region);
  }
  std::vector<unsigned char> free = cells_inside(region_of(blank), front);
  const std::vector<unsigned char> gone = cells_inside(grow(taken, kBesideCuts), front);
  for (std::size_t i = 0; i < free.size(); ++i) free[i] = free[i] != 0 && gone[i] == 0 ? 1 : 0;
  const auto block = [&](std::ptrdiff_t c, std::ptrdiff_t r) { take_round(free, front, c, r); };
  const auto block_cut = [&](const HeightField& field, bool back) {
    const Box board = blank.box();
    for (std::size_t r = 0; r < field.rows(); ++r) {
      cancel.check();
      for (std::size_t c = 0; c < field.columns(); ++c) {
        if (field.at(c, r) > -0.05F) continue;
        Point at{field.x_of(c), field.y_of(r)};
        if (back) at = turned_over(at, blank, plan.job.run.turn);
        block(static_cast<std::ptrdiff_t>((at.x - board.left) / front.cell()),
              static_cast<std::ptrdiff_t>((at.y - board.bottom) / front.cell()));
      }
    }
  };
  block_cut(front, false);
  if (plan.has_back())
    block_cut(relief_of(plan, turned_over(blank.box(), blank, plan.job.run.turn), front.cell(), cancel, Side::Back),
              true);
  return free;
}

}  // namespace

std::vector<LeftOver> left_over(const Plan& plan, const Cancel& cancel) {
  const Job& job = plan.job;
  const Blank& blank = job.blank;
  const bool cut_out = std::any_of(job.items.begin(), job.items.end(),
                                   [](const Item& item) { return item.cut.kind == Treatment::Kind::CutOut; });
  if (!cut_out || job.made_as_others()) return {};
  const double cell = std::max(0.5, std::sqrt(blank.width * blank.height / kCellsLeft));
  const HeightField front = relief_of(plan, blank.box(), cell, cancel);
  std::vector<unsigned char> free = free_cells(plan, front, cancel);
  std::vector<LeftOver> found;
  while (found.size() < kMostLeft) {
    const Span span =
        largest(free, front.columns(), front.rows(), static_cast<std::size_t>(std::ceil(kLeastLeftOver / cell)));
    if (static_cast<double>(span.cells()) * cell * cell < kLeastLeftOverArea) break;
    for (std::size_t r = span.low; r < span.high; ++r) {
      for (std::size_t c = span.left; c < span.right; ++c) free[r * front.columns() + c] = 0;
    }
    LeftOver one;
    one.box = {front.x_of(span.left) - cell / 2, front.y_of(span.low) - cell / 2, front.x_of(span.right - 1) + cell / 2,
               front.y_of(span.high - 1) + cell / 2};
    one.box.right = std::min(one.box.right, blank.width);
    one.box.top = std::min(one.box.top, blank.height);
    const bool lies_along = blank.grain == Grain::AlongWidth;
    // Whole millimetres, so that it is never said larger than it is.
    one.off_cut.along = std::floor(lies_along ? one.box.width() : one.box.height());
    one.off_cut.across = std::floor(lies_along ? one.box.height() : one.box.width());
    one.off_cut.thickness = blank.thickest();
    one.off_cut.species = blank.species;
    found.push_back(std::move(one));
  }
  return found;
}

}  // namespace doyen
