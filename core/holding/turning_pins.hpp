// Two pins that a board is turned over onto: their holes are cut right through into the waste board by the side that
// is cut first, and lie so that each is found again, by itself or by the other, when the board is turned over.
// (Common practice, no source.)
#pragma once

#include "job/job.hpp"

namespace doyen {

bool is_turning_pin(const Item& item);

// The job with such holes as pieces, the farthest apart that the waste has room for; they take the place of those that
// were there. Throws Problem{BadInput} where nothing is cut out, no bit is long enough, or no two places match.
Job with_turning_pins(const Job& job, const Rack& rack);

}  // namespace doyen
