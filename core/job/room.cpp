#include "job/room.hpp"

#include <algorithm>
#include <cmath>

#include "problem.hpp"

namespace doyen {
namespace {

constexpr double kGap = 3;      // mm that added pieces keep from others (common practice, no source)
constexpr double kPanel = 0.4;  // of the board: an uncut shape this large is meant to hold others

}  // namespace

Room::Room(const Job& job, const std::string& except)
    : room_(job.blank.box().grown(-std::min(job.blank.margin, 0.45 * std::min(job.blank.width, job.blank.height)))) {
  const Box whole = job.blank.box();
  cell_ = std::max(0.5, std::max(whole.width(), whole.height()) / 400);
  gap_ = std::min(kGap, 0.02 * std::min(whole.width(), whole.height()));
  columns_ = static_cast<int>(std::ceil(whole.width() / cell_)) + 1;
  rows_ = static_cast<int>(std::ceil(whole.height() / cell_)) + 1;
  edges_.assign(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_), 0);
  if (job.blank.form != BlankForm::Rectangle) {
    board_ = grow(region_of(job.blank), -job.blank.margin);
    block(board_, false);
  }
  for (const KeepOut& place : job.blank.keep_outs) block(region_of(place), true);
  for (const Item& item : job.items) {
    if (item.piece.id == except) continue;
    try {
      Outlines outlines = job.outlines(item);
      if (!outlines.lines.empty()) outlines.region = unite(outlines.region, sweep(outlines.lines, 1));
      const bool holds =
          item.cut.kind == Treatment::Kind::CutOut ||
          (item.cut.kind == Treatment::Kind::None && area(outlines.region) > kPanel * whole.width() * whole.height());
      // Straight lines of words are kept clear as a whole: nothing goes between a descender and the line's end.
      const auto* words = std::get_if<Lettering>(&item.piece.what);
      if (words != nullptr && words->arc_radius <= 0 && words->along.empty() && item.piece.turn == 0) {
        outlines.region = region_of(bounds(outlines.region));
      }
      block(outlines.region, !holds);
    } catch (const Problem&) {
      continue;
    }
  }
  // Summed up: how many edges lie in a box is four looks.
  for (int r = 0; r < rows_; ++r) {
    int sum = 0;
    for (int c = 0; c < columns_; ++c) {
      int& here =
          edges_[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(c)];
      sum += here;
      here = sum + (r > 0 ? edges_[static_cast<std::size_t>(r - 1) * static_cast<std::size_t>(columns_) +
                                   static_cast<std::size_t>(c)]
                          : 0);
    }
  }
}

void Room::block(const Region& region, bool inside_too) {
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        const int steps = std::max(1, static_cast<int>(std::ceil(2 * distance(a, b) / cell_)));
        for (int k = 0; k < steps; ++k) {
          const Point p = a + (b - a) * (static_cast<double>(k) / steps);
          const int c = static_cast<int>(std::floor(p.x / cell_)), r = static_cast<int>(std::floor(p.y / cell_));
          if (c < 0 || r < 0 || c >= columns_ || r >= rows_) continue;
          edges_[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(c)] = 1;
        }
      }
    }
  }
  if (inside_too && !region.empty()) solid_.push_back(region);
}

int Room::edges_in(const Box& box) const {
  const auto place = [&](double v, int most) {
    return std::clamp(static_cast<int>(std::floor(v / cell_)), -1, most - 1);
  };
  const int left = place(box.left, columns_) - 1, right = place(box.right, columns_);
  const int front = place(box.bottom, rows_) - 1, back = place(box.top, rows_);
  const auto sum = [&](int c, int r) {
    return c < 0 || r < 0
               ? 0
               : edges_[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(c)];
  };
  return sum(right, back) - sum(left, back) - sum(right, front) + sum(left, front);
}

bool Room::inside_any(Point at) const {
  return std::any_of(solid_.begin(), solid_.end(), [&](const Region& region) { return contains(region, at); });
}

// No edge crosses the box: so it lies wholly inside or wholly outside of everything.
bool Room::clear(const Box& box) const {
  if (!room_.grown(1e-6).contains({box.left, box.bottom}) || !room_.grown(1e-6).contains({box.right, box.top}))
    return false;
  if (edges_in(box.grown(gap_)) > 0) return false;
  return !inside_any(box.centre()) && (board_.empty() || contains(board_, box.centre()));
}

std::optional<Point> Room::nearest(double width, double height, Point wanted) const {
  const auto at = [&](Point p) { return Box{p.x - width / 2, p.y - height / 2, p.x + width / 2, p.y + height / 2}; };
  const Box middles{room_.left + width / 2, room_.bottom + height / 2, room_.right - width / 2, room_.top - height / 2};
  if (middles.left > middles.right + 1e-9 || middles.bottom > middles.top + 1e-9) return {};
  wanted = {std::clamp(wanted.x, middles.left, std::max(middles.left, middles.right)),
            std::clamp(wanted.y, middles.bottom, std::max(middles.bottom, middles.top))};
  if (clear(at(wanted))) return wanted;
  // Every place on a grid, the nearest first.
  const double step = 2 * cell_;
  std::vector<std::pair<double, Point>> places;
  for (double y = middles.bottom; y <= middles.top + 1e-9; y += step) {
    for (double x = middles.left; x <= middles.right + 1e-9; x += step) {
      if (edges_in(at({x, y}).grown(gap_)) == 0) places.emplace_back(distance({x, y}, wanted), Point{x, y});
    }
  }
  std::stable_sort(places.begin(), places.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  for (const auto& place : places) {
    if (clear(at(place.second))) return place.second;
  }
  return {};
}

bool make_room(const Job& job, Piece& piece, bool may_shrink) {
  try {
    const Room room(job);
    for (int tries = may_shrink ? 6 : 1; tries > 0; --tries) {
      const Box box = bounds(outlines_of(piece, job.source()));
      if (box.empty()) return true;
      if (const std::optional<Point> free = room.nearest(box.width(), box.height(), box.centre())) {
        piece.at = piece.at + (*free - box.centre());
        return true;
      }
      if (tries > 1) size_piece(piece, 0.75, 0.75);
    }
  } catch (const Problem&) {
    return true;  // what cannot be made says so itself
  }
  return false;
}

}  // namespace doyen
