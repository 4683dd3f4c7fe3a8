// Where holes and hanger slots of a piece lie.
#pragma once

#include <vector>

#include "artwork/piece.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

// Of Drill: the islands' middles and the lines' beginnings, or evenly along outlines and lines when a spacing is set.
std::vector<Point> drill_points(const Outlines& outlines, const Treatment& cut);

struct SlotPlace {
  Point hole, end;  // where the head goes in, and how far it slides
};
// Of HangerSlot: the hole lies at the lower end, so that the sign drops onto its screw.
std::vector<SlotPlace> slot_places(const Outlines& outlines, const Treatment& cut);

}  // namespace doyen
