// Tabs: what holds a part that is cut out until it is taken off the bed.
#pragma once

#include <string>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

// Where a tab stands: on which island's outer ring, and how far along it as a share from 0 to 1.
struct TabPlace {
  int island = 0;
  double along = 0;
  friend bool operator==(const TabPlace&, const TabPlace&) = default;
};

struct Tabs {
  bool wanted = true;
  int count = 4;
  double length = 6.35;          // mm of wood along the outline
  double height = 3.175;         // mm above the underside
  std::vector<TabPlace> placed;  // by hand; empty lets Doyen place them
  friend bool operator==(const Tabs&, const Tabs&) = default;
};

// What a tab leaves standing, from the underside up.
struct TabShape {
  double length = 0;  // mm along the outline at the underside, as asked
  double ramp = 0;    // mm of that at either end, over which it rises to its height
  double height = 0;  // mm above the underside
};
TabShape tab_shape(const Tabs& tabs, double thickness);

// Tabs on straight, reachable stretches of every island's outer ring: never on a corner nor where the outline curves
// with a radius under 2 D, nor where another stretch of the slit would cut them; spread evenly, at least two with one
// on each side of the middle (geometry.md, tabs). The slit of a bit `diameter` mm wide runs outside of the region, or
// inside.
std::vector<TabPlace> place_tabs(const Region& region, const Tabs& tabs, double diameter, bool inside);

// Why a tab must not stand here; empty when it may.
std::string tab_objection(const Region& region, const TabPlace& place, double length, double diameter, bool inside);

}  // namespace doyen
