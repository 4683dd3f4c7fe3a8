// A piece of artwork: a lettering, an imported or traced drawing, a plain shape, or something derived from other
// pieces.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "artwork/drawing/trace.hpp"
#include "artwork/lettering/faces.hpp"
#include "geometry/path.hpp"
#include "geometry/polyline.hpp"
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
  friend bool operator==(const Lettering&, const Lettering&) = default;
};

struct PlainShape {
  // Bow: part of a disc, cut off straight along the front. Arc: a line along the round of such a bow.
  enum class Kind { Rectangle, Ellipse, ArchTop, Polygon, Star, Ribbon, Line, Shield, Heart, Bow, Arc };
  enum class CornerForm { Round, Scooped, Clipped, Arched };
  Kind kind = Kind::Rectangle;
  double width = 100, height = 60;  // mm, outside; a line's width is its length
  double corner_radius = 0;         // mm, rectangles only
  double band = 0;  // mm: 0 fills the shape, else a frame of this width inside the outline; a line's or arc's width
  CornerForm corner_form = CornerForm::Round;
  int points = 6;      // of polygons and stars
  double inner = 0.5;  // of stars: the inner points' distance as a share of the outer ones'
  double rise = 20;    // mm, how high the arch of an arch top rises
  // When set, every length above and the piece's place are shares of that other piece's height, the place counted from
  // its left front corner: a layout stated in proportions follows its one dimension.
  std::string shares_of{};
  // mm: it goes round the board so far inside its edge, and follows it (follow_board() in job/layout.hpp).
  std::optional<double> from_edge{};
  friend bool operator==(const PlainShape&, const PlainShape&) = default;
};

// The picture that a drawing was traced from, and how, so that it can be traced again.
struct TracedFrom {
  Shared<std::string> png;  // base64
  TraceSettings settings;
  friend bool operator==(const TracedFrom&, const TracedFrom&) = default;
};

struct Drawing {
  struct Part {
    std::string id;     // the file's own
    std::string group;  // the file's group or layer
    std::string data;   // SVG path data in mm on the drawing's page, y down
    bool even_odd = false;
    bool line = false;  // a stroke line, not a filled outline
    double stroke = 0;  // mm on the page, lines only: how wide the file paints it; 0 where it does not say
    StrokeEnd end = StrokeEnd::Flat;
    StrokeJoint joint = StrokeJoint::Pointed;
    bool left_out = false;  // the user does not want it
    friend bool operator==(const Part&, const Part&) = default;
  };
  std::string name;                        // the file it came from
  double page_width = 0, page_height = 0;  // mm
  Shared<std::vector<Part>> parts;
  double scale = 1;
  bool mirrored = false;
  // What stroke lines are: carved as wide as they are painted, followed by the bit, or outlines of what they enclose:
  // closed ones then, every second inwards the hole of the one around it; open ones enclose nothing and are not cut.
  enum class Lines { Wide, Followed, Enclose };
  Lines lines = Lines::Wide;
  double hairline = 0.5;  // mm on the board: the width carved for lines that state none
  double thicken = 0;     // mm on the board, added on every side of filled parts
  std::optional<TracedFrom> traced;
  Shared<std::vector<Part>> original;  // the parts as they came, once mending or point editing changed them; else empty
  friend bool operator==(const Drawing&, const Drawing&) = default;
};

// Made from other pieces and following them. Its place is a shift from where its sources put it, its turn is about the
// middle of the result.
struct Derived {
  enum class How { Grow, Join, TakeAway, Overlap, Split, Mirror, Grid, Round, Along, Link };
  How how = How::Grow;
  std::vector<std::string>
      from;             // ids; TakeAway keeps the first less the others; Along repeats the first on the second
  double distance = 3;  // mm: grow by, negative shrinks; spacing of Along when count is 0
  Corner corner = Corner::Round;    // of Grow
  int steps = 1;                    // of Grow: so many outlines, each `distance` farther
  double band = 0;                  // mm, of Grow: 0 fills; else frames of this width
  int columns = 2, rows = 1;        // of Grid
  double step_x = 50, step_y = 50;  // mm, of Grid: from one to the next
  int count = 6;                    // of Round and Along
  double radius = 50;               // mm, of Round: from its centre to each copy's middle
  bool turned = true;               // copies of Round and Along turn with the way
  double angle = 90;                // degrees: the line of Mirror and Split, through the middle
  double share = 0.5;               // of Split: where the line crosses the width of what is split
  bool first_side = true;           // of Split: the part on the line's left
  double bridge = 4;                // mm, of Link: how wide the bridges are
  // Of Link: bridges set by hand, mm from the middle of the source's box. Where they leave it in several parts, Doyen
  // adds the shortest that are missing.
  struct Bridge {
    Point from, to;
    friend bool operator==(const Bridge&, const Bridge&) = default;
  };
  std::vector<Bridge> bridges{};
  friend bool operator==(const Derived&, const Derived&) = default;
};

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
