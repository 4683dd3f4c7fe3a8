// The ways to make one inlay, side by side for the very art: sloped and upright flanks, with more and fewer bits.
#pragma once

#include <string>
#include <vector>

#include "inlay/plugs.hpp"
#include "planning/plan.hpp"

namespace doyen {

struct InlayWay {
  std::string name;    // such as “V alone”
  Treatment cut;       // what the piece would get
  double seconds = 0;  // both halves' boards with this inlay alone
  int bit_changes = 0;
  double lost = 0;                 // mm² of the art that no bit of this way reaches, in the pocket and round the plug
  std::vector<Region> lost_where;  // on the carrying board
  double play = 0;                 // mm from side to side that the joint allows; 0 where the flanks centre it
  int snapping = 0;                // parts of the plug that stand higher than they are wide at the foot
  double thinnest = 0;             // mm, about the thinnest such part's foot; 0 without any
  std::string exact, snaps;        // the same in words
  std::string problem;             // why it cannot be made so; empty when it can
};

// The piece as it is, then with the V alone, with the V and what Doyen proposes for the floors, and upright with the
// smallest flat bits that reach most. Ways that come to the same are listed once. Throws Cancelled.
std::vector<InlayWay> ways_to_inlay(const Job& job, const std::string& piece, const Rack& rack,
                                    const Cancel& cancel = {});

// The least radius, mm, that both halves' corners must be eased by for the plug to ride up by no more than `allowed`
// mm: found by easing, planning and mating. 0 when nothing binds; negative when no easing up to the one that
// ease_that_seats() gives is enough. Throws Cancelled.
double least_ease(const Job& job, const std::string& piece, const Rack& rack, double allowed = 0.02,
                  const Cancel& cancel = {});

}  // namespace doyen
