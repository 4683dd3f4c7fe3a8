// How flat bits move.
#pragma once

namespace doyen {

// How flat bits go over a floor, and how an upright wall or a through cut is finished.
struct Moves {
  enum class Way { Rings, AlongGrain, AcrossGrain };  // rings from the inside out, or rows with a last ring round them
  enum class Entry { Ramp, Helix };
  Way way = Way::Rings;
  Entry entry = Entry::Ramp;
  bool climb = true;      // the kept wood on the bit's right, the chip thick first; else conventional
  double stepover = 0.4;  // share of the bit's diameter
  double leave_on = 0;    // mm left on upright walls until a last clean pass at full depth; 0 for none
  double ramp = 0.1;      // mm down a mm along, where a bit enters along its way
  friend bool operator==(const Moves&, const Moves&) = default;
};

}  // namespace doyen
