// Cut out: right through, outside the line, held by tabs.
#pragma once

#include "cancel.hpp"
#include "cuts/operation.hpp"
#include "cuts/treatment.hpp"

namespace doyen {

// What a tab leaves standing, from the underside up.
struct TabShape {
  double length = 0;  // mm along the outline at the underside, as asked
  double ramp = 0;    // mm of that at either end, over which it rises to its height
  double height = 0;  // mm above the underside
};
TabShape tab_shape(const Tabs& tabs, double thickness);

struct CutOutShape {
  double diameter = 6.35;     // mm, the flat bit's measured one
  double thickness = 19;      // mm, the thickest reading
  double over_cut = 0.25;     // mm past the underside; negative leaves a skin
  double depth_per_pass = 3;  // mm
  double ramp_slope = 0.1;    // mm down a mm along
  Tabs tabs;
  double leave_on = 0;  // mm left along the line until a last clean pass at full depth
  bool climb = true;    // the kept wood on the bit's right
  bool inside = false;  // along the inner side of the line: the waste inside falls out whole
};

// A tab on the board: its middle on the outline, for drawing and dragging.
struct PlacedTab {
  TabPlace place;
  Point at;
  Point along;  // direction of the outline there
};

struct CutOut {
  std::vector<Pass> passes;
  std::vector<PlacedTab> tabs;
  std::vector<int> lost_holes;  // islands with a hole too small for the bit
};

CutOut plan_cut_out(const Region& region, const CutOutShape& shape, const Cancel& cancel = {});

// Tabs on straight, reachable stretches of every island's outer ring: never on a corner nor where the outline curves
// with a radius under 2 D, spread evenly, at least two with one on each side of the middle (geometry.md, tabs).
std::vector<TabPlace> place_tabs(const Region& region, const Tabs& tabs, double diameter);

// Why a tab must not stand here; empty when it may.
std::string tab_objection(const Ring& outer, double along, double length, double diameter);

}  // namespace doyen
