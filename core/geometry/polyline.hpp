// Open lines cut by regions, and distances along lines.
#pragma once

#include "cancel.hpp"
#include "geometry/region.hpp"

namespace doyen {

using Line2 = std::vector<Point>;

Line2 closed_line(const Ring& ring);  // it ends where it begins
bool is_closed(const Line2& line);

// The parts of the lines that lie inside the region. A closed ring is given with its first point repeated at the end.
std::vector<Line2> clip_lines(const std::vector<Line2>& lines, const Region& region);

enum class StrokeEnd { Flat, Round, Square };
enum class StrokeJoint { Pointed, Round };
// What a stroke of this width covers, open ends and joints as said; closed lines repeat their first point at the end.
// Pointed joints longer than `miter` times half the width are cut square (W3C SVG 1.1, 11.4: stroke-miterlimit 4).
Region stroked(const std::vector<Line2>& lines, double width, StrokeEnd end, StrokeJoint joint, double miter = 4);

// What a disc of this radius sweeps when its centre follows the lines.
Region sweep(const std::vector<Line2>& lines, double radius, double arc_error = 0.002);

// Fewer points: every one that is dropped lies within `tolerance` mm of the line that remains. Ends stay.
Line2 thinned(const Line2& line, double tolerance);
Region thinned(const Region& region, double tolerance);

// Rows across the region, `step` mm apart, left to right, row after row from the front, all turned by `degrees`. Ends
// lie on the outline.
std::vector<Line2> hatch(const Region& region, double step, const Cancel& cancel = {}, double degrees = 0);

double ring_length(const Ring& ring);
// A place along a closed ring, by share 0..1 from its first point, and the direction there (length one).
struct OnRing {
  Point at, along;
};
OnRing on_ring(const Ring& ring, double share);
// The same for one ring that is asked many times; the ring must outlive it.
class RingWalk {
 public:
  explicit RingWalk(const Ring& ring);
  [[nodiscard]] double length() const { return run_.back(); }
  [[nodiscard]] OnRing at(double share) const;

 private:
  const Ring& ring_;
  std::vector<double> run_;  // mm from the first point to each, and once round
};
// The share of the ring's point nearest to p.
double share_nearest(const Ring& ring, Point p);
// Distance from p to the nearest outline of the region, mm; brute force.
double distance_to_outline(const Region& region, Point p);
// Well inside it: the middle of the longest stretch within, halfway up its box.
Point inner_point(const Island& island);

}  // namespace doyen
