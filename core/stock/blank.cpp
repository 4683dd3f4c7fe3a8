#include "stock/blank.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/path.hpp"

namespace doyen {

double Blank::thickest() const { return *std::max_element(readings.begin(), readings.end()); }
double Blank::thinnest() const { return *std::min_element(readings.begin(), readings.end()); }

const char* to_word(KeepOut::Kind kind) {
  switch (kind) {
    case KeepOut::Kind::Clamp:
      return "clamp";
    case KeepOut::Kind::Screw:
      return "screw";
    case KeepOut::Kind::Knot:
      return "knot";
    case KeepOut::Kind::Sapwood:
      return "sapwood";
    case KeepOut::Kind::Crack:
      return "crack";
    case KeepOut::Kind::GlueLine:
      return "glueLine";
  }
  return "";
}

Region region_of(const Blank& blank) {
  if (blank.form == BlankForm::Outline) {
    std::vector<Ring> rings = flatten(parse_path(blank.edge), kFlatness / 10, true).closed;
    Box box;
    for (const Ring& ring : rings) box.add(bounds(ring));
    if (box.width() <= 0 || box.height() <= 0) return {};
    const double kx = blank.width / box.width(), ky = blank.height / box.height();
    for (Ring& ring : rings) {
      for (Point& p : ring) p = {(p.x - box.left) * kx, (p.y - box.bottom) * ky};
    }
    return clean(rings);
  }
  const double w = blank.width, h = blank.height;
  if (blank.form == BlankForm::Rectangle) return clean({{{0, 0}, {w, 0}, {w, h}, {0, h}}});
  Ring ring;
  const int parts = std::clamp(static_cast<int>(std::sqrt(std::max(w, h)) * 16), 72, 1440);
  for (int i = 0; i < parts; ++i) {
    const double a = 2 * std::numbers::pi * i / parts;
    ring.push_back({w / 2 * (1 + std::cos(a)), h / 2 * (1 + std::sin(a))});
  }
  return clean({ring});
}

Region room_for_art(const Blank& blank) {
  const Region wood = region_of(blank);
  if (!blank.runs_off.any()) return wood;
  constexpr double kBeyond = 20'000;  // mm, larger than any sign
  const Region whole = region_of(blank.runs_off.grown(blank.box(), kBeyond));
  return blank.form == BlankForm::Rectangle ? whole : unite(wood, subtract(whole, region_of(blank.box())));
}

Region region_of(const KeepOut& place) {
  const Box b = place.box();
  if (!place.round()) return region_of(b);
  Ring ring;
  constexpr int kParts = 72;
  for (int i = 0; i < kParts; ++i) {
    const double a = 2 * std::numbers::pi * i / kParts;
    ring.push_back({place.x + place.width / 2 * std::cos(a), place.y + place.height / 2 * std::sin(a)});
  }
  return clean({ring});
}

}  // namespace doyen
