// What a job says of its finish: how it is coated, where it will hang, what it costs by hand.
#pragma once

#include <map>
#include <string>

namespace doyen {

// The order of work that shops hold to (common practice, no source).
enum class FinishSchool {
  None,          // nothing was said yet
  MaskPaint,     // mask, carve, seal, paint, peel
  PaintSand,     // carve, seal, paint, sand the face back
  PaintedBoard,  // paint the board, carve through the paint
  Oil,
  Varnish
};

struct FinishChoices {
  FinishSchool school = FinishSchool::None;
  bool outdoors = true;
  // Colours in words by piece: what is painted otherwise than the rest; and of the rest.
  std::map<std::string, std::string> colours{};
  std::string colour{};        // such as “black”; empty: not said
  double design_minutes = 60;  // spent once, however many are made
  int copies = 1;              // how many are made at that price
  double round_over = 0;       // mm: the radius that the front edges are rounded over by afterwards, by hand; 0: none
  friend bool operator==(const FinishChoices&, const FinishChoices&) = default;
};

}  // namespace doyen
