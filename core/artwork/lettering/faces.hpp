// Installed lettering faces (Fontconfig) and words shaped in them (HarfBuzz, outlines from FreeType).
#pragma once

#include <string>
#include <vector>

#include "geometry/path.hpp"

namespace doyen {

struct FaceName {
  std::string family = "EB Garamond";
  std::string style = "Regular";
  friend bool operator==(const FaceName&, const FaceName&) = default;
};

// "EB Garamond" or "EB Garamond:Bold" to its parts.
FaceName parse_face(const std::string& text);

// Every installed scalable face, by family and style, sorted; `carves_well` marks the ones listed in data/faces.json.
// The single-line faces for engraving are listed apart (artwork/single_line_faces.hpp).
struct InstalledFace {
  FaceName name;
  bool carves_well = false;
  bool letters = true;  // it has letters: without any it is a face of symbols
};
std::vector<InstalledFace> installed_faces();
bool face_installed(const FaceName& face);

// One line of words at one font unit to the em, in the face's own units scaled so that capitals are 1 high.
struct ShapedGlyph {
  Path path;     // about its own origin, capitals 1 high, y up
  Point origin;  // of the glyph on its line
  double advance = 0;
  std::string text;  // the characters it stands for
};
struct ShapedLine {
  std::vector<ShapedGlyph> glyphs;
  double advance = 0;
  std::vector<std::string> missing;  // characters the face lacks
};
// Throws Problem{BadInput} when the face is not installed or its file cannot be read.
ShapedLine shape_line(const FaceName& face, const std::string& words);
double cap_share(const FaceName& face);   // a capital's height as a share of the em
double line_pitch(const FaceName& face);  // baseline to baseline the face asks for, capitals being 1 high

}  // namespace doyen
