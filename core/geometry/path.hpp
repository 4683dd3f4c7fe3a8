// Paths of lines and cubic curves, as drawings and faces give them, and their SVG path data (W3C SVG 1.1, chapter 8).
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

struct PathStep {
  enum class Kind : unsigned char { Move, Line, Curve, Close };
  Kind kind = Kind::Move;
  Point c1, c2, to;  // c1 and c2 only for Curve
};

struct Path {
  std::vector<PathStep> steps;
  void move(Point p) { steps.push_back({PathStep::Kind::Move, {}, {}, p}); }
  void line(Point p) { steps.push_back({PathStep::Kind::Line, {}, {}, p}); }
  void curve(Point c1, Point c2, Point p) { steps.push_back({PathStep::Kind::Curve, c1, c2, p}); }
  void quadratic(Point from, Point control, Point p);
  void close() { steps.push_back({PathStep::Kind::Close, {}, {}, {}}); }
  [[nodiscard]] bool empty() const { return steps.empty(); }
};

// Every command of the path grammar (M L H V C S Q T A Z, absolute and relative).
// Throws Problem{BadInput} with the place in the text. As SVG asks, `until_error` keeps what stands before a mistake.
Path parse_path(std::string_view data, bool until_error = false);
std::string path_data(const Path& path, int decimals = 4);

Path transformed(const Path& path, const Transform& by);

struct Flat {
  std::vector<Ring> closed;
  std::vector<std::vector<Point>> open;  // stroke lines
};
inline constexpr double kNeedless = 0.001;  // mm: points that move the outline by less are dropped
// Curves become chords no farther than `flatness` mm from them; points that change it by less than kNeedless go. Open
// subpaths are closed when `close_all`.
Flat flatten(const Path& path, double flatness, bool close_all);

}  // namespace doyen
