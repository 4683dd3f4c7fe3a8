// Lines that the bit follows.
#pragma once

namespace doyen {

struct LineChoices {
  double hatch = 0;         // mm between lines that fill the inside; 0: only the outline is followed
  double hatch_angle = 45;  // degrees from the board's width
  friend bool operator==(const LineChoices&, const LineChoices&) = default;
};

}  // namespace doyen
