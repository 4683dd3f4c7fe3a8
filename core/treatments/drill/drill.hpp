// Holes.
#pragma once

namespace doyen {

struct DrillChoices {
  double peck = 0;     // mm, how far at a time; 0 takes the bit's own depth a pass
  double spacing = 0;  // mm: holes along lines, so far apart; 0 drills the islands' middles only
  // Screws that hold the board go in: drilled before anything else is cut, in a file of its own (holding/screws.hpp).
  bool screws = false;
  bool witness = false;  // a mark that later bits are held over: made before all else (holding/witness.hpp)
  friend bool operator==(const DrillChoices&, const DrillChoices&) = default;
};

}  // namespace doyen
