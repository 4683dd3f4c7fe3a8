// What a drawing may hold, in a job's file and when it is read from a customer's.
#pragma once

#include <cstddef>

namespace doyen {

inline constexpr std::size_t kMostParts = 200'000;  // outlines and lines

}  // namespace doyen
