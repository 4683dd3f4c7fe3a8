#include "cutting/chain.hpp"

#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "cutting/keep_away.hpp"

namespace doyen {
namespace {

std::int64_t cell_key(std::int64_t column, std::int64_t row) { return column * 2'000'003 + row; }

std::int64_t cell_of(double mm, double size) { return static_cast<std::int64_t>(std::floor(mm / size)); }

// Where lines may begin: the nearest one that is not taken yet.
class Beginnings {
 public:
  Beginnings(const std::vector<Line2>& lines, double farthest) : lines_(lines), size_(std::max(0.5, farthest / 4)) {
    taken_.resize(lines.size(), false);
    for (std::size_t i = 0; i < lines.size(); ++i) {
      const Line2& line = lines[i];
      if (line.empty()) continue;
      if (!is_closed(line)) {
        put(i, 0);
        if (line.size() > 1) put(i, line.size() - 1);
        continue;
      }
      for (std::size_t k = 0; k + 1 < line.size(); ++k) put(i, k);
    }
  }
  struct Found {
    std::size_t line = 0, point = 0;
  };
  // The nearest within `farthest` mm to which `free(from, to)`; of those farther off none is looked at.
  template <typename Free>
  bool nearest(Point from, double farthest, Free free, Found& found) {
    const std::int64_t column = cell_of(from.x, size_), row = cell_of(from.y, size_);
    const auto rings = static_cast<std::int64_t>(std::ceil(farthest / size_)) + 1;
    std::vector<std::pair<double, Found>> near;
    for (std::int64_t ring = 0; ring <= rings; ++ring) {
      near.clear();
      for (std::int64_t c = column - ring; c <= column + ring; ++c) {
        for (std::int64_t r = row - ring; r <= row + ring; ++r) {
          if (std::max(std::abs(c - column), std::abs(r - row)) == ring) look(c, r, from, farthest, near);
        }
      }
      // Nearest first; what lies in the next ring of cells is at most a cell's width nearer, which is near enough.
      std::sort(near.begin(), near.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
      std::size_t tried = 0;
      for (const auto& [away, candidate] : near) {
        if (++tried > 12) break;  // all of them behind the same wall
        if (!free(from, lines_[candidate.line][candidate.point])) continue;
        found = candidate;
        return true;
      }
    }
    return false;
  }
  void take(std::size_t line) { taken_[line] = true; }
  [[nodiscard]] bool taken(std::size_t line) const { return taken_[line]; }

 private:
  void put(std::size_t line, std::size_t point) {
    const Point p = lines_[line][point];
    cells_[cell_key(cell_of(p.x, size_), cell_of(p.y, size_))].push_back({line, point});
  }
  void look(std::int64_t c, std::int64_t r, Point from, double farthest, std::vector<std::pair<double, Found>>& near) {
    const auto at = cells_.find(cell_key(c, r));
    if (at == cells_.end()) return;
    std::erase_if(at->second, [&](const Found& f) { return taken_[f.line]; });
    for (const Found& f : at->second) {
      const double away = distance(from, lines_[f.line][f.point]);
      if (away <= farthest) near.emplace_back(away, f);
    }
  }

  const std::vector<Line2>& lines_;
  double size_;
  std::vector<bool> taken_;
  std::unordered_map<std::int64_t, std::vector<Found>> cells_;
};

// The line as it is followed from that point of it on.
Line2 from_point(const Line2& line, std::size_t point) {
  Line2 out = line;
  if (!is_closed(line)) {
    if (point > 0) std::reverse(out.begin(), out.end());
    return out;
  }
  out.pop_back();
  std::rotate(out.begin(), out.begin() + static_cast<std::ptrdiff_t>(point), out.end());
  out.push_back(out.front());
  return out;
}

}  // namespace

std::vector<Line2> chained(std::vector<Line2> lines, const Region& within, double farthest, const Cancel& cancel) {
  std::erase_if(lines, [](const Line2& line) { return line.empty(); });
  std::vector<Line2> out;
  const KeepAway edges(grow(within, 0.002), 1e-6);  // ways inside cross none
  Beginnings beginnings(lines, farthest);
  for (std::size_t first = 0; first < lines.size(); ++first) {
    if (beginnings.taken(first)) continue;
    cancel.check();
    beginnings.take(first);
    Line2& chain = out.emplace_back(lines[first]);
    Beginnings::Found next;
    while (beginnings.nearest(
        chain.back(), farthest, [&](Point a, Point b) { return edges.keeps(a, b); }, next)) {
      beginnings.take(next.line);
      const Line2 more = from_point(lines[next.line], next.point);
      chain.insert(chain.end(), more.begin() + (distance(chain.back(), more.front()) < 1e-9 ? 1 : 0), more.end());
    }
  }
  return out;
}

}  // namespace doyen
