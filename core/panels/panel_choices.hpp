// A sign larger than the machine or the sheet, made of panels: the board is the whole sign as it hangs, and seams part
// it.
#pragma once

#include <vector>

namespace doyen {

struct PanelChoices {
  // How panels are kept in line with each other.
  enum class Join { Butted, Dowels, Screws };
  std::vector<double> across{};            // mm from the sign's left: the seams from front to back, ascending
  std::vector<double> deep{};              // mm from its front: the seams from left to right, ascending
  double gap = 0;                          // mm between panels on the wall; what is drawn there is not made
  double most_width = 0, most_height = 0;  // mm that a panel may be large; 0: as far as the machine travels
  Join join = Join::Butted;
  double hole = 8;     // mm wide: dowels in the mating edges, or holes for screws through the face
  double apart = 200;  // mm between them, at most
  double inset = 20;   // mm from a panel's edges to the middle of a screw's hole
  [[nodiscard]] bool there() const { return !across.empty() || !deep.empty(); }
  friend bool operator==(const PanelChoices&, const PanelChoices&) = default;
};

}  // namespace doyen
