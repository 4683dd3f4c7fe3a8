// How far a run reaches at the machine, and a file that goes round that in the air before anything is cut.
#pragma once

#include <optional>
#include <vector>

#include "planning/outputs.hpp"

namespace doyen {

// In the files' coordinates, mm from zero.
struct Reach {
  Box middle;          // where the bit's middle goes in the wood
  Box body;            // what its body takes up then
  double lowest = 0;   // the deepest z
  double highest = 0;  // between cuts
};
std::optional<Reach> reach_of(const Plan& plan, const BitRun& run);
std::optional<Reach> reach_of(const Plan& plan, Side side);  // of all of that side's bits

// One for the front, and one for the back where the back is cut, too, when the job asks for them
// (RunSettings::look_round): with the spindle off, at the height of travel, once round what the bits' bodies take up,
// at half the machine's pace, and back to zero.
std::vector<OutputFile> look_round_files(const Plan& plan);

}  // namespace doyen
