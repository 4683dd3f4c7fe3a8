// Slots that a screw's head slides into.
#pragma once

namespace doyen {

struct SlotChoices {
  double length = 16;  // mm, how far the head slides
  friend bool operator==(const SlotChoices&, const SlotChoices&) = default;
};

}  // namespace doyen
