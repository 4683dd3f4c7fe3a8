// Resin instead of a plug: how much a carved shape holds.
#pragma once

#include <string>

#include "cancel.hpp"
#include "planning/plan.hpp"

namespace doyen {

struct ResinFill {
  double volume = 0;  // mm³ under the surface that the shape is cut into, as its moves carve it
  double insert = 0;  // mm³ of it that an insert under the resin takes
  Point centre{};     // mm on the board, of that volume
  [[nodiscard]] double resin() const { return volume > insert ? volume - insert : 0; }
};
inline constexpr double kResinWaste = 0.1;  // share that stays in cup and brush (common practice, no source)

// Of one piece, from its own moves alone; zero when it is not cut.
ResinFill fill_of(const Plan& plan, const std::string& piece, const Cancel& cancel = {});

}  // namespace doyen
