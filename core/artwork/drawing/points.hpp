// The points of a drawing's outlines, edited where needed: moved, added, removed, made smooth or a corner.
#pragma once

#include <optional>

#include "artwork/piece.hpp"

namespace doyen {

// A point of an outline with the control points of the curves that meet there; without one the side is straight.
struct OutlinePoint {
  Point at;
  std::optional<Point> in, out;
  // The outline runs on through it without a corner (within 2°).
  [[nodiscard]] bool smooth() const;
};
struct Contour {
  bool closed = false;
  std::vector<OutlinePoint> points;
};
std::vector<Contour> contours_of(const Path& path);
Path path_of(const std::vector<Contour>& contours);

// From the board to the page of the piece's drawing: what drawing_place() does, undone.
Transform to_page(const Piece& piece);

struct PointPlace {
  std::size_t part = 0, contour = 0, point = 0;
  friend bool operator==(const PointPlace&, const PointPlace&) = default;
};
enum class PointPart { Itself, In, Out };  // the point, or the control point before or after it

struct BoardPoint {
  PointPlace place;
  OutlinePoint point;  // on the board
};
// Every point of the wanted parts, on the board. The piece must hold a drawing.
std::vector<BoardPoint> points_on_board(const Piece& piece);

// Each returns false and changes nothing when there is no such point. Points left alone keep their place on the board,
// and the drawing keeps its original parts.
bool move_point(Piece& piece, PointPlace place, PointPart which, Point to);
bool remove_point(Piece& piece, PointPlace place);  // an outline of three points, or a line of two, goes whole
bool smooth_point(Piece& piece, PointPlace place);
bool corner_point(Piece& piece, PointPlace place);
// On the outline where it comes nearest to a place on the board, within `reach` mm; the outline keeps its shape.
std::optional<PointPlace> add_point(Piece& piece, Point near, double reach);

}  // namespace doyen
