// The test ladder: small pairs of pocket and plug in off-cuts, each a little tighter than the one before, by which a
// shop finds how its machine and bit really fit.
#pragma once

#include "inlay/plugs.hpp"

namespace doyen {

struct LadderSettings {
  int rungs = 5;
  double step = 0.1;  // mm of contact; upright flanks step their allowance by half of it
};

// A job of its own: the same woods, thicknesses and bits as `like` has for the inlay `cut`; every rung's figure is
// engraved beside its pocket, and by plug_boards() beside its plug. Sloped flanks step the contact about what was
// asked, upright ones the allowance from none upwards.
Job ladder_job(const Job& like, const Treatment& cut, const Rack& rack, const LadderSettings& settings = {});

// Keeps what the best rung says for its bit: later inlays start from it. Returns the bit's name; empty when the
// treatment is no rung of a ladder or its bit is not in the rack.
std::string keep_answer(Rack& rack, const Treatment& rung);

}  // namespace doyen
