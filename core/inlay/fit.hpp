// The proof that an inlay closes: both halves as their written files leave them, mated in the computer.
#pragma once

#include <string>
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
  double tilt = 0;                        // degrees that the spindle leans to the right
  friend bool operator==(const WhatIf&, const WhatIf&) = default;
};

// What the bits do to both boards before the glue, from where it was taken, and how the halves are meant to lie.
struct Halves {
  struct Stay {
    Bit bit;
    std::vector<Pass> passes;  // in the board's own coordinates
  };
  std::vector<Stay> pocket, plug;
  PlugPlace place;
  Region art;         // on the carrying board
  double ground = 0;  // mm below the carrying board's face that the inlay lies on
  double depth = 0;
  Inlay inlay;
};
enum class MovesFrom { Files, Plan };
// From the G-code that the plans write, read again by the independent reader, or from the plans' own moves. Only what
// is cut before gluing counts. Throws Problem{BadInput} when the piece is no inlay, either half has no moves, or the
// two halves' flanks are cut by bits of different angles, which cannot close.
Halves halves_of(const Plan& pocket, const Plan& plug, const PlugPlace& place, MovesFrom from = MovesFrom::Files,
                 const Cancel& cancel = {});

// A place that is worth looking at, and by how much: mm of wood in the way, or of open line.
struct FitPlace {
  Point at;
  double mm = 0;
};

// The mated halves, seen from above the carrying board. Heights: 0 is the surface that the inlay lies on, the carrying
// board's face or a floor in it; up positive, mm.
struct Fit {
  HeightField pocket;   // the carrying board's surface
  HeightField plug;     // the plug's, turned over, where it is meant to lie: its outline at the carrying board's face
  double rides_up = 0;  // mm that the plug stays above that place when pressed home; negative: it goes deeper
  Point binds_at;       // where it touches first
  double overlap = 0;   // mm² in which wood would have to give way by more than 0.02 mm to bring it to its place
  double glue_gap = 0;  // mm over flat floors where it is meant to lie, the middle value; 0 without flat floors
  double saw_gap = 0;   // mm between the face and the plug's background, likewise
  // mm, as it comes to lie; `raised` more while the halves are still apart.
  [[nodiscard]] double gap(std::size_t column, std::size_t row, double raised = 0) const {
    return plug.at(column, row) + rides_up + raised - pocket.at(column, row);
  }
  // mm of wood in the way where the plug is meant to lie; 0 where there is none.
  [[nodiscard]] double in_the_way(std::size_t column, std::size_t row) const {
    const double gap = plug.at(column, row) - pocket.at(column, row);
    return gap < 0 ? -gap : 0;
  }
};

// The radius that both halves' corners must be eased by so that a tip flat does not bind in them, mm: the pocket's
// corners are round by half the flat at every depth, the plug's flanks draw in by tan(α/2) a millimetre, so the art's
// corner must still be as round at the depth of contact. Without it a right-angled corner rides up by t/2·(√2 − 1) /
// (√2·tan(α/2)).
double ease_that_seats(const Inlay& inlay, const Bit& v);

// `cell` in mm. Only the art and what lies within 3 mm of it is looked at; plugs are sawn apart outside that.
Fit mate(const Halves& halves, double cell, const WhatIf& what_if = {}, const Cancel& cancel = {});
// The same from plans, by their files. Throws as halves_of().
Fit fit_of(const Plan& pocket, const Plan& plug, const PlugPlace& place, double cell, const WhatIf& what_if = {},
           const Cancel& cancel = {});
double fit_cell(const Region& art);  // mm: fine enough for the art, and at most some million cells

// The worst places where wood is in the way, gravest first, at least 4 mm apart.
std::vector<FitPlace> binding_places(const Fit& fit, std::size_t most = 5);

// What stands at each cell of the face, row by row, after levelling and sanding `sanded` mm below the board's face.
enum class FaceWood : unsigned char { Board, Plug, Gap };
struct Face {
  std::vector<FaceWood> cells;
  double widest_gap = 0;  // mm, across the line
  Point at;
  std::vector<FitPlace> open;  // the widest open lines, widest first, at least 4 mm apart, at most five
};
Face face_after(const Fit& fit, double sanded);

// What one fault does to the joint.
struct Forgiven {
  WhatIf fault;
  double rides_up = 0;   // mm, against the joint without it
  double open_line = 0;  // mm, the widest at the levelled face
  double glue_gap = 0;   // mm under the plug as it then lies
};
std::string fault_in_words(const WhatIf& fault, const LengthStyle& lengths);  // “pocket 0.1 mm too shallow”
// The usual faults of a shop, one by one: 0.1 mm (0.004 in) of zero on either board either way, a bit 1° blunter or
// sharper, a flat of 0.2 mm (0.008 in) at its tip, a spindle that leans by 0.5°.
std::vector<Forgiven> what_it_forgives(const Halves& halves, double cell, Unit unit = Unit::Millimetre,
                                       const Cancel& cancel = {});

}  // namespace doyen
