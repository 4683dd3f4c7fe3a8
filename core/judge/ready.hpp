// One operation made ready for every tile.
#pragma once

#include "judge/judge.hpp"
#include "relief/carve.hpp"

namespace doyen {

struct Ready {
  const Worked* worked;
  PreparedCut cut;
  std::uint64_t key;
  double edge;    // mm above the tip at which the cutting edge ends
  bool too_deep;  // some move goes deeper than the flutes are long

  // A move that sinks faster than the bit may, or straight down with one that does not cut at its middle.
  [[nodiscard]] bool plunges(std::size_t move) const;
};

Ready ready(const Worked& w);

}  // namespace doyen
