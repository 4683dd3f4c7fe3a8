// Compiled so that the loop is worked four cells at a time where the processor can: a root of less than nothing and
// traps are not looked for, nothing else is left out.
#include "relief/cone_row.hpp"

#include <cmath>

namespace doyen {
namespace {

[[gnu::always_inline]] inline bool heights(const ConeMove& m, const ConeRow& row, float* z) {
  int beyond = 0;
  for (int i = 0; i < row.count; ++i) {
    const double x = (row.left + (static_cast<double>(row.first + i) + 0.5) * row.cell) - m.x0;
    const double u = x * m.dx + row.y * m.dy;
    const double w = std::abs(row.y * m.dx - x * m.dy);
    double s = u - w * m.shift;
    s = s < 0 ? 0 : s;
    s = m.len < s ? m.len : s;
    const double d = std::sqrt((u - s) * (u - s) + w * w);
    beyond += d > m.body ? 1 : 0;
    z[i] = static_cast<float>(m.z0 + m.slope * s + m.steep * d);
  }
  return beyond == 0;
}

bool plainly(const ConeMove& m, const ConeRow& row, float* z) { return heights(m, row, z); }

#if defined(__x86_64__)
[[gnu::target("avx2")]] bool four_at_a_time(const ConeMove& m, const ConeRow& row, float* z) {
  return heights(m, row, z);
}
const bool kFour = __builtin_cpu_supports("avx2") != 0;
#else
constexpr bool kFour = false;
constexpr auto four_at_a_time = plainly;
#endif

}  // namespace

bool cone_row(const ConeMove& move, const ConeRow& row, float* z) {
  return kFour ? four_at_a_time(move, row, z) : plainly(move, row, z);
}

}  // namespace doyen
