// What is let into a recess.
#pragma once

#include <string>

#include "measure/id.hpp"

namespace doyen {

// What a recess is made for, such as a coin or a sheet of acrylic.
struct Insert {
  enum class Corners { Plain, Round, Slot };  // as the bit leaves them; a round hole or a slot for a square insert's
  double thickness = 0;                       // mm; 0: the recess has no insert and its depth is asked for
  double clearance = 0.15;                    // mm all round
  double cover = 0;                           // mm left above it, for resin
  double notch = 0;                           // mm, the diameter of a finger notch at its edge; 0 for none
  Corners corners = Corners::Plain;
  bool cut = false;             // the insert itself is cut, too, from a sheet of `material` and `thickness`
  WoodId material = "acrylic";  // id in the table of woods and sheets
  friend bool operator==(const Insert&, const Insert&) = default;
};

}  // namespace doyen
