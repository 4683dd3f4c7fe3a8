// Fewer moves for the same wood.
#pragma once

#include "cutting/pass.hpp"

namespace doyen {

inline constexpr double kMerged = 0.005;  // mm that a way may be off by where moves are merged
// The same of a V: whatever its tip is off by stands as a ridge or a step of a flank.
inline constexpr double kMergedV = 0.002;
inline constexpr double kShortMove = 0.02;  // mm: a shorter move is merged even where it is off by twice that

// Moves that hardly differ from a straight one become one, those too short for any controller go. Ends, and the lowest
// and highest places to within the same, stay.
Pass merged(const Pass& pass, double off = kMerged);

}  // namespace doyen
