// A piece of artwork: a lettering, an imported or traced drawing, a plain shape, or something derived from other
// pieces.
#pragma once

#include <functional>
#include <string>
#include <variant>
#include <vector>

#include "artwork/drawing/drawing.hpp"
#include "artwork/lettering/lettering.hpp"
#include "artwork/made/derived.hpp"
#include "artwork/shape/plain_shape.hpp"
#include "geometry/path.hpp"
#include "geometry/polyline.hpp"
#include "shared.hpp"

namespace doyen {

struct Piece {
  std::string id;    // unique within the job
  std::string name;  // as the user reads it
  std::variant<Lettering, PlainShape, Drawing, Derived> what;
  Point at;         // mm on the board: where the piece's own origin lies
  double turn = 0;  // degrees, counter-clockwise
  friend bool operator==(const Piece&, const Piece&) = default;
};

// Finds a piece by its id; null when there is none. Derived pieces and words set along others ask it.
using PieceSource = std::function<const Piece*(const std::string&)>;

// A letter's place, for sentences such as “at the stem of b”.
struct LetterMark {
  std::string text;
  Box box;
};

struct Outlines {
  Region region;             // on the board
  std::vector<Line2> lines;  // stroke lines to be followed, on the board; closed ones end where they begin
  std::vector<LetterMark> letters;
  std::vector<std::string> missing;      // characters the face lacks
  std::string notice;                    // why kept outlines were used; empty when all is well
  std::vector<Derived::Bridge> bridges;  // of linked pieces, on the board
  std::vector<Line2> open{};             // lines that should enclose something and do not
};
Box bounds(const Outlines& outlines);  // of region and lines

// Moves all of it by steps of the grid: what lies on the grid stays on it, to the last bit.
void move_on_grid(Outlines& outlines, Point by);

// The piece's outlines on the board, clean, on the grid; repeated letters come out as equal islands.
// Throws Problem{BadInput} when a face is missing and nothing was kept, or a figure cannot be.
Outlines outlines_of(const Piece& piece, const PieceSource& source = {});

// The pieces that this one is directly made from or set along.
std::vector<std::string> sources_of(const Piece& piece);

// Turns a plain shape's lengths and place into shares of another piece's height, or (empty id) back into lengths; it
// stays where and as it is. Throws Problem{BadInput} when that piece is not there or hangs on this one.
void set_shares(Piece& piece, const std::string& of, const PieceSource& source);

// Moves a piece by so much on the board, whatever its place is counted in.
void shift_piece(Piece& piece, Point by, const PieceSource& source);

// Sets a linked piece's bridges by hand, given on the board.
void set_bridges(Piece& piece, const std::vector<Derived::Bridge>& on_board, const PieceSource& source);

// A drawing's parts as one clean region in mm, y up, about the middle of its own box, unscaled.
Region drawing_region(const Drawing& drawing);
// The same on the drawing's page, y down, as in the file.
Region drawing_region_as_drawn(const Drawing& drawing);

// Larger or smaller by these factors about its own origin, as far as its kind can: lettering and drawings keep their
// proportions (the factor across is taken), plain shapes take both, derived pieces follow their sources and stay.
void size_piece(Piece& piece, double across, double along);

// Everything a change of the parts moves stays where it is on the board: a drawing's origin is the middle of its parts.
void edit_parts(Piece& piece, const std::function<void(Drawing&)>& change);

// From a drawing's page to the board, as outlines_of() lays it.
Transform drawing_place(const Piece& piece);

// The outlines as they are now, as a drawing of their own that follows nothing.
Drawing frozen(const Outlines& outlines, const std::string& name);

// A plain shape becomes a drawing with the same outline, curves kept as curves, so that its points can be moved. Throws
// Problem{BadInput} for shapes in shares of another piece. Other pieces stay as they are.
void draw_shape(Piece& piece);

// Fills in Lettering::kept from the outlines as they are now (for saving). Does nothing for other pieces.
void keep_outlines(Piece& piece);

// What a lettering's outlines depend on.
std::string lettering_key(const Lettering& lettering);

// The letter nearest to a place, quoted; empty when the piece has no letters.
std::string letter_at(const Outlines& outlines, Point p);

// What a lettering's piece is called by itself: its words on one line, at most 32 characters.
std::string name_of_words(const std::string& words);
const char* kind_word(const Piece& piece);  // lettering, shape, drawing, traced picture, made from others

}  // namespace doyen
