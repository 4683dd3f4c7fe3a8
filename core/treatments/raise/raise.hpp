// A shape that stays standing on a sunk ground.
#pragma once

#include <string>

namespace doyen {

struct RaiseChoices {
  std::string panel;   // id of the piece that bounds the sunk ground; empty: a margin round it
  bool sloped = true;  // V flanks; else upright ones
  int steps = 1;       // how many even steps lead down to the ground
  double terrace = 4;  // mm, with several steps: how wide each step's flat is
  friend bool operator==(const RaiseChoices&, const RaiseChoices&) = default;
};

}  // namespace doyen
