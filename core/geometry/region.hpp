// Outlines and the regions they enclose. Millimetres; x to the right, y away from the user.
// Every coordinate of a clean region is a multiple of kGrid, so that booleans and the Voronoi diagram are exact.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

namespace doyen {

inline constexpr double kGrid = 1e-4;           // mm, the integer step of booleans and medial axes
inline constexpr double kFlatness = 0.01;       // mm, chord error of flattened curves
inline constexpr double kFarthest = 100'000.0;  // mm, beyond this nothing is read in

struct Point {
  double x = 0, y = 0;
  friend bool operator==(const Point&, const Point&) = default;
};
inline Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
inline Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
inline Point operator*(Point a, double k) { return {a.x * k, a.y * k}; }
inline double dot(Point a, Point b) { return a.x * b.x + a.y * b.y; }
inline double cross(Point a, Point b) { return a.x * b.y - a.y * b.x; }
inline double length(Point a) { return std::hypot(a.x, a.y); }
inline double distance(Point a, Point b) { return length(b - a); }
// The share of the way from a to b, 0 to 1, at which it is nearest to p.
inline double nearest_share(Point p, Point a, Point b) {
  const Point along = b - a;
  const double square = dot(along, along);
  return square > 0 ? std::clamp(dot(p - a, along) / square, 0.0, 1.0) : 0;
}
inline double distance(Point p, Point a, Point b) { return distance(p, a + (b - a) * nearest_share(p, a, b)); }

using Ring = std::vector<Point>;  // a closed outline; the last point is not repeated

struct Box {
  double left = 1e300, bottom = 1e300, right = -1e300, top = -1e300;
  [[nodiscard]] bool empty() const { return left > right; }
  [[nodiscard]] double width() const { return empty() ? 0 : right - left; }
  [[nodiscard]] double height() const { return empty() ? 0 : top - bottom; }
  [[nodiscard]] Point centre() const { return {(left + right) / 2, (bottom + top) / 2}; }
  [[nodiscard]] bool contains(Point p) const { return p.x >= left && p.x <= right && p.y >= bottom && p.y <= top; }
  [[nodiscard]] bool meets(const Box& o) const {
    return left <= o.right && o.left <= right && bottom <= o.top && o.bottom <= top;
  }
  void add(Point p);
  void add(const Box& other);
  [[nodiscard]] Box grown(double by) const { return {left - by, bottom - by, right + by, top + by}; }
};

// Between a line from a to b and the rectangle; 0 where they meet. mm.
double distance(const Box& box, Point a, Point b);

// One connected part: rings[0] runs counter-clockwise round it, the others clockwise round its holes;
// the material to think about lies to the left of every ring.
struct Island {
  std::vector<Ring> rings;
};

// Islands do not touch each other's insides. A Region is clean when it came out of one of the functions below.
struct Region {
  std::vector<Island> islands;
  [[nodiscard]] bool empty() const { return islands.empty(); }
};

Box bounds(const Ring& ring);
Box bounds(const Island& island);
Box bounds(const Region& region);
double signed_area(const Ring& ring);  // mm², positive when counter-clockwise
Region region_of(const Box& box);      // its four sides
double area(const Region& region);     // mm²
Point centroid(const Region& region);  // of its area; the middle of its box when it has none
bool contains(const Island& island, Point p);
bool contains(const Region& region, Point p);
std::size_t point_count(const Region& region);
Region filled(const Region& region);  // its outer outlines alone: what they enclose

inline constexpr std::size_t kMostPoints = 600'000;  // of outlines that are joined into one region
// Throws Problem{BadInput} when they are more: before they are made, where that is known.
void check_points(std::size_t points);

enum class Fill { NonZero, EvenOdd };
enum class Corner { Round, Sharp, Flat };

// Joins rings of any orientation, crossing or not, into a clean region.
Region clean(const std::vector<Ring>& rings, Fill fill = Fill::NonZero);
// The same of what came out of a clean one: it may have more points than artwork may.
Region tidied(const std::vector<Ring>& rings);
Region unite(const Region& a, const Region& b);
Region subtract(const Region& a, const Region& b);
Region intersect(const Region& a, const Region& b);

// Grows (mm > 0) or shrinks (mm < 0) the region. `arc_error` is the chord error of rounded corners, mm.
Region grow(const Region& region, double mm, Corner corner = Corner::Round, double arc_error = 0.002);

// Thousands of points a few hundredths of a millimetre apart, as rough tracings have: an offset's time grows with the
// square of the zigzags that its distance makes overlap, so they are thinned first.
bool rough(const Region& region);

// What a disc of this radius can sweep without leaving the region: erode, then dilate. It may stand out of the region
// by the arc's error.
Region opening(const Region& region, double radius, double arc_error = 0.002);
// What such a disc does not reach, less what lies within 3 µm of where it does.
Region lost_in_opening(const Region& region, double radius, double arc_error = 0.002);

// Affine change of place: x' = a x + c y + e, y' = b x + d y + f. A mirroring turns the rings the right way round
// again.
struct Transform {
  double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;
  [[nodiscard]] Point apply(Point p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f}; }
  [[nodiscard]] double determinant() const { return a * d - b * c; }
  [[nodiscard]] Transform then(const Transform& next) const;
  static Transform move(double x, double y) { return {1, 0, 0, 1, x, y}; }
  static Transform scale(double sx, double sy) { return {sx, 0, 0, sy, 0, 0}; }
  static Transform turn(double degrees);
};

Ring transformed(const Ring& ring, const Transform& by);
Region transformed(const Region& region, const Transform& by);
// What a clean region leaves standing inside its outer outlines. From its rings alone: taking it from its filled self
// lays every outline on itself, which costs Clipper seconds.
Region left_inside(const Region& region);
// Moved by steps of the grid: a clean region's points stay on it to the last bit, wherever it comes to lie.
Region moved_on_grid(Region region, Point by);

inline double snap_to_grid(double mm) { return std::round(mm / kGrid) * kGrid; }
inline std::int32_t to_grid(double mm) { return static_cast<std::int32_t>(std::lround(mm / kGrid)); }

}  // namespace doyen
