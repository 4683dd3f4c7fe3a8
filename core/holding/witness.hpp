// The witness mark: a small dimple in the waste that the first bit makes before all else. Every later bit is held over
// it with the spindle still: where its tip does not meet the mark, x and y were lost, and are found again there.
// (Common practice, no source.)
#pragma once

#include "job/job.hpp"

namespace doyen {

bool is_witness(const Item& item);
// It serves the run and is no part of the sign: margins and the like do not ask after it.
bool serves_the_run(const Item& item);

inline constexpr double kWitnessDepth = 0.5;  // mm below the face

// The job with such a mark as a drilled piece, made by `bit`: in the waste clear of every cut and clamp, the nearest to
// where zero is taken. It takes the place of one that was there. Throws Problem{BadInput} where there is no waste for
// it.
Job with_witness(const Job& job, const Rack& rack, const BitId& bit);

}  // namespace doyen
