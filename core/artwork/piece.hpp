// A piece of artwork: a lettering, an imported drawing or a plain shape, with its place on the board.
#pragma once

#include <memory>
#include <string>
#include <variant>
#include <vector>

#include "artwork/faces.hpp"
#include "geometry/path.hpp"

namespace doyen {

enum class Align { Left, Centre, Right };

struct Lettering {
  std::string words;
  FaceName face;
  double cap_height = 50;  // mm; what capitals measure
  bool fit_width = false;  // when true, `width` rules and the cap height follows
  double width = 300;      // mm, of the longest line's ink
  Align align = Align::Centre;
  double letter_spacing = 0;  // per cent of the cap height added between letters
  double line_spacing = 100;  // per cent of the face's own pitch
  // What the words last looked like, so that a face missing on another machine changes nothing until they are edited.
  struct Kept {
    std::string key;   // lettering_key() of the words these outlines belong to
    std::string data;  // SVG path data, mm about the piece's own origin, y up
    friend bool operator==(const Kept&, const Kept&) = default;
  } kept;
  friend bool operator==(const Lettering&, const Lettering&) = default;
};

struct PlainShape {
  enum class Kind { Rectangle, Ellipse };
  Kind kind = Kind::Rectangle;
  double width = 100, height = 60;  // mm, outside
  double corner_radius = 0;         // mm, rectangles only
  double band = 0;                  // mm: 0 fills the shape, else a frame of this width inside the outline
  friend bool operator==(const PlainShape&, const PlainShape&) = default;
};

struct Drawing {
  struct Part {
    std::string id;     // the file's own
    std::string group;  // the file's group or layer
    std::string data;   // SVG path data in mm on the drawing's page, y down
    bool even_odd = false;
    friend bool operator==(const Part&, const Part&) = default;
  };
  std::string name;                        // the file it came from
  double page_width = 0, page_height = 0;  // mm
  std::vector<Part> parts;
  double scale = 1;
  bool mirrored = false;
  friend bool operator==(const Drawing&, const Drawing&) = default;
};

struct Piece {
  std::string id;    // unique within the job
  std::string name;  // as the user reads it
  std::variant<Lettering, PlainShape, Drawing> what;
  Point at;         // mm on the board: where the piece's own origin lies
  double turn = 0;  // degrees, counter-clockwise
  friend bool operator==(const Piece&, const Piece&) = default;
};

// A letter's place, for sentences such as “at the stem of b”.
struct LetterMark {
  std::string text;
  Box box;
};

struct Outlines {
  Region region;  // on the board
  std::vector<LetterMark> letters;
  std::vector<std::string> missing;  // characters the face lacks
  std::string notice;                // why kept outlines were used; empty when all is well
};

// The piece's outlines on the board, clean, on the grid; repeated letters come out as equal islands.
// Throws Problem{BadInput} when a face is missing and nothing was kept, or a figure cannot be.
Outlines outlines_of(const Piece& piece);

// A drawing's parts as one clean region in mm, y up, about the middle of its own box, unscaled.
Region drawing_region(const Drawing& drawing);
// The same on the drawing's page, y down, as in the file.
Region drawing_region_as_drawn(const Drawing& drawing);

// Fills in Lettering::kept from the outlines as they are now (for saving). Does nothing for other pieces.
void keep_outlines(Piece& piece);

// What a lettering's outlines depend on.
std::string lettering_key(const Lettering& lettering);

// The letter nearest to a place, quoted; empty when the piece has no letters.
std::string letter_at(const Outlines& outlines, Point p);

const char* kind_word(const Piece& piece);  // lettering, shape, drawing

}  // namespace doyen
