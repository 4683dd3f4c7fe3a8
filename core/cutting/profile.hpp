// Cut out: right through, outside the line, held by tabs.
#pragma once

#include "cancel.hpp"
#include "cutting/operation.hpp"
#include "cutting/tabs.hpp"

namespace doyen {

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

}  // namespace doyen
