// The clock that the benchmarks read by hand.
#pragma once

#include <chrono>

using Clock = std::chrono::steady_clock;

inline double seconds_since(Clock::time_point t) { return std::chrono::duration<double>(Clock::now() - t).count(); }
