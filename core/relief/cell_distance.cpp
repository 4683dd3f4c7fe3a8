#include "relief/cell_distance.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

constexpr double kFar = 1e18;

// The lower envelope of parabolas over one row or column.
class Envelope {
 public:
  explicit Envelope(std::size_t most) : f_(most), at_(most), from_(most + 1) {}
  double& f(std::size_t i) { return f_[i]; }
  template <typename Put>
  void run(std::size_t n, const Put& put) {
    std::size_t k = 0;
    bool any = false;
    for (std::size_t q = 0; q < n; ++q) {
      if (f_[q] >= kFar) continue;
      double meets = -kFar;
      while (any) {
        meets = crossing(q, at_[k]);
        if (meets > from_[k]) break;
        if (k == 0) {
          any = false;
          break;
        }
        --k;
      }
      if (any)
        ++k;
      else
        meets = -kFar;
      any = true;
      at_[k] = q;
      from_[k] = meets;
      from_[k + 1] = kFar;
    }
    std::size_t j = 0;
    for (std::size_t q = 0; q < n; ++q) {
      if (!any) {
        put(q, kFar);
        continue;
      }
      const auto x = static_cast<double>(q);
      while (from_[j + 1] < x) ++j;
      const double d = x - static_cast<double>(at_[j]);
      put(q, d * d + f_[at_[j]]);
    }
  }

 private:
  [[nodiscard]] double crossing(std::size_t a, std::size_t b) const {
    const auto x = static_cast<double>(a), y = static_cast<double>(b);
    return (f_[a] + x * x - f_[b] - y * y) / (2 * (x - y));
  }
  std::vector<double> f_;
  std::vector<std::size_t> at_;
  std::vector<double> from_;
};

}  // namespace

namespace {

// In cells, up or down alone to the nearest marked one: swept once each way, row after row.
constexpr int kNone = 1 << 28;
std::vector<int> upright_distances(const std::vector<unsigned char>& marked, std::size_t columns, std::size_t rows) {
  std::vector<int> away(columns * rows, kNone);
  for (std::size_t i = 0; i < away.size(); ++i) {
    if (marked[i] != 0)
      away[i] = 0;
    else if (i >= columns)
      away[i] = std::min(kNone, away[i - columns] + 1);
  }
  for (std::size_t i = away.size(); i-- > columns;) away[i - columns] = std::min(away[i - columns], away[i] + 1);
  return away;
}

}  // namespace

std::vector<float> distances_to(const std::vector<unsigned char>& marked, std::size_t columns, std::size_t rows) {
  const std::vector<int> upright = upright_distances(marked, columns, rows);
  std::vector<float> distances(columns * rows);
  tbb::parallel_for(tbb::blocked_range<std::size_t>(0, rows, 32), [&](const tbb::blocked_range<std::size_t>& some) {
    Envelope envelope(columns + 1);
    for (std::size_t r = some.begin(); r < some.end(); ++r) {
      for (std::size_t c = 0; c < columns; ++c) {
        const double away = upright[r * columns + c];
        envelope.f(c) = away < kNone ? away * away : kFar;
      }
      envelope.run(columns, [&](std::size_t c, double d) {
        distances[r * columns + c] = d >= kFar ? 1e9F : static_cast<float>(std::sqrt(d));
      });
    }
  });
  return distances;
}

std::vector<int> groups_of(const std::vector<unsigned char>& marked, std::size_t columns, std::size_t rows,
                           int& count) {
  std::vector<int> group(columns * rows, 0);
  std::vector<std::size_t> open;
  count = 0;
  // Whatever touches it and is marked belongs to its group.
  const auto take_beside = [&](std::size_t c, std::size_t r) {
    for (std::size_t y = r > 0 ? r - 1 : 0; y <= std::min(r + 1, rows - 1); ++y) {
      for (std::size_t x = c > 0 ? c - 1 : 0; x <= std::min(c + 1, columns - 1); ++x) {
        const std::size_t next = y * columns + x;
        if (marked[next] == 0 || group[next] != 0) continue;
        group[next] = count;
        open.push_back(next);
      }
    }
  };
  for (std::size_t first = 0; first < marked.size(); ++first) {
    if (marked[first] == 0 || group[first] != 0) continue;
    group[first] = ++count;
    open.assign(1, first);
    while (!open.empty()) {
      const std::size_t here = open.back();
      open.pop_back();
      take_beside(here % columns, here / columns);
    }
  }
  return group;
}

}  // namespace doyen
