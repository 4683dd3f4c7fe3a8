#include "stock/blank.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace doyen {

double Blank::thickest() const { return *std::max_element(readings.begin(), readings.end()); }
double Blank::thinnest() const { return *std::min_element(readings.begin(), readings.end()); }

const char* to_word(KeepOut::Kind kind) {
  static constexpr const char* kWords[] = {"clamp", "screw", "knot", "sapwood", "crack", "glueLine"};
  return kWords[static_cast<int>(kind)];
}

Region region_of(const KeepOut& place) {
  const Box b = place.box();
  if (!place.round()) return clean({{{b.left, b.bottom}, {b.right, b.bottom}, {b.right, b.top}, {b.left, b.top}}});
  Ring ring;
  constexpr int kParts = 72;
  for (int i = 0; i < kParts; ++i) {
    const double a = 2 * std::numbers::pi * i / kParts;
    ring.push_back({place.x + place.width / 2 * std::cos(a), place.y + place.height / 2 * std::sin(a)});
  }
  return clean({ring});
}

}  // namespace doyen
