// Files for going on: after a bit broke or the power went, and where a cut-out did not come through.
#pragma once

#include "planning/outputs.hpp"

namespace doyen {

// Seconds that the passes from `first` on take.
double seconds_from(const Plan& plan, const BitRun& run, std::size_t first);
// The pass during which the run, begun at zero, has run for so many seconds.
std::size_t pass_at(const Plan& plan, const BitRun& run, double seconds);

// The run from pass `first` on (0: all of it), as a file of its own: “02-again-from-37-lid-v60-carve.nc”. The bit
// travels high to the place and comes down at plunge feed from above the face everywhere: nothing is taken for cut that
// may not be. Throws Problem{BadInput} when there is no such run or pass.
OutputFile again_from(const Plan& plan, std::size_t run, std::size_t first);

// What is cut out or through in the run, its last round once more and deeper by `more` mm:
// “03-deeper-lid-1-4in-up-cut-out.nc”. Tabs are kept, thinner by as much. Throws Problem{BadInput} when nothing of the
// run goes through.
OutputFile again_deeper(const Plan& plan, std::size_t run, double more);
bool goes_through_in(const BitRun& run);

}  // namespace doyen
