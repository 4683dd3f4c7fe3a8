#include "wanted/outline_distance.hpp"

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

// The part of a row that is still looked at, as x from the row's own zero.
struct Interval {
  double from, to;
  // Keeps where k·x + c >= 0.
  void keep(double k, double c) {
    if (std::abs(k) < 1e-12) {
      if (c < 0) to = from - 1;
    } else if (k > 0) {
      from = std::max(from, -c / k);
    } else {
      to = std::min(to, -c / k);
    }
  }
};

template <typename Distance>
void lower_row(const CellGrid& grid, int row, const Interval& x, Point origin, std::vector<float>& out,
               Distance distance_at) {
  const int first = std::max(0, static_cast<int>(std::ceil((origin.x + x.from - grid.first.x) / grid.cell - 1e-9)));
  const int last =
      std::min(grid.columns - 1, static_cast<int>(std::floor((origin.x + x.to - grid.first.x) / grid.cell + 1e-9)));
  for (int c = first; c <= last; ++c) {
    const auto d = static_cast<float>(distance_at(grid.first.x + c * grid.cell - origin.x));
    float& held = out[grid.at(c, row)];
    held = std::min(held, d);
  }
}

struct Rows {
  int first, last;
};
Rows rows_of(const CellGrid& grid, double bottom, double top) {
  return {std::max(0, static_cast<int>(std::ceil((bottom - grid.first.y) / grid.cell - 1e-9))),
          std::min(grid.rows - 1, static_cast<int>(std::floor((top - grid.first.y) / grid.cell + 1e-9)))};
}

template <typename Corner>
Rows rows_of_corner(const CellGrid& grid, const Corner& corner, double most) {
  double bottom = -most, top = most;
  // Between two segments that run on nearly straight it is a narrow wedge on the outer side of the turn.
  if (dot(corner.in, corner.out) > 0.8) {
    const double side = cross(corner.in, corner.out) > 0 ? -1 : 1, reach = side * most / 0.9;
    const double a = corner.in.x * reach, b = corner.out.x * reach;
    bottom = std::max(bottom, std::min({0.0, a, b}));
    top = std::min(top, std::max({0.0, a, b}));
  }
  return rows_of(grid, corner.at.y + bottom, corner.at.y + top);
}

}  // namespace

Box CellGrid::box() const { return {first.x, first.y, first.x + (columns - 1) * cell, first.y + (rows - 1) * cell}; }

CellGrid CellGrid::grown(int cells) const {
  return {{first.x - cells * cell, first.y - cells * cell}, cell, columns + 2 * cells, rows + 2 * cells};
}

OutlineSegments::OutlineSegments(const Region& region) {
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) add(ring, true);
  }
}

OutlineSegments::OutlineSegments(const std::vector<Line2>& lines) {
  for (const Line2& line : lines) {
    const bool closed = line.size() > 3 && line.front() == line.back();
    if (closed)
      add({line.begin(), line.end() - 1}, true);
    else
      add(line, false);
  }
}

void OutlineSegments::add(const std::vector<Point>& given, bool closed) {
  std::vector<Point> points;
  points.reserve(given.size());
  for (const Point& p : given) {
    if (points.empty() || !(points.back() == p)) points.push_back(p);
  }
  while (closed && points.size() > 1 && points.front() == points.back()) points.pop_back();
  const std::size_t n = points.size();
  if (n == 0) return;
  constexpr std::size_t kRun = 24;
  const auto way = [&](std::size_t from, std::size_t to) {
    const Point d = points[to] - points[from];
    return d * (1 / length(d));
  };
  for (std::size_t begin = 0; begin < n; begin += kRun) {
    Run run{{}, segments_.size(), 0, corners_.size(), 0};
    for (std::size_t i = begin; i < std::min(n, begin + kRun); ++i) {
      const bool has_next = n > 1 && (closed || i + 1 < n), has_last = n > 1 && (closed || i > 0);
      const std::size_t next = (i + 1) % n, last = (i + n - 1) % n;
      run.box.add(points[i]);
      if (has_next) {
        segments_.push_back({points[i], points[next]});
        run.box.add(points[next]);
      }
      corners_.push_back({points[i], has_last ? way(last, i) : Point{}, has_next ? way(i, next) : Point{}});
    }
    run.segments_end = segments_.size();
    run.corners_end = corners_.size();
    box_.add(run.box);
    runs_.push_back(run);
  }
}

bool OutlineSegments::near(const Box& box) const {
  return box_.meets(box) && std::any_of(runs_.begin(), runs_.end(), [&](const Run& run) { return run.box.meets(box); });
}

SeenFigure::SeenFigure(const Region& region, const OutlineSegments& outline, const CellGrid& grid, double most)
    : most_(most) {
  const Box all = grid.box();
  near_ = outline.near(all.grown(most + grid.cell));
  if (!near_) {
    inside_ = outline.box().meets(all) && contains(region, grid.first);
    return;
  }
  mark_inside(region, grid, in_);
  away_.assign(grid.size(), static_cast<float>(most));
  outline.lower_to_distance(grid, most, away_);
}

void OutlineSegments::lower_to_distance(const CellGrid& grid, double most, std::vector<float>& distances) const {
  const Box near = grid.box().grown(most);
  for (const Run& run : runs_) {
    if (!run.box.meets(near)) continue;
    for (std::size_t s = run.segments_begin; s < run.segments_end; ++s) {
      const Point a = segments_[s].a, b = segments_[s].b;
      const double len = distance(a, b);
      const Point u = (b - a) * (1 / len);
      // The strip on both sides: 0 <= t <= len along it, |w| <= most beside it.
      const Rows rows =
          rows_of(grid, std::min(a.y, b.y) - most * std::abs(u.x), std::max(a.y, b.y) + most * std::abs(u.x));
      for (int r = rows.first; r <= rows.last; ++r) {
        const double y = grid.first.y + r * grid.cell - a.y;
        Interval x{std::min(0.0, b.x - a.x) - most, std::max(0.0, b.x - a.x) + most};
        x.keep(u.x, u.y * y + 1e-9);
        x.keep(-u.x, len - u.y * y + 1e-9);
        x.keep(u.y, most - u.x * y);
        x.keep(-u.y, most + u.x * y);
        if (x.from > x.to) continue;
        lower_row(grid, r, x, a, distances, [&](double at) { return std::abs(u.x * y - u.y * at); });
      }
    }
    for (std::size_t k = run.corners_begin; k < run.corners_end; ++k) {
      const Corner& corner = corners_[k];
      const Rows rows = rows_of_corner(grid, corner, most);
      for (int r = rows.first; r <= rows.last; ++r) {
        const double y = grid.first.y + r * grid.cell - corner.at.y;
        const double half2 = most * most - y * y;
        if (half2 < 0) continue;
        Interval x{-std::sqrt(half2), std::sqrt(half2)};
        x.keep(corner.in.x, corner.in.y * y + 1e-9);
        x.keep(-corner.out.x, -corner.out.y * y + 1e-9);
        if (x.from > x.to) continue;
        lower_row(grid, r, x, corner.at, distances, [&](double at) { return std::sqrt(at * at + y * y); });
      }
    }
  }
}

void mark_inside(const Region& region, const CellGrid& grid, std::vector<std::uint8_t>& inside) {
  inside.assign(grid.size(), 0);
  const Box box = grid.box();
  struct Crossing {
    int row;
    double x;
    bool operator<(const Crossing& o) const { return row != o.row ? row < o.row : x < o.x; }
  };
  thread_local std::vector<Crossing> crossings;  // grown once
  crossings.clear();
  for (const Island& island : region.islands) {
    if (!bounds(island).meets(box)) continue;
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Point a = ring[j], b = ring[i];
        if (std::min(a.x, b.x) > box.right) continue;  // counts only for what lies to its right
        // A row more on either side: which rows an end belongs to is decided in one way for both of its edges.
        const Rows rows = rows_of(grid, std::min(a.y, b.y) - grid.cell, std::max(a.y, b.y) + grid.cell);
        for (int r = rows.first; r <= rows.last; ++r) {
          const double y = grid.first.y + r * grid.cell;
          if ((a.y <= y) != (b.y <= y)) crossings.push_back({r, a.x + (y - a.y) / (b.y - a.y) * (b.x - a.x)});
        }
      }
    }
  }
  std::sort(crossings.begin(), crossings.end());
  for (std::size_t k = 0; k < crossings.size();) {
    const int r = crossings[k].row;
    // An odd one lies right of the grid.
    const bool pair = k + 1 < crossings.size() && crossings[k + 1].row == r;
    const double from = (crossings[k].x - grid.first.x) / grid.cell,
                 to = pair ? (crossings[k + 1].x - grid.first.x) / grid.cell : 1e300;
    const int first = from > grid.columns ? grid.columns : std::max(0, static_cast<int>(std::ceil(from)));
    const int last = to > grid.columns ? grid.columns - 1 : static_cast<int>(std::floor(to));
    for (int c = first; c <= last; ++c) inside[grid.at(c, r)] = 1;
    k += pair ? 2 : 1;
  }
}

}  // namespace doyen
