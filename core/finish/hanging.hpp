// How a sign hangs: its weight, where it balances, where hangers go so that it hangs level.
#pragma once

#include <string>
#include <vector>

#include "finish/finish_figures.hpp"

namespace doyen {

struct Hanging {
  double kilograms = 0;
  Point centre;               // mm on the board, seen from the front
  std::vector<Point> places;  // of the screws that carry it, from left to right, seen from the front
  std::vector<double>
      loads;           // along `places`, share of the weight that each carries, by moments; negative: it lifts off
  bool slots = false;  // the places are those of the job's own hanger slots
  double screw = 0;    // mm: how long a screw into its back may be; 0 where slots are cut
  double let_in = 0;   // kg of it that plugs, inserts and resin weigh
  double tilt = 0;     // degrees by which it hangs askew, anticlockwise from the front
  [[nodiscard]] bool level() const { return tilt > -0.2 && tilt < 0.2; }
};

// One hanger to 250 mm and 1 kg, two to 1200 mm, one more each 600 mm and each 5 kg (common practice, no source), at
// one height above where it balances, alike on both sides of it. Throws Problem{BadInput} when no wood is left for
// them.
Hanging hanging_of(const Plan& plan, const FinishFigures& figures);

// The job's hanger slots moved sideways so that the weight hangs midway between them; the same job where there are
// none.
Job with_slots_level(const Job& job, const Hanging& hanging);

// A step round the back of all that is cut out, which follows its outline: the edge stands off the wall by its depth,
// and the sign seems to float. As wide as leaves it half its width to stand on. Throws Problem{BadInput} where nothing
// is cut out, the sign is too small or too thin, or it has such a step.
struct FloatStep {
  double depth = 0, width = 0;  // mm
};
FloatStep float_step(const Plan& plan);
Job with_float_step(const Plan& plan);
// Its id in the job; empty where there is none.
std::string float_step_of(const Job& job);

std::vector<std::string> hanging_in_words(const Plan& plan, const Hanging& hanging);

}  // namespace doyen
