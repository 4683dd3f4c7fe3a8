// Which bit suits.
#pragma once

#include <functional>

#include "rack/bit.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

// A bit that can make what such a treatment asks of its own bit: the one rule that the verdicts, the figures a look
// begins with and the command line go by.
bool suits(const Bit& bit, WantedBit wanted);

// A bit that can clear floors of this treatment: flat bits; and where its walls slope engraving cones, V bits with a
// flat tip, that are no blunter than `own`, the V that cuts those walls: their flanks stay clear of them. A tip under
// kLeastTip levels too little to go over a floor first.
inline constexpr double kLeastTip = 0.2;  // mm (common practice, no source)
bool clears(const Bit& bit, const Treatment& cut, const Bit* own);

// The one of this kind that is nearest to what is usual: `away` says how far it is; null when the rack has none.
const Bit* nearest_bit(const Rack& rack, BitKind kind, const std::function<double(const Bit&)>& away);
const Bit* usual_v(const Rack& rack);                      // the V nearest to 60 degrees
const Bit* flat_nearest(const Rack& rack, double across);  // the flat bit nearest to so many mm
// As wide as this one and as long, and does not lift the chips; null where the rack has none.
const Bit* pressing_like(const Rack& rack, const Bit& own);
// Of those whose flutes reach so many mm deep; of all, where none's do.
const Bit* flat_nearest_for(const Rack& rack, double across, double deep);
// Its id, for a treatment; empty when there is none, which a verdict then says.
inline BitId id_of(const Bit* bit) { return bit == nullptr ? BitId() : bit->id; }

}  // namespace doyen
