// What everything that goes right through the wood is asked.
#pragma once

#include <optional>

#include "cutting/tabs.hpp"
#include "stock/blank.hpp"

namespace doyen {

struct ThroughChoices {
  std::optional<double> over_cut;  // mm past the underside; none lets Doyen choose
  Tabs tabs;
  double skin = 0;     // mm left under it, to be cut by hand; 0: right through
  bool taped = false;  // what comes free is taped down before the run
  friend bool operator==(const ThroughChoices&, const ThroughChoices&) = default;
};

// Tabs that hold and can still be pared off: about a fifth of the board high and twice as long, more of both in soft
// wood (common practice, no source).
Tabs usual_tabs(const Blank& blank);

// How far past the underside a cut-out goes: the bed's unevenness, at least 0.1 mm and 0.25 mm to be sure
// (geometry.md).
double default_over_cut(const Blank& blank);

// How deep a through cut goes below the face, mm: the thickest reading and its over-cut; or the thinnest less the skin
// that stays.
double through_depth(const ThroughChoices& through, const Blank& blank);

}  // namespace doyen
