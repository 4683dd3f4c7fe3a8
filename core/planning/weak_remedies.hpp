// What would make a weak place hold, each tried: planned for real, carved, and measured again.
#pragma once

#include "planning/weak_map.hpp"

namespace doyen {

// What could help one place, untried: art as much thicker as it lacks, what is too high or too deep less so, flanks
// sloped, an opening moved off, the grain turned, plywood in the place of wood.
std::vector<Remedy> weak_remedies(const Plan& plan, const WeakMap& map, std::size_t place);

struct Mended {
  std::size_t places = 0;  // that are weak then, all over the board
  double seconds = 0;      // at the machine then
};

// Plans the job with it and measures the wood that stays anew: nothing where that place is still weak, where more is
// weak than before, or where something new stops the job. `place`: its number in `before`. Throws Cancelled.
std::optional<Mended> mends_weak(const Plan& plan, const WeakMap& before, std::size_t place, const Remedy& remedy,
                                 const Cancel& cancel = {});

}  // namespace doyen
