// What a piece would come to if it were cut otherwise: each way is planned for itself, and nothing of the job changes.
#pragma once

#include <functional>
#include <optional>
#include <string>

#include "planning/plan.hpp"

namespace doyen {

struct Trial {
  double seconds = 0;    // at the machine, with its lifts, without travel from other pieces and bit changes
  double unreached = 0;  // mm² that stay, as PieceCuts says it
  double deepest = 0;    // mm
  bool cuts = false;     // anything at all
};

// The piece `id` of the plan's job, cut so. Throws Cancelled.
Trial try_cut(const Plan& plan, const Rack& rack, const std::string& id, const Treatment& cut,
              const Cancel& cancel = {});

// A choice of one bit: which bits there are to choose from, and how one is taken (the empty id: none).
struct BitChoice {
  // `cut`: as it is now, with its own bit, null where the rack has none.
  std::function<bool(const Bit&, double deepest, const Treatment& cut, const Bit* own)> offers;
  std::function<void(Treatment&, const BitId&)> take;
  static BitChoice clearing_alone();                         // the one that alone clears the floors
  static BitChoice its_bit(std::optional<BitKind> of_kind);  // Treatment::bit
};

// What each bit of the rack that is offered and has figures for this wood would do, told bit by bit in the rack's
// order; those that cut nothing here are left out. Throws Cancelled.
void try_bits(const Plan& plan, const Rack& rack, const std::string& id, const BitChoice& choice, const Cancel& cancel,
              const std::function<void(const std::string& bit, const Trial&)>& tell);

}  // namespace doyen
