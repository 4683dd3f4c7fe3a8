// The proof that an inlay closes: both halves as their files leave them, mated in the computer.
#pragma once

#include <vector>

#include "inlay/plugs.hpp"
#include "planning/plan.hpp"
#include "relief/height_field.hpp"

namespace doyen {

// What the halves may be like when they are really cut; nothing is perfect.
struct WhatIf {
  double pocket_zero = 0, plug_zero = 0;  // mm that each board's zero was set too high (cut too shallow)
  double angle = 0;                       // degrees that the bit is blunter than its measured angle
  double tip = -1;                        // mm, another tip flat than the bit's; negative: its own
};

// The mated halves, seen from above the carrying board. Heights: 0 is the carrying board's face, up positive, mm.
struct Fit {
  HeightField pocket;   // the carrying board's surface
  HeightField plug;     // the plug's, turned over, where it is meant to lie: its outline at the carrying board's face
  double rides_up = 0;  // mm that the plug stays above that place when pressed home; negative: it goes deeper
  Point binds_at;       // where it touches first
  double overlap = 0;   // mm² in which wood would have to give way by more than 0.02 mm to bring it to its place
  double glue_gap = 0;  // mm over flat floors where it is meant to lie, the middle value; 0 without flat floors
  double saw_gap = 0;   // mm between the face and the plug's background, likewise
  [[nodiscard]] double gap(std::size_t column, std::size_t row) const {  // mm, as it comes to lie
    return plug.at(column, row) + rides_up - pocket.at(column, row);
  }
};

// The radius that both halves' corners must be eased by so that a tip flat does not bind in them, mm: the pocket's
// corners are round by half the flat at every depth, the plug's flanks draw in by tan(α/2) a millimetre, so the art's
// corner must still be as round at the depth of contact. Without it a right-angled corner rides up by t/2·(√2 − 1) /
// (√2·tan(α/2)).
double ease_that_seats(const Inlay& inlay, const Bit& v);

// `cell` in mm. Only the art and what lies within 3 mm of it is looked at; plugs are sawn apart outside that.
// Throws Problem{BadInput} when the piece is no inlay or either half has no moves.
Fit fit_of(const Plan& pocket, const Plan& plug, const PlugPlace& place, double cell, const WhatIf& what_if = {},
           const Cancel& cancel = {});

// What stands at each cell of the face, row by row, after levelling and sanding `sanded` mm below the board's face.
enum class FaceWood : unsigned char { Board, Plug, Gap };
struct Face {
  std::vector<FaceWood> cells;
  double widest_gap = 0;  // mm, across the line
  Point at;
};
Face face_after(const Fit& fit, double sanded);

}  // namespace doyen
