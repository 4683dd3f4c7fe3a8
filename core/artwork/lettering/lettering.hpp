// Lettering: words in a face.
#pragma once

#include <map>
#include <string>

#include "artwork/lettering/faces.hpp"
#include "plates/plate_list.hpp"
#include "shared.hpp"

namespace doyen {

enum class Align { Left, Centre, Right };

struct Lettering {
  std::string words;
  FaceName face;
  double cap_height = 50;  // mm; what capitals measure
  bool fit_width = false;  // when true, `width` rules and the cap height follows
  double width = 300;      // mm, of the longest line's ink
  Align align = Align::Centre;
  double letter_spacing = 0;            // per cent of the cap height added between letters
  double line_spacing = 100;            // per cent of the face's own pitch
  std::map<std::string, double> pairs;  // per cent of the cap height added between these two letters, such as "AV"
  // Set along a circle: letters stand outside its upper half, or inside its lower half when `below`. The middle of the
  // words lies on the circle's top (or bottom), which is the piece's origin.
  double arc_radius = 0;  // mm of the first line's baseline; 0 sets straight lines
  bool arc_below = false;
  std::string along;       // id of a piece whose outline or line the words follow; empty for none
  double along_start = 0;  // share of that outline at which the words' middle lies
  // Fitted inside another piece's outline: as large as leaves this margin, in the middle.
  std::string inside;                // id; empty for none
  double inside_margin = 5;          // mm, or per cent of the height that the words come to
  bool inside_margin_share = false;  // the margin is per cent
  double stroke = 0;                 // mm, faces of single lines: the width to carve; 0 lets the bit follow the line
  double thicken = 0;                // mm added on every side of every stroke, so that a bit reaches thin ones
  // What the words last looked like, so that a face missing on another machine changes nothing until they are edited.
  struct Kept {
    std::string key;           // lettering_key() of the words these outlines belong to
    Shared<std::string> data;  // SVG path data, mm about the piece's own origin, y up
    friend bool operator==(const Kept&, const Kept&) = default;
  } kept;
  FromList list{};            // the words come from the job's list; what `words` says is an example
  double letter_width = 100;  // per cent of the face's own: narrower or wider letters of the same height
  friend bool operator==(const Lettering&, const Lettering&) = default;
};

}  // namespace doyen
