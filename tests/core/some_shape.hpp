// Outlines for what has to hold of any.
#pragma once

#include <random>

#include "geometry/region.hpp"

// Stars, waves and boxes with round holes, at random.
inline doyen::Region some_shape(std::mt19937& random, int kind) {
  using namespace doyen;
  const auto some = [&](double least, double most) {
    return std::uniform_real_distribution<double>(least, most)(random);
  };
  Ring ring;
  const int points = kind % 3 == 0 ? 2 * (3 + kind % 5) : kind % 3 == 1 ? 120 : 4;
  for (int i = 0; i < points; ++i) {
    const double a = 2 * M_PI * (i + 0.3) / points;
    const double r =
        kind % 3 == 0 ? (i % 2 == 0 ? some(8, 14) : some(3, 6)) : 12 + (kind % 3 == 1 ? 2 * std::sin(7 * a) : 0);
    ring.push_back({20 + r * std::cos(a), 20 + r * std::sin(a)});
  }
  Region out = clean({ring});
  for (int hole = 0; hole < kind % 4; ++hole) {
    Ring round;
    const Point at{some(14, 26), some(14, 26)};
    const double r = some(0.5, 2);
    const int corners = hole % 2 == 0 ? 20 : 4;
    for (int k = 0; k < corners; ++k)
      round.push_back({at.x + r * std::cos(2 * M_PI * k / corners), at.y + r * std::sin(2 * M_PI * k / corners)});
    out = subtract(out, clean({round}));
  }
  return out;
}
