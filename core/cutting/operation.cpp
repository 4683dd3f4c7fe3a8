#include "cutting/operation.hpp"

#include <algorithm>

namespace doyen {

std::vector<Pass> turned_over(std::vector<Pass> passes, const Blank& blank, TurnOver turn) {
  for (Pass& pass : passes) {
    for (Point3& p : pass.points) {
      const Point q = turned_over(p.flat(), blank, turn);
      p = {q.x, q.y, p.z};
    }
  }
  return passes;
}

namespace {

constexpr std::size_t kMostSearched = 3000;  // beyond this the order they were made in is already local
constexpr std::size_t kMostImproved = 600;
constexpr std::size_t kWindow = 60;  // how many passes are turned round at once at most, or a pass is carried past

// Nearest next, as a beginning.
void nearest_first(std::vector<Pass>& passes, Point from, bool reversible) {
  for (std::size_t i = 0; i < passes.size(); ++i) {
    std::size_t best = i;
    double nearest = 1e300;
    bool turn = false;
    for (std::size_t k = i; k < passes.size(); ++k) {
      const double to_front = distance(from, passes[k].points.front().flat());
      const double to_back = reversible ? distance(from, passes[k].points.back().flat()) : 1e300;
      if (std::min(to_front, to_back) < nearest) {
        nearest = std::min(to_front, to_back);
        best = k;
        turn = to_back < to_front;
      }
    }
    std::swap(passes[i], passes[best]);
    if (turn) std::reverse(passes[i].points.begin(), passes[i].points.end());
    from = passes[i].points.back().flat();
  }
}

// An open tour from `from` through all passes, made shorter in place: a stretch of it run the other way round (2-opt,
// where passes may be), a short stretch carried elsewhere (or-opt). Each change makes the way in the air shorter, so it
// ends; the methods are textbook (Croes 1958, Or 1976).
class Tour {
 public:
  Tour(std::vector<Pass>& passes, Point from, bool reversible)
      : passes_(passes), from_(from), reversible_(reversible), ends_(passes.size()), order_(passes.size()) {
    for (std::size_t i = 0; i < passes.size(); ++i) {
      ends_[i] = {passes[i].points.front().flat(), passes[i].points.back().flat(), false};
      order_[i] = i;
    }
  }
  void shorten() {
    constexpr int kMostRounds = 12;
    for (int round = 0; round < kMostRounds; ++round) {
      const bool turned = reversible_ && turn_stretches();
      if (!carry_stretches() && !turned) break;
    }
    std::vector<Pass> out;
    out.reserve(passes_.size());
    for (const std::size_t i : order_) {
      if (ends_[i].turned) std::reverse(passes_[i].points.begin(), passes_[i].points.end());
      out.push_back(std::move(passes_[i]));
    }
    passes_ = std::move(out);
  }

 private:
  static constexpr double kWorth = 1e-6;  // mm
  struct Ends {
    Point front, back;
    bool turned;
  };
  [[nodiscard]] Point begin(std::size_t i) const { return ends_[order_[i]].front; }
  [[nodiscard]] Point end(std::size_t i) const { return i == kBefore ? from_ : ends_[order_[i]].back; }
  // From what comes before place i to p; from p to what comes at place i: nothing behind the last.
  [[nodiscard]] double onto(std::size_t i, Point p) const { return distance(end(i == 0 ? kBefore : i - 1), p); }
  [[nodiscard]] double off(Point p, std::size_t i) const { return i < order_.size() ? distance(p, begin(i)) : 0; }

  bool turn_stretches() {
    bool any = false;
    for (std::size_t i = 0; i < order_.size(); ++i) {
      for (std::size_t j = i; j < std::min(order_.size(), i + kWindow); ++j) {
        const double now = onto(i, begin(i)) + off(end(j), j + 1);
        const double then = onto(i, end(j)) + off(begin(i), j + 1);
        if (then > now - kWorth) continue;
        std::reverse(order_.begin() + static_cast<std::ptrdiff_t>(i),
                     order_.begin() + static_cast<std::ptrdiff_t>(j) + 1);
        for (std::size_t k = i; k <= j; ++k) {
          Ends& e = ends_[order_[k]];
          std::swap(e.front, e.back);
          e.turned = !e.turned;
        }
        any = true;
      }
    }
    return any;
  }
  // Up to three passes after one another, as they are, to another place near by in the tour.
  bool carry_stretches() {
    bool any = false;
    for (std::size_t length = 1; length <= 3; ++length) {
      for (std::size_t i = 0; i + length <= order_.size(); ++i) any = carry(i, length) || any;
    }
    return any;
  }
  bool carry(std::size_t i, std::size_t length) {
    const std::size_t after = i + length;
    const Point first = begin(i), last = end(after - 1);
    const Point before = end(i == 0 ? kBefore : i - 1);
    const double saved = distance(before, first) + off(last, after) - off(before, after);
    const std::size_t low = i > kWindow ? i - kWindow : 0, high = std::min(order_.size(), after + kWindow);
    for (std::size_t to = low; to <= high; ++to) {
      if (to >= i && to <= after) continue;
      const Point left = end(to == 0 ? kBefore : to - 1);
      if (distance(left, first) + off(last, to) - off(left, to) > saved - kWorth) continue;
      const auto at = [&](std::size_t k) { return order_.begin() + static_cast<std::ptrdiff_t>(k); };
      if (to < i)
        std::rotate(at(to), at(i), at(after));
      else
        std::rotate(at(i), at(after), at(to));
      return true;
    }
    return false;
  }

  static constexpr auto kBefore = static_cast<std::size_t>(-1);
  std::vector<Pass>& passes_;
  Point from_;
  bool reversible_;
  std::vector<Ends> ends_;          // along passes_, as they are gone through
  std::vector<std::size_t> order_;  // places in passes_
};

}  // namespace

Point order_passes(std::vector<Pass>& passes, Point from, bool reversible) {
  if (passes.empty()) return from;
  if (passes.size() <= kMostSearched) nearest_first(passes, from, reversible);
  if (passes.size() > 2 && passes.size() <= kMostImproved) Tour(passes, from, reversible).shorten();
  return passes.back().points.back().flat();
}

}  // namespace doyen
