// How each kind of piece becomes outlines: one file a kind; piece.cpp puts them together. Not for use outside artwork/.
#pragma once

#include "artwork/piece.hpp"

namespace doyen::making {

// Throws Problem{BadInput} for a size under 0.1 mm or over 20 m.
void check_size(double mm, const std::string& what);

// Gives another piece's outlines; throws Problem{BadInput} when there is none of that id or pieces make each other.
using Ask = std::function<Outlines(const std::string& id)>;

struct SetGlyph {
  Path path;           // mm about its own origin, unturned
  Point origin;        // mm about the piece's
  double degrees = 0;  // how it is turned about its origin
  std::string text;
};
struct SetWords {
  std::vector<SetGlyph> glyphs;
  std::vector<std::string> missing;
  std::string notice;
  bool lines = false;  // the paths are strokes
};
SetWords set_words(const Lettering& lettering, const Ask& ask);
struct LineMeasure {
  double width = 0;  // of the ink, capitals being 1 high
  std::vector<std::string> missing;
};
std::vector<LineMeasure> measure_lines(const Lettering& lettering);  // set straight
Outlines lettering_outlines(const Lettering& lettering, const Transform& turn, Point at, const Ask& ask);

// The shape with its shares multiplied by this length.
PlainShape of_share(PlainShape shape, double mm);

Outlines shape_outlines(const PlainShape& shape, const Transform& place);
// Its outlines as paths about its own middle: the outer one, and that of the opening of a frame whose inside has a form
// of its own; a frame of another form is drawn from `shape_outlines`. Lines are open.
std::vector<Path> shape_paths(const PlainShape& shape);

// Bridges until all of it is one connected part (linking.cpp).
Outlines linked(const Outlines& source, const Derived& derived);

Outlines derived_outlines(const Derived& derived, const Piece& piece, const Ask& ask);

}  // namespace doyen::making
