// The exact medial axis inside an island: where a V bit's tip runs (geometry.md, Incise).
// Built from the Voronoi diagram of the island's segments on integers (Boost.Polygon); nothing else sees that library.
#pragma once

#include <cstdint>
#include <vector>

#include "geometry/region.hpp"

namespace doyen {

// A site is what an axis point is nearest to: a segment of the outline, or one of its inward (reflex) corners.
struct Site {
  std::int32_t code = 0;
  [[nodiscard]] bool is_point() const { return code < 0; }
  [[nodiscard]] std::size_t index() const { return static_cast<std::size_t>(code < 0 ? ~code : code); }
  static Site segment(std::size_t i) { return {static_cast<std::int32_t>(i)}; }
  static Site point(std::size_t i) { return {~static_cast<std::int32_t>(i)}; }
};

struct MedialAxis {
  struct Vertex {
    Point at;      // mm, in the island's own place: relative to `origin`
    double r = 0;  // mm, clearance radius
  };
  // Straight where both sites are segments; a parabola between a segment and a point; straight with a hyperbolic
  // radius between two points.
  struct Edge {
    std::int32_t a = 0, b = 0;
    Site one, two;
  };

  Point origin;                    // mm, the lower left of the island on the board; a multiple of kGrid
  std::vector<Point> corners;      // the outline's points, ring after ring, relative to origin
  std::vector<std::int32_t> next;  // corners[next[i]] ends the segment that corners[i] starts
  std::vector<Vertex> vertices;    // inner ones only
  std::vector<Edge> edges;         // primary edges inside the island, those into convex corners included

  [[nodiscard]] Point segment_start(std::size_t i) const { return corners[i]; }
  [[nodiscard]] Point segment_end(std::size_t i) const { return corners[static_cast<std::size_t>(next[i])]; }
};

// The island's coordinates must be on the grid, its rings clean (see region.hpp).
// Throws Problem{BadInput} when the rings cross each other.
MedialAxis medial_axis(const Island& island);

// Two islands with equal keys have equal axes but for `origin`: a repeated letter is worked out once.
std::vector<std::int32_t> island_key(const Island& island);

// Appends the points of an edge from a to b, without a itself; r is exact at every one, and the chords stay within
// `tolerance` mm of the true curve. Vertex indices may be those of any list that holds the edge's ends.
void trace_edge(const MedialAxis& axis, const MedialAxis::Vertex& from, const MedialAxis::Vertex& to, Site one,
                Site two, double tolerance, std::vector<MedialAxis::Vertex>& out);

// The point of an edge with clearance r, where r runs monotonically from `from` to `to`.
MedialAxis::Vertex edge_point_at_radius(const MedialAxis& axis, const MedialAxis::Vertex& from,
                                        const MedialAxis::Vertex& to, Site one, Site two, double r);

// Where the clearance of a curved edge has its least value between its ends; false when it lies at an end.
bool edge_waist(const MedialAxis& axis, const MedialAxis::Vertex& from, const MedialAxis::Vertex& to, Site one,
                Site two, MedialAxis::Vertex& waist);

}  // namespace doyen
