// An inlay's figures.
#pragma once

#include <optional>
#include <string>

#include "measure/id.hpp"

namespace doyen {

// Both halves of an inlay: the pocket in this board, and the plug that is cut from another wood (geometry.md, Inlay).
// The pocket's depth is the treatment's own.
struct Inlay {
  bool sloped = true;            // V flanks by one V bit for both halves; else upright ones by flat bits
  double contact = 3.8;          // mm below the carrying board's face that the plug's outline comes to lie
  double saw_gap = 1.2;          // mm between that face and the plug's background
  double allowance = 0.08;       // mm a side that an upright plug is smaller
  bool v_alone = false;          // of sloped ones: no flat bit, the V's tip goes over the floors, too
  double ease = 0;               // mm, radius that both halves' corners are rounded by
  WoodId wood = "sugar-maple";   // the plug's species
  double thickness = 12;         // mm of the plug's blank
  bool crossed = false;          // the plug's grain runs across the carrying board's, not along it
  double moisture = 4;           // per cent of moisture content that the sign will see, for the woods' movement
  std::optional<double> rung{};  // of a test ladder's pairs: mm more contact (upright: allowance) than asked
  friend bool operator==(const Inlay&, const Inlay&) = default;
};

}  // namespace doyen
