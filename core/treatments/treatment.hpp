// What a piece shall look like, and the choices that go with it.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace doyen {

// Where a tab stands: on which island's outer ring, and how far along it as a share from 0 to 1.
struct TabPlace {
  int island = 0;
  double along = 0;
  friend bool operator==(const TabPlace&, const TabPlace&) = default;
};

struct Tabs {
  bool wanted = true;
  int count = 4;
  double length = 6.35;          // mm of wood along the outline
  double height = 3.175;         // mm above the underside
  std::vector<TabPlace> placed;  // by hand; empty lets Doyen place them
  friend bool operator==(const Tabs&, const Tabs&) = default;
};

// What a recess is made for, such as a coin or a sheet of acrylic.
struct Insert {
  enum class Corners { Plain, Round, Slot };  // as the bit leaves them; a round hole or a slot for a square insert's
  double thickness = 0;                       // mm; 0: the recess has no insert and its depth is asked for
  double clearance = 0.15;                    // mm all round
  double cover = 0;                           // mm left above it, for resin
  double notch = 0;                           // mm, the diameter of a finger notch at its edge; 0 for none
  Corners corners = Corners::Plain;
  bool cut = false;                  // the insert itself is cut, too, from a sheet of `material` and `thickness`
  std::string material = "acrylic";  // id in the table of woods and sheets
  friend bool operator==(const Insert&, const Insert&) = default;
};

// How flat bits go over a floor, and how an upright wall or a through cut is finished.
struct Moves {
  enum class Way { Rings, AlongGrain, AcrossGrain };  // rings from the inside out, or rows with a last ring round them
  enum class Entry { Ramp, Helix };
  Way way = Way::Rings;
  Entry entry = Entry::Ramp;
  bool climb = true;      // the kept wood on the bit's right, the chip thick first; else conventional
  double stepover = 0.4;  // share of the bit's diameter
  double leave_on = 0;    // mm left on upright walls until a last clean pass at full depth; 0 for none
  friend bool operator==(const Moves&, const Moves&) = default;
};

// Both halves of an inlay: the pocket in this board, and the plug that is cut from another wood (geometry.md, Inlay).
// The pocket's depth is the treatment's own.
struct Inlay {
  bool sloped = true;                // V flanks by one V bit for both halves; else upright ones by flat bits
  double contact = 3.8;              // mm below the carrying board's face that the plug's outline comes to lie
  double saw_gap = 1.2;              // mm between that face and the plug's background
  double allowance = 0.08;           // mm a side that an upright plug is smaller
  double ease = 0;                   // mm, radius that both halves' corners are rounded by
  std::string wood = "sugar-maple";  // the plug's species
  double thickness = 12;             // mm of the plug's blank
  bool crossed = false;              // the plug's grain runs across the carrying board's, not along it
  double moisture = 4;               // per cent of moisture content that the sign will see, for the woods' movement
  std::optional<double> rung{};      // of a test ladder's pairs: mm more contact (upright: allowance) than asked
  friend bool operator==(const Inlay&, const Inlay&) = default;
};

struct Treatment {
  enum class Kind { None, Incise, CutOut, Line, Raise, Recess, Pierce, Bevel, Drill, Plane, HangerSlot, Inlay, Plug };
  Kind kind = Kind::None;
  std::string bit = "v60";            // the V of a groove, flank or bevel, the flat bit of a through cut or hole
  double depth = 1;                   // mm below its ground, of everything that is asked a depth
  std::optional<double> floor_limit;  // mm; none lets the groove go as deep as the stroke asks
  std::vector<std::string> clearing;  // flat bits for floors, in any order; larger ones go first; none: Doyen proposes
  bool v_alone = false;               // of sloped inlays: no flat bit, the V's tip goes over the floors, too
  std::optional<double> over_cut;     // mm past the underside; none lets Doyen choose
  Tabs tabs;
  std::optional<double> ground;  // mm below the face, overruling the ground that Doyen finds it to lie on
  std::string panel;             // of Raise: id of the piece that bounds the sunk ground; empty: a margin round it
  double margin = 10;            // mm, that margin
  bool sloped = true;            // of Raise: V flanks; else upright ones
  bool slug = false;             // of Pierce: only cut round, the waste falls out whole; else it is cleared
  bool inside = false;           // of Bevel: it falls inwards from the outline (a floor's rim); else outwards
  double peck = 0;               // mm, of Drill: how far at a time; 0 takes the bit's own depth a pass
  double spacing = 0;            // mm, of Drill: holes along lines, so far apart; 0 drills the islands' middles only
  Insert insert;                 // of Recess
  int steps = 1;                 // of Raise: how many even steps lead down to the ground
  double terrace = 4;            // mm, of Raise with several steps: how wide each step's flat is
  double hatch = 0;              // mm between lines that fill the inside, of Line; 0: only the outline is followed
  double hatch_angle = 45;       // degrees from the board's width
  double slot_length = 16;       // mm, of HangerSlot: how far the head slides
  double skin = 0;               // mm left under a through cut, to be cut by hand; 0: right through
  bool taped = false;            // of Pierce and CutOut: what comes free is taped down before the run
  bool resin = false;            // of Incise, Line and Recess: filled level with the face with resin
  bool back = false;             // cut from the back, with the board turned over
  Moves moves;
  doyen::Inlay inlay{};  // of Inlay, and of Plug, which is its other half on its own board
  friend bool operator==(const Treatment&, const Treatment&) = default;
};

const char* to_word(Treatment::Kind kind);  // none, incise, cutout, …, hangerSlot

inline bool goes_through(Treatment::Kind kind) {
  return kind == Treatment::Kind::CutOut || kind == Treatment::Kind::Pierce;
}
// What the treatment's own bit must be; None where it has no bit but those that clear.
enum class WantedBit { None, V, Flat, Any, Keyhole };
WantedBit wanted_bit(const Treatment& cut);
// Whether flat bits clear a floor for it.
bool clears_floor(const Treatment& cut);

// Whether flat bits make an upright wall for it: sloped flanks are made by the V, which cleans them itself.
bool upright_walls(const Treatment& cut);

// It leaves a floor that other things can be cut into.
inline bool makes_ground(Treatment::Kind kind) {
  return kind == Treatment::Kind::Raise || kind == Treatment::Kind::Recess || kind == Treatment::Kind::Plane;
}

}  // namespace doyen
