#include "treatments/hanger_slot/slot_places.hpp"

namespace doyen {

std::vector<SlotPlace> slot_places(const Outlines& outlines, const SlotChoices& slot) {
  std::vector<SlotPlace> slots;
  for (const Line2& line : outlines.lines) {
    if (line.size() < 2) continue;
    const Point a = line.front(), b = line.back();
    slots.push_back(a.y <= b.y ? SlotPlace{a, b} : SlotPlace{b, a});
  }
  for (const Island& island : outlines.region.islands) {
    const Point middle = centroid(Region{{Island{{island.rings.front()}}}});
    slots.push_back({middle, middle + Point{0, slot.length}});
  }
  return slots;
}

}  // namespace doyen
