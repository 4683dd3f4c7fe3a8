// How often outlines meet, before the sweep that joins them is let loose: internal to geometry/.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

#include "cancel.hpp"
#include "geometry/cell_index.hpp"
#include "geometry/clipper_paths.hpp"

namespace doyen {

// Outlines that cross themselves without end would keep the sweep busy for hours; no artwork does that.
inline constexpr std::size_t kMostCrossings = 30'000;
inline constexpr std::size_t kMostTouches = 3'000'000;  // lying on each other

using GridPoint = ClipperLib::IntPoint;

// How the rings' segments meet, found through a grid of cells.
class Meetings {
 public:
  explicit Meetings(const ClipperLib::Paths& paths) {
    double total = 0;
    for (const ClipperLib::Path& path : paths) {
      for (std::size_t i = 0, j = path.size() - 1; i < path.size(); j = i++) {
        const auto first = static_cast<std::uint32_t>(segments_.size() - i);
        const auto last = static_cast<std::uint32_t>(segments_.size() - i + path.size() - 1);
        segments_.push_back({path[j], path[i], first, last});
        heap_.push_back(first);
        total += std::hypot(static_cast<double>(path[i].X - path[j].X), static_cast<double>(path[i].Y - path[j].Y));
        box_.add(Point{static_cast<double>(path[i].X), static_cast<double>(path[i].Y)});
      }
    }
    const double count = static_cast<double>(segments_.size()) + 1;
    cell_ = std::max({total / (2 * count), 1.0, box_.width() / 3000, box_.height() / 3000});
    count_meetings();
  }

  [[nodiscard]] bool none() const { return complete_ && touches_ == 0 && crossings_ == 0; }
  [[nodiscard]] bool too_many() const { return crossings_ > kMostCrossings || touches_ > kMostTouches; }
  // The points of the rings that hang together, of the largest such heap: so many may become one outline. As far as
  // they were looked at.
  [[nodiscard]] std::size_t largest_heap() {
    std::vector<std::size_t> in_heap(segments_.size());
    std::size_t largest = 0;
    for (std::uint32_t k = 0; k < segments_.size(); ++k)
      largest = std::max(largest, ++in_heap[heap_of(segments_[k].first)]);
    return largest;
  }

 private:
  struct Segment {
    GridPoint a, b;
    std::uint32_t first, last;  // of its ring
  };
  static constexpr std::size_t kMostTests = 60'000'000;

  void count_meetings() {
    const auto columns = static_cast<std::size_t>(box_.width() / cell_) + 1;
    const auto rows = static_cast<std::size_t>(box_.height() / cell_) + 1;
    CellIndex cells(segments_.size());
    const auto slot = [&](double v, std::size_t n) {
      return std::min(n - 1, static_cast<std::size_t>(std::max(0.0, v / cell_)));
    };
    std::size_t tests = 0;
    for (std::uint32_t k = 0; k < segments_.size(); ++k) {
      const auto ax = static_cast<double>(segments_[k].a.X), ay = static_cast<double>(segments_[k].a.Y);
      const auto bx = static_cast<double>(segments_[k].b.X), by = static_cast<double>(segments_[k].b.Y);
      const std::size_t r1 = slot(std::max(ay, by) - box_.bottom, rows);
      for (std::size_t r = slot(std::min(ay, by) - box_.bottom, rows); r <= r1; ++r) {
        double from = std::min(ax, bx), to = std::max(ax, bx);
        if (ay != by) {  // the part of the segment within this row of cells, and a step more
          const double low = box_.bottom + static_cast<double>(r) * cell_;
          const double t0 = std::clamp((low - 1 - ay) / (by - ay), 0.0, 1.0);
          const double t1 = std::clamp((low + cell_ + 1 - ay) / (by - ay), 0.0, 1.0);
          from = std::min(ax + (bx - ax) * t0, ax + (bx - ax) * t1) - 1;
          to = std::max(ax + (bx - ax) * t0, ax + (bx - ax) * t1) + 1;
        }
        const std::size_t c1 = slot(to - box_.left, columns);
        for (std::size_t c = slot(from - box_.left, columns); c <= c1; ++c) {
          const std::size_t cell = r * columns + c;
          const bool went_on = cells.all_in(cell, [&](std::uint32_t other) {
            if (++tests > kMostTests) return false;
            if (tests % 65'536 == 0) Cancel::check_here();
            look(k, other);
            return crossings_ <= kMostCrossings;
          });
          if (!went_on) return;
          cells.add(cell, k);
        }
      }
    }
    complete_ = true;
  }

  // The first segment of the first ring of the heap that this ring's first segment belongs to.
  std::uint32_t heap_of(std::uint32_t first) {
    while (heap_[first] != first) first = heap_[first] = heap_[heap_[first]];
    return first;
  }

  void look(std::uint32_t i, std::uint32_t k) {
    const std::size_t before = touches_ + crossings_;
    count(i, k);
    if (touches_ + crossings_ == before || segments_[i].first == segments_[k].first) return;
    const std::uint32_t a = heap_of(segments_[i].first), b = heap_of(segments_[k].first);
    heap_[std::max(a, b)] = std::min(a, b);
  }

  void count(std::uint32_t i, std::uint32_t k) {
    const Segment &p = segments_[i], &q = segments_[k];
    const bool neighbours = p.first == q.first && (i == k + 1 || k == i + 1 || (i == p.last && k == p.first) ||
                                                   (k == p.last && i == p.first));
    const auto side = [](const GridPoint& a, const GridPoint& b, const GridPoint& c) {
      // Within 100 m the differences stay below 2e9 steps and this below 8e18: it fits.
      const ClipperLib::cInt v = (b.X - a.X) * (c.Y - a.Y) - (b.Y - a.Y) * (c.X - a.X);
      return v > 0 ? 1 : v < 0 ? -1 : 0;
    };
    const int a = side(p.a, p.b, q.a), b = side(p.a, p.b, q.b), c = side(q.a, q.b, p.a), d = side(q.a, q.b, p.b);
    if (neighbours) {  // they share a point; lying on each other they fold back
      if (a == 0 && b == 0 && folds(p, q)) ++touches_;
      return;
    }
    if (a * b < 0 && c * d < 0) {
      ++crossings_;
    } else if (a * b <= 0 && c * d <= 0 && boxes_meet(p, q)) {
      ++touches_;
    }
  }
  static bool folds(const Segment& p, const Segment& q) {
    const ClipperLib::cInt dot = (p.b.X - p.a.X) * (q.b.X - q.a.X) + (p.b.Y - p.a.Y) * (q.b.Y - q.a.Y);
    return dot <= 0;
  }
  static bool boxes_meet(const Segment& p, const Segment& q) {
    return std::max(std::min(p.a.X, p.b.X), std::min(q.a.X, q.b.X)) <=
               std::min(std::max(p.a.X, p.b.X), std::max(q.a.X, q.b.X)) &&
           std::max(std::min(p.a.Y, p.b.Y), std::min(q.a.Y, q.b.Y)) <=
               std::min(std::max(p.a.Y, p.b.Y), std::max(q.a.Y, q.b.Y));
  }

  std::vector<Segment> segments_;
  std::vector<std::uint32_t> heap_;  // of rings' first segments: another ring's that it hangs together with, or itself
  Box box_;
  double cell_ = 1;
  std::size_t crossings_ = 0, touches_ = 0;
  bool complete_ = false;
};

}  // namespace doyen
