// What a piece shall look like, and the choices that go with it. Each look keeps its own in a folder of its own; what
// was chosen for another look stays, so that going back to it loses nothing.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cutting/moves.hpp"
#include "measure/id.hpp"
#include "treatments/bevel/bevel.hpp"
#include "treatments/drill/drill.hpp"
#include "treatments/hanger_slot/hanger_slot.hpp"
#include "treatments/incise/incise.hpp"
#include "treatments/inlay/inlay.hpp"
#include "treatments/line/line.hpp"
#include "treatments/pierce/pierce.hpp"
#include "treatments/raise/raise.hpp"
#include "treatments/recess/insert.hpp"
#include "treatments/through/through.hpp"

namespace doyen {

struct Treatment {
  // Each is listed with what it knows of itself in treatments/all.hpp; Plug stays the last.
  enum class Kind { None, Incise, CutOut, Line, Raise, Recess, Pierce, Bevel, Drill, Plane, HangerSlot, Inlay, Plug };
  Kind kind = Kind::None;
  // What several looks share:
  BitId bit;         // the V of a groove, flank or bevel, the flat bit of a cut or hole; empty: none yet
  double depth = 1;  // mm below its ground, of everything that is asked a depth
  std::vector<BitId>
      clearing;  // bits for floors (treatments/suits.hpp), in any order; larger ones first; none: proposed
  std::optional<double> ground;  // mm below the face, overruling the ground that Doyen finds it to lie on
  double margin = 10;            // mm, of a sunk ground that no piece bounds
  bool resin = false;            // filled level with the face with resin
  bool back = false;             // cut from the back, with the board turned over
  bool left_uncut = false;       // not cut, on purpose: nobody asks any more how it should look
  Moves moves;

  InciseChoices incise{};
  LineChoices line{};
  RaiseChoices raise{};
  Insert insert{};           // of Recess
  ThroughChoices through{};  // of Pierce and CutOut
  PierceChoices pierce{};
  BevelChoices bevel{};
  DrillChoices drill{};
  SlotChoices slot{};    // of HangerSlot
  doyen::Inlay inlay{};  // of Inlay, and of Plug, which is its other half on its own board
  friend bool operator==(const Treatment&, const Treatment&) = default;
};

const char* to_word(Treatment::Kind kind);  // none, incise, cutout, …, hangerSlot

bool goes_through(Treatment::Kind kind);
// It leaves a floor that other things can be cut into.
bool makes_ground(Treatment::Kind kind);

// What the treatment's own bit must be; None where it has no bit but those that clear.
enum class WantedBit { None, V, Flat, Any, Keyhole };
WantedBit wanted_bit(const Treatment& cut);
// Whether flat bits clear a floor for it.
bool clears_floor(const Treatment& cut);
// Whether flat bits make an upright wall for it: sloped flanks are made by the V, which cleans them itself.
bool upright_walls(const Treatment& cut);
// How deep its floor lies below its ground, mm; an insert's thickness and cover make it up when there is one.
double floor_depth(const Treatment& cut);

}  // namespace doyen
