// Clearing a flat floor with a flat bit: rings from the inside out, or rows; ramped or helical entry; nothing outside
// the region.
#pragma once

#include <functional>

#include "cancel.hpp"
#include "cutting/drawn_in.hpp"
#include "cutting/moves.hpp"
#include "cutting/pass.hpp"

namespace doyen {

struct ClearingShape {
  double diameter = 6;        // mm across what it levels: of a cone its flat tip
  double stepover = 0.4;      // share of the diameter
  double ground = 0;          // mm, z where the wood begins
  double floor = -1;          // mm, z of the floor
  double depth_per_pass = 3;  // mm
  double ramp_slope = 0.1;    // mm down a mm along, for entry
  Moves::Way way = Moves::Way::Rings;
  Moves::Entry entry = Moves::Entry::Ramp;
  bool climb = true;
  double row_angle = 0;  // degrees from x, of rows
  double least = 0.01;   // mm²: what is less than this after larger bits is dust
  bool all_gone = true;  // where larger bits have been nothing stands; else wood is left on the walls there
  double lean = 0;       // mm that an engraving cone is wider at the ground than at its tip, on each side
};

// Clears what a disc of this diameter can sweep inside `region`, but only where it helps: `already` is what larger bits
// have cleared (empty: nothing). The swept area is the opening of the region by the disc (geometry.md, clearing).
// `reached`, where wanted, gets that swept area: what the next, smaller bit is told as `already`.
std::vector<Pass> clear_floor(const Region& region, const Region& already, const ClearingShape& shape,
                              const Cancel& cancel = {}, Region* reached = nullptr);

// Work with what the last of several bits can sweep, and `beyond` mm more: done beside theirs, on another processor.
struct WithCleared {
  double beyond = 0;
  std::function<void(Region cleared)> work;
};

// The same by several bits, each where those before it have not been; on all processors. One list of passes for each.
std::vector<std::vector<Pass>> clear_in_turn(const DrawnIn& floor, const std::vector<ClearingShape>& large_first,
                                             const Cancel& cancel = {}, const WithCleared& with_cleared = {});

// A last clean pass takes all of a wall's height at once; thicker shavings than this share of the bit's diameter it
// takes in steps (common practice, no source).
inline constexpr double kCleanShare = 0.15;

// Once round every wall of the floor, entered by a ramp: what takes away the `leave_on` mm of wood left on for it, at
// full depth where that is thin enough.
std::vector<Pass> clean_walls(const Region& region, const ClearingShape& shape, double leave_on);

}  // namespace doyen
