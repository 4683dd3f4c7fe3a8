#include "artwork/drawing/strays.hpp"

#include <algorithm>
#include <cmath>

#include "problem.hpp"

namespace doyen {
namespace {

constexpr double kSmall = 0.1, kApart = 0.5;

double gap(const Box& a, const Box& b) {
  return std::hypot(std::max({0.0, a.left - b.right, b.left - a.right}),
                    std::max({0.0, a.bottom - b.top, b.bottom - a.top}));
}
double side(const Box& box) { return std::max(box.width(), box.height()); }

}  // namespace

Strays strays_of(const Drawing& drawing) {
  struct Placed {
    std::size_t part;
    Box box;
  };
  std::vector<Placed> all;
  const std::vector<Drawing::Part>& parts = drawing.parts;
  for (std::size_t i = 0; i < parts.size(); ++i) {
    if (parts[i].left_out) continue;
    try {
      const Flat flat = flatten(parse_path(parts[i].data), 1, !parts[i].line);
      Box box;
      for (const Ring& ring : flat.closed) box.add(bounds(ring));
      for (const auto& line : flat.open) box.add(bounds(line));
      if (!box.empty()) all.push_back({i, box});
    } catch (const Problem&) {
      continue;
    }
  }
  // The rest grows from the largest part by whatever lies near it; what never joins is apart.
  std::stable_sort(all.begin(), all.end(), [](const Placed& a, const Placed& b) { return side(a.box) > side(b.box); });
  Strays out;
  if (all.size() < 2) return out;
  Box rest = all.front().box;
  std::vector<Placed> left(all.begin() + 1, all.end());
  for (bool joined = true; joined;) {
    joined = false;
    std::erase_if(left, [&](const Placed& one) {
      const bool small = side(one.box) < kSmall * side(rest);
      if (small && gap(one.box, rest) > kApart * side(rest)) return false;
      rest.add(one.box);
      return joined = true;
    });
  }
  if (left.empty() || 5 * left.size() > all.size() + 4) return out;
  out.nearest = 1e300;
  for (const Placed& one : left) {
    out.parts.push_back(one.part);
    out.largest = std::max(out.largest, side(one.box) * drawing.scale);
    out.nearest = std::min(out.nearest, gap(one.box, rest) * drawing.scale);
  }
  std::sort(out.parts.begin(), out.parts.end());
  return out;
}

}  // namespace doyen
