// Outlines of which nothing can be made.
#pragma once

#include "geometry/region.hpp"

namespace doyen {

// They cross themselves more than 30,000 times, or lie on themselves more than three million times: a sweep over them
// would take hours. clean() refuses those with a sentence.
bool is_tangle(const std::vector<Ring>& rings);

}  // namespace doyen
