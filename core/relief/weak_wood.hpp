// Where carved wood is weak, found in the wood that stays and nothing else: thin skins over what was cut from the other
// side, necks and points that the grain does not hold, walls that stand higher than they are wide.
#pragma once

#include <vector>

#include "cancel.hpp"
#include "geometry/region.hpp"
#include "relief/height_field.hpp"

namespace doyen {

// The carved board as seen from the front, cell by cell.
struct CarvedWood {
  HeightField front;                // mm, 0 at the face, down negative
  std::vector<float> under;         // mm that are cut away from beneath, upwards; empty for none
  std::vector<unsigned char> kept;  // 1 where wood counts: the board, or what is cut out of it
  double thickness = 0;             // mm
  std::vector<double> stands{};     // mm: the heights at which walls may stand, such as a sunk ground's depth
};

struct WeakLimits {
  double along = 0, across = 0;  // mm: how wide a neck must be, fibres along and across it
  double skin = 0;               // mm: what must be left over a cut from the other side
  double wall = 1;               // a wall's width over its height
  bool grain = true;             // false: sheets, plastics
  bool grain_up = false;         // from the front to the far edge, not from left to right
};

struct WeakPlace {
  enum class Kind { Neck, Point, Wall, Skin };  // Point: it hangs on one end only, and is thin
  Kind kind = Kind::Neck;
  bool breaks = false;  // less than half of what would hold
  bool across = false;  // its fibres run across it
  double width = 0;     // mm, at its narrowest; of a skin: what is left; to about a cell
  double holds = 0;     // mm that would hold
  double tall = 0;      // mm that a wall stands
  Point at;             // within it
  double mm2 = 0;       // as seen from the front
};

struct WeakMap {
  double cell = 0;                // mm
  std::vector<WeakPlace> places;  // the weakest first: those that break, then by width over what would hold
  struct Run {                    // a row of cells, for drawing
    double x0, x1, y;
    std::size_t place;
  };
  std::vector<Run> runs;
};

WeakMap weak_wood(const CarvedWood& wood, const WeakLimits& limits, const Cancel& cancel = {});

}  // namespace doyen
