// The figures of a sloped inlay: where to start from, and what moves when one of them is changed.
#pragma once

#include <string>
#include <vector>

#include "measure/length.hpp"
#include "rack/bit.hpp"
#include "stock/blank.hpp"
#include "treatments/treatment.hpp"

namespace doyen {

struct InlayStart {
  double depth = 5, contact = 3.8, saw_gap = 1.2;  // mm
  double allowance = 0.08;                         // mm a side, of upright flanks
  std::vector<std::string> why;                    // one step a line, figures in
};

// From the art's widest stroke (mm), the V that cuts both halves and the board: 5.0, 3.8 and 1.2 mm (0.200, 0.150 and
// 0.050 in) where the wood and the strokes allow it, since a pocket deeper than its widest stroke closes is the same
// pocket, and half the board at most. What a test ladder showed of the bit is added to the contact. Shares and sizes:
// common practice, no source.
InlayStart inlay_start(double widest_stroke, const Bit& v, const Blank& blank, const LengthStyle& lengths);

// What changing one figure moved, a line each; empty when nothing of the joint did.
std::vector<std::string> what_moved(const Treatment& before, const Treatment& after, const Bit* v,
                                    const LengthStyle& lengths);

}  // namespace doyen
