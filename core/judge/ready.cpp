#include "judge/ready.hpp"

#include <algorithm>

#include "judge/hash.hpp"

namespace doyen {
namespace {

constexpr double kRounding = 3e-4;  // mm that a short move may seem to sink by

std::uint64_t key_of(const Worked& w) {
  Hash h;
  const Bit& b = w.bit;
  for (const double v : {b.true_diameter(), b.true_angle(), b.tip, b.neck, b.flute_length, w.most_at_once, w.plunge})
    h.add(v);
  h.add(static_cast<std::uint64_t>(b.kind));
  h.add(static_cast<std::uint64_t>(b.centre_cutting));
  for (const Pass& pass : w.passes) {
    h.add(static_cast<std::uint64_t>(pass.points.size()));
    h.add(pass.points.data(), pass.points.size() * sizeof(Point3));
  }
  for (const auto& feeds : w.feeds) h.add(feeds.data(), feeds.size() * sizeof(double));
  return h.value();
}

}  // namespace

bool Ready::plunges(std::size_t move) const {
  const auto [pass, leg] = cut.of(move);
  const std::vector<Point3>& points = worked->passes[pass].points;
  if (leg + 1 >= points.size()) return false;
  const Point3 &a = points[leg], &b = points[leg + 1];
  const double down = a.z - b.z, len = distance(a, b);
  if (down <= 1e-6 || len <= 0) return false;
  if (!worked->bit.centre_cutting && distance(a.flat(), b.flat()) < 1e-6) return true;
  const double feed =
      pass < worked->feeds.size() && leg + 1 < worked->feeds[pass].size() ? worked->feeds[pass][leg + 1] : 0;
  // Files hold four decimals, and feeds to 2 per cent.
  return feed * (down - kRounding) / len > worked->plunge * 1.05 + 1;
}

Ready ready(const Worked& w) {
  const Bit& bit = w.bit;
  double edge = bit.flute_length > 0 ? bit.flute_length : 1e9;
  if (bit.kind == BitKind::V) edge = std::min(edge, bit.body_depth());
  return {&w, PreparedCut(w.passes, bit), key_of(w), edge,
          bit.kind != BitKind::Keyhole && deepest(w.passes) < -edge - 0.1};
}

}  // namespace doyen
