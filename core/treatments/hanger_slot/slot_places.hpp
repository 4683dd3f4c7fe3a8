// Where a piece's hanger slots lie.
#pragma once

#include <vector>

#include "artwork/piece.hpp"
#include "treatments/hanger_slot/hanger_slot.hpp"

namespace doyen {

struct SlotPlace {
  Point hole, end;  // where the head goes in, and how far it slides
};
// The hole lies at the lower end, so that the sign drops onto its screw.
std::vector<SlotPlace> slot_places(const Outlines& outlines, const SlotChoices& slot);

}  // namespace doyen
