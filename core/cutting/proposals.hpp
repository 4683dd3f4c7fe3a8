// Which bits of the rack suit a floor, and why.
#pragma once

#include <string>
#include <vector>

#include "cancel.hpp"
#include "geometry/region.hpp"
#include "measure/id.hpp"
#include "rack/asked_rack.hpp"

namespace doyen {

struct ProposedBit {
  BitId bit;
  double reaches = 0;  // share of the floor that it and the larger ones reach
};

// Which way the flutes shall throw the chips, and why (common practice, no source).
struct DirectionAdvice {
  CutDirection best = CutDirection::UpCut;
  std::string why;
};
DirectionAdvice direction_for_floor(double depth, double diameter, bool clean_edge);
DirectionAdvice direction_for_through(const std::string& wood_class);

// Flat bits, largest first, that reach this depth: the largest one that clears most of the floor, and, where it leaves
// corners, the largest one that reaches nearly all that the smallest bit would. Empty when no bit fits. Of bits of one
// size the one that direction_for_floor() wants.
std::vector<ProposedBit> propose_clearing(const Region& floor, double depth, const AskedRack& rack,
                                          const std::string& wood_class, const Cancel& cancel = {},
                                          bool clean_edge = true);

}  // namespace doyen
