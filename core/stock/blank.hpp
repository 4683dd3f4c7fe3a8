// The blank: the piece of wood before cutting. Its face is z = 0; x runs along its width, y away from the user.
#pragma once

#include <string>
#include <vector>

#include "geometry/region.hpp"
#include "measure/id.hpp"

namespace doyen {

enum class Grain { AlongWidth, AlongHeight };

// A place on the blank that cuts stay clear of, or that is at least looked at.
struct KeepOut {
  enum class Kind { Clamp, Screw, Knot, Sapwood, Crack, GlueLine };
  Kind kind = Kind::Clamp;
  double x = 0, y = 0, width = 40, height = 40;  // mm: its middle and its size
  double stands = 0;                             // mm above the face, of metal; 0: as high as is usual
  // Metal stands there while this side lies up; its place is counted on the front either way. Whichever: nobody said,
  // and it may stay at its place on the bed or go along with the wood when the board is turned over.
  enum class Up { Whichever, Front, Back };
  Up up = Up::Whichever;
  [[nodiscard]] bool stands_while(bool back_up) const {
    return up == Up::Whichever || !metal() || (up == Up::Back) == back_up;
  }
  // 30 mm for a clamp, 4 mm for a screw's head (common practice, no source).
  [[nodiscard]] double above_face() const {
    return stands > 0 ? stands : kind == Kind::Clamp ? 30 : kind == Kind::Screw ? 4 : 0;
  }
  [[nodiscard]] Box box() const { return {x - width / 2, y - height / 2, x + width / 2, y + height / 2}; }
  // Round: screws and knots. The others are rectangles.
  [[nodiscard]] bool round() const { return kind == Kind::Screw || kind == Kind::Knot; }
  [[nodiscard]] bool metal() const { return kind == Kind::Clamp || kind == Kind::Screw; }
  friend bool operator==(const KeepOut&, const KeepOut&) = default;
};
// Half of what a router spindle's collet nut is wide, mm (common practice, no source): what is cut nearer to a tall
// clamp brings the nut to it.
inline constexpr double kNutHalf = 17;
const char* to_word(KeepOut::Kind kind);  // clamp, screw, knot, sapwood, crack, glueLine
Region region_of(const KeepOut& place);

enum class BlankForm { Rectangle, Oval, Outline };

// Sides that cuts run off: what is drawn there goes on beyond the board, on its neighbour of a larger sign or into the
// air. A bit goes just past such a side, and no farther.
struct RunsOff {
  bool left = false, right = false, front = false, back = false;
  [[nodiscard]] bool any() const { return left || right || front || back; }
  // The box with these sides `by` mm farther out, and the others `others`.
  [[nodiscard]] Box grown(const Box& box, double by, double others = 0) const {
    return {box.left - (left ? by : others), box.bottom - (front ? by : others), box.right + (right ? by : others),
            box.top + (back ? by : others)};
  }
  friend bool operator==(const RunsOff&, const RunsOff&) = default;
};

struct Blank {
  double width = 600, height = 225;  // mm
  std::vector<double> readings{19};  // mm, thickness as measured in several places; never empty
  WoodId species = "western-red-cedar";
  Grain grain = Grain::AlongWidth;
  double margin = 12;           // mm that artwork keeps from the edges
  double film = 0;              // mm, masking film on the face
  double bed_unevenness = 0.1;  // mm, how uneven the bed and the board's cupping are together

  std::vector<KeepOut> keep_outs{};  // where clamps stand and faults lie
  BlankForm form = BlankForm::Rectangle;
  std::string edge{};  // of Outline: SVG path data, y up, any size: it is stretched over width × height
  RunsOff runs_off{};

  [[nodiscard]] double thickest() const;
  [[nodiscard]] double thinnest() const;
  [[nodiscard]] Box box() const { return {0, 0, width, height}; }
  friend bool operator==(const Blank&, const Blank&) = default;
};

// The board's own outline on the board. Throws Problem{BadInput} when `edge` is no path.
Region region_of(const Blank& blank);

// Where art may lie: on the board, and beyond the sides that cuts run off. Throws as region_of().
Region room_for_art(const Blank& blank);

}  // namespace doyen
