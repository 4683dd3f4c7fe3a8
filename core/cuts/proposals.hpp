// Which bits of the rack suit a floor, and why.
#pragma once

#include <string>
#include <vector>

#include "cancel.hpp"
#include "geometry/region.hpp"
#include "rack/bit.hpp"

namespace doyen {

struct ProposedBit {
  std::string bit;     // id
  double reaches = 0;  // share of the floor that it and the larger ones reach
};

// Flat bits, largest first, that reach this depth: the largest one that clears most of the floor, and, where it leaves
// corners, the largest one that reaches nearly all that the smallest bit would. Empty when no bit fits.
std::vector<ProposedBit> propose_clearing(const Region& floor, double depth, const Rack& rack,
                                          const std::string& wood_class, const Cancel& cancel = {});

}  // namespace doyen
