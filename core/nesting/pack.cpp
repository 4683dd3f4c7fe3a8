#include "nesting/pack.hpp"

#include <algorithm>
#include <cmath>
#include <deque>
#include <limits>
#include <mutex>
#include <numeric>
#include <optional>
#include <random>

#include "cancel.hpp"
#include "nesting/cells.hpp"

namespace doyen {
namespace {

// What a part covers when it is turned so: itself, and with half of the gap round it.
struct Covered {
  int columns = 0, rows = 0;
  CellRuns itself, with_gap;
};

// A part turned, as it lies on boards that are filled from the left, and on those that are filled from the front: there
// columns run from front to back.
struct Turned {
  double turn = 0;
  Point shift;  // mm, that brings the turned part's own box to its place among the cells
  Covered from_left, from_front;
};

// A board and what lies on it so far.
struct Laid {
  Point corner;  // mm, of the first cell
  Cells beyond, taken;
  bool upright = false;  // deeper than wide: filled from the front
  double filled = 0;     // mm from its end
  [[nodiscard]] const Covered& of(const Turned& way) const { return upright ? way.from_front : way.from_left; }
};

struct Place {
  int column = 0, row = 0;
};

Region turned_over(const Region& region) { return transformed(region, Transform{0, 1, 1, 0, 0, 0}); }
Point turned_over(Point p) { return {p.y, p.x}; }

// The first place from `column` on, along this row, where none of the shape's runs meets a marked cell; past `most`
// there is none. A run that meets one is free of it only beyond it: all places between are passed over.
int free_from(const Cells& cells, const CellRuns& shape, int row, int column, int most) {
  for (bool moved = true; moved && column <= most;) {
    moved = false;
    for (std::size_t i = 0; i < shape.size(); ++i) {
      for (const CellRun& run : shape[i]) {
        const int met = cells.last_marked(row + static_cast<int>(i), column + run.from, column + run.to);
        if (met < 0) continue;
        column = met - run.from + 1;
        if (column > most) return column;
        moved = true;
      }
    }
  }
  return column;
}

class Packing {
 public:
  Packing(const std::vector<Region>& parts, const std::vector<Region>& boards, double apart,
          const std::vector<double>& turns)
      : parts_(parts),
        boards_(boards),
        cell_(cell_for(boards)),
        beside_(static_cast<int>(std::ceil(apart / 2 / cell_)) + 1) {
    for (const Region& part : parts) {
      const Region whole = filled(part), round = grow(whole, apart / 2);
      std::vector<Turned> ways;
      for (const double turn : turns) {
        Cancel::check_here();
        ways.push_back(turned(whole, round, turn));
      }
      ways_.push_back(std::move(ways));
    }
  }

  [[nodiscard]] Packed best() {
    std::vector<std::size_t> order(parts_.size());
    std::iota(order.begin(), order.end(), 0);
    const auto by = [&](auto size) {
      std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return size(bounds(parts_[a]), a) > size(bounds(parts_[b]), b);
      });
      try_order(order);
    };
    by([&](const Box&, std::size_t i) { return area(filled(parts_[i])); });
    by([](const Box& box, std::size_t) { return std::max(box.width(), box.height()); });
    by([](const Box& box, std::size_t) { return box.width() + box.height(); });
    std::mt19937 random(1);  // the same every time
    for (std::size_t i = 0; i < tries() && parts_.size() > 1; ++i) {
      std::uniform_real_distribution<double> about(0.7, 1.4);
      std::vector<double> size;
      for (const Region& part : parts_) size.push_back(area(filled(part)) * about(random));
      by([&](const Box&, std::size_t part) { return size[part]; });
    }
    return best_;
  }

 private:
  // So many cells that a board is told apart finely, and looked through in milliseconds.
  static double cell_for(const std::vector<Region>& boards) {
    constexpr double kMostCells = 400'000, kFinest = 0.5;
    double largest = 0;
    for (const Region& board : boards) {
      const Box box = bounds(board);
      largest = std::max(largest, box.width() * box.height());
    }
    return std::max(kFinest, std::sqrt(largest / kMostCells));
  }

  [[nodiscard]] std::size_t tries() const {
    constexpr std::size_t kMostLaid = 300, kMost = 12;  // parts laid in all, and orders
    return std::min(kMost, kMostLaid / std::max<std::size_t>(1, parts_.size()));
  }

  [[nodiscard]] Covered covered(const Region& itself, const Region& gap) const {
    const Box box = bounds(gap);
    const Point corner{box.left, box.bottom};
    const int columns = static_cast<int>(std::floor(box.width() / cell_)) + 1,
              rows = static_cast<int>(std::floor(box.height() / cell_)) + 1;
    Cells one(columns, rows), other(columns, rows);
    one.mark(itself, corner, cell_);
    other.mark(gap, corner, cell_);
    return {columns, rows, one.runs(), other.runs()};
  }

  [[nodiscard]] Turned turned(const Region& whole, const Region& round, double turn) const {
    const Transform by = Transform::turn(turn);
    const Region itself = transformed(whole, by), gap = transformed(round, by);
    const Box box = bounds(gap);
    return {turn, Point{} - Point{box.left, box.bottom}, covered(itself, gap),
            covered(turned_over(itself), turned_over(gap))};
  }

  // With half of a gap's room round it, where the gaps beside its edges may lie.
  [[nodiscard]] Laid empty(const Region& board) const {
    const Box shape = bounds(board);
    const bool upright = shape.height() > shape.width() + 1e-6;
    const Region room = upright ? turned_over(board) : board;
    const Box box = bounds(room);
    const Point corner{box.left - beside_ * cell_, box.bottom - beside_ * cell_};
    const int columns = static_cast<int>(std::ceil(box.width() / cell_)) + 2 * beside_,
              rows = static_cast<int>(std::ceil(box.height() / cell_)) + 2 * beside_;
    Laid out{corner, Cells(columns, rows), Cells(columns, rows), upright, 0};
    out.beyond.mark_beyond(room, corner, cell_);
    return out;
  }

  // The place that takes least of the board's length, and less than `most` cells of it.
  [[nodiscard]] std::optional<Place> place_on(const Laid& board, const Covered& shape, int most) const {
    const int rows = board.taken.rows() - shape.rows;
    int last = std::min(board.taken.columns() - shape.columns, most - shape.columns - 1);
    std::optional<Place> best;
    for (int row = 0; row <= rows; ++row) {
      if (row % 32 == 0) Cancel::check_here();
      int column = 0;
      for (int before = -1; column != before && column <= last;) {
        before = column;
        column = free_from(board.beyond, shape.itself, row, column, last);
        if (column <= last) column = free_from(board.taken, shape.with_gap, row, column, last);
      }
      if (column > last) continue;
      best = {column, row};
      last = column - 1;
    }
    return best;
  }

  bool lay(Laid& board, std::size_t number, std::size_t part, Packed& out) const {
    std::optional<Place> best;
    const Turned* way = nullptr;
    int most = std::numeric_limits<int>::max() / 2;
    for (const Turned& each : ways_[part]) {
      const std::optional<Place> place = place_on(board, board.of(each), most);
      if (!place) continue;
      best = place;
      way = &each;
      most = place->column + board.of(each).columns;
    }
    if (way == nullptr) return false;
    board.taken.mark(board.of(*way).with_gap, best->column, best->row);
    const Point at = board.corner + Point{best->column * cell_, best->row * cell_};
    board.filled = std::max(board.filled, most * cell_);
    out.parts.push_back({part, number, way->turn, way->shift + (board.upright ? turned_over(at) : at)});
    return true;
  }

  void try_order(const std::vector<std::size_t>& order) {
    std::vector<Laid> laid;
    Packed out;
    for (const std::size_t part : order) {
      bool done = false;
      for (std::size_t i = 0; i < boards_.size() && !done; ++i) {
        if (i == laid.size()) laid.push_back(empty(boards_[i]));
        const bool fresh = laid[i].filled == 0;
        done = lay(laid[i], i, part, out);
        // A board of the same form as an empty one takes no more than that.
        if (!done && fresh && same_behind(i)) break;
      }
      if (!done) out.without.push_back(part);
    }
    double wood = 0;
    for (std::size_t i = 0; i < laid.size(); ++i) {
      if (laid[i].filled == 0) continue;
      const Box box = bounds(boards_[i]);
      // A board that is begun counts whole; of equal ones, how far they are filled.
      constexpr double kFilled = 1e-3;
      wood += box.width() * box.height() + kFilled * laid[i].filled * std::min(box.width(), box.height());
    }
    std::stable_sort(out.parts.begin(), out.parts.end(),
                     [](const PackedPart& a, const PackedPart& b) { return a.board < b.board; });
    if (least_ &&
        (out.without.size() > best_.without.size() || (out.without.size() == best_.without.size() && wood >= *least_)))
      return;
    least_ = wood;
    best_ = std::move(out);
  }

  [[nodiscard]] bool same_behind(std::size_t i) const {
    const auto alike = [&](const Region& board) {
      const Box a = bounds(boards_[i]), b = bounds(board);
      return board.islands.size() == 1 && boards_[i].islands.size() == 1 && a.width() == b.width() &&
             a.height() == b.height() && point_count(board) == point_count(boards_[i]);
    };
    return std::all_of(boards_.begin() + static_cast<std::ptrdiff_t>(i), boards_.end(), alike);
  }

  const std::vector<Region>& parts_;
  const std::vector<Region>& boards_;
  double cell_;
  int beside_;  // cells round a board, for gaps beyond its room
  std::vector<std::vector<Turned>> ways_;
  Packed best_;
  std::optional<double> least_;
};

bool same(const std::vector<Region>& a, const std::vector<Region>& b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const Region& x, const Region& y) {
    return std::equal(x.islands.begin(), x.islands.end(), y.islands.begin(), y.islands.end(),
                      [](const Island& one, const Island& other) { return one.rings == other.rings; });
  });
}

}  // namespace

Packed pack(const std::vector<Region>& parts, const std::vector<Region>& boards, double apart,
            const std::vector<double>& turns) {
  return Packing(parts, boards, apart, turns).best();
}

Packed packed_as_before(const std::vector<Region>& parts, const std::vector<Region>& boards, double apart,
                        const std::vector<double>& turns) {
  struct Asked {
    std::vector<Region> parts, boards;
    double apart = 0;
    std::vector<double> turns;
    Packed answer;
  };
  constexpr std::size_t kMost = 12;
  static std::mutex guard;
  static std::deque<Asked> last;
  {
    const std::lock_guard lock(guard);
    const auto found = std::find_if(last.begin(), last.end(), [&](const Asked& each) {
      return each.apart == apart && each.turns == turns && same(each.parts, parts) && same(each.boards, boards);
    });
    if (found != last.end()) return found->answer;
  }
  Asked now{parts, boards, apart, turns, pack(parts, boards, apart, turns)};
  const std::lock_guard lock(guard);
  last.push_front(now);
  if (last.size() > kMost) last.pop_back();
  return now.answer;
}

}  // namespace doyen
