// What if the board were thicker, the art larger, the bit another: the whole job planned so, nothing of it changed.
#pragma once

#include "planning/plan.hpp"

namespace doyen {

struct Supposed {
  std::optional<double> thickness;    // mm, of the board: every reading by as much more or less
  double size = 1;                    // of the pieces, about the middle of what they cover together
  double feed = 1;                    // of the feed and plunge of the bits that cut those pieces, wherever they cut
  std::optional<double> floor_limit;  // mm, of what is incised of the pieces; infinite: full depth
  BitId v;                            // cuts those of the pieces that are cut by a V; empty: as it is
  friend bool operator==(const Supposed&, const Supposed&) = default;
};

// The plan's job so; it is about the piece of this id, or all of them. Throws Problem where a piece cannot be sized.
Job what_if(const Plan& plan, const std::string& piece, const Supposed& asked);

// About how long the machine would take, at once, while that is planned for real: today's moves stretched, sunk and fed
// as asked; floors by their area, levels by their count. Feeds come out exactly, the others to about three tenths. s
double about_seconds(const Plan& plan, const std::string& piece, const Supposed& asked);

// How deep the widest incised stroke of those pieces goes where nothing limits it, mm: a floor limit deeper than that
// changes nothing. 0 when none is incised.
double closing_depth(const Plan& plan, const std::string& piece);

// What changes for the job, before and then.
struct WhatChanges {
  double seconds = 0, deepest = 0;  // mm
  int stops = 0, minds = 0, bit_changes = 0;
  double unreached = 0;             // mm²
  std::vector<Verdict> verdicts{};  // stops and warnings that were not there before; of `before` all
};
WhatChanges what_changes(const Plan& then, const Plan* before);

}  // namespace doyen
