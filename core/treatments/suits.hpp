// Which bit suits.
#pragma once

#include <functional>

#include "rack/bit.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

// A bit that can make what such a treatment asks of its own bit: the one rule that the verdicts, the figures a look
// begins with and the command line go by.
bool suits(const Bit& bit, WantedBit wanted);

// The one of this kind that is nearest to what is usual: `away` says how far it is; null when the rack has none.
const Bit* nearest_bit(const Rack& rack, BitKind kind, const std::function<double(const Bit&)>& away);

}  // namespace doyen
