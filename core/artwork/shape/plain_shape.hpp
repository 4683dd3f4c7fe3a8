// Plain shapes: plates, borders, lines.
#pragma once

#include <optional>
#include <string>

namespace doyen {

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

}  // namespace doyen
