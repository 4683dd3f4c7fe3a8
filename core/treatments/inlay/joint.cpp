#include "treatments/inlay/joint.hpp"

#include <algorithm>

namespace doyen {

Region eased(const Region& art, double radius) {
  if (radius <= 0) return art;
  return grow(grow(opening(art, radius), radius), -radius);
}

Region plug_background(const Region& art, const Inlay& inlay, double margin) {
  Region land = eased(art, inlay.ease);
  if (!inlay.sloped) land = grow(land, -inlay.allowance);
  if (land.empty()) return {};
  std::vector<Ring> outer;
  for (const Island& island : land.islands) outer.push_back(island.rings.front());
  return subtract(grow(clean(outer), std::max(0.5, margin)), land);
}

}  // namespace doyen
