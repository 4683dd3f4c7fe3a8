// An island drawn in, ring within ring, from its medial axis alone: where that is there anyway, every ring comes out of
// one look at its edges. Between its sites a ring runs along with the segment, or round the inward corner, that it
// belongs to; where it goes from one to the next, the axis' clearance is the ring's distance.
#pragma once

#include <optional>
#include <vector>

#include "geometry/medial_axis.hpp"
#include "geometry/polyline.hpp"

namespace doyen {

class AxisRings {
 public:
  // An edge of the axis, or a part of one, along which the clearance only grows.
  struct Rise {
    MedialAxis::Vertex low, high;
    std::int32_t low_id = 0, high_id = 0;  // the same for edges that meet
    Site one, two;
  };

  explicit AxisRings(const MedialAxis& axis);  // which must outlive it

  // Only what belongs to segments and corners within `reach` mm of these boxes, in the axis' own place, is told.
  void keep_near(const std::vector<Box>& boxes, double reach);

  // The lines `d` mm within the outline, in the axis' own place, the island's inside to their left; closed where
  // nothing of them is left out. Arcs become chords of `arc_error` mm. Nothing where the axis' rounding leaves open how
  // they join: the island must be drawn in another way then.
  [[nodiscard]] std::optional<std::vector<Line2>> at(double d, double arc_error = 0.002) const;

  // What a disc of radius `reach`, at most `d`, sweeps whose centre goes all over what lies `d` mm or more within: the
  // lines round it, as above; where a neck is narrower than the disc they cross. Only of all, not of what is kept near.
  [[nodiscard]] std::optional<std::vector<Line2>> swept_from(double d, double reach, double arc_error = 0.002) const;

  [[nodiscard]] const std::vector<Rise>& rises() const { return rises_; }
  [[nodiscard]] bool kept(const Rise& rise) const { return kept_[index(rise.one)] != 0 || kept_[index(rise.two)] != 0; }
  [[nodiscard]] double widest() const { return widest_; }  // the largest clearance, mm

 private:
  struct Cross {
    std::size_t site;
    double along;  // the site, as the ring goes
    bool in;       // the ring begins to run along with the site there
    std::int64_t node;
  };
  struct Piece {
    std::size_t site;
    std::int64_t from, to;  // nodes
  };
  struct Chains {
    std::vector<Point> nodes;
    std::vector<Piece> pieces;
    std::vector<std::vector<std::size_t>> chains;  // pieces in turn
  };
  [[nodiscard]] std::optional<Chains> chains_at(double d) const;
  [[nodiscard]] Point toward(std::size_t site, Point p, double d, double reach) const;
  [[nodiscard]] std::size_t index(Site s) const { return s.is_point() ? corners() + s.index() : s.index(); }
  [[nodiscard]] std::size_t corners() const { return axis_.corners.size(); }
  [[nodiscard]] bool is_point(std::size_t site) const { return site >= corners(); }
  [[nodiscard]] double along(std::size_t site, Point p) const;
  [[nodiscard]] std::vector<Cross> crosses_at(double d, std::vector<Point>& nodes) const;
  [[nodiscard]] bool add_pieces(std::size_t site, const Cross* first, const Cross* last, double d,
                                std::vector<Piece>& pieces) const;
  [[nodiscard]] Point place(std::int64_t node, double d, const std::vector<Point>& nodes) const;
  void add_points(const Piece& piece, double d, double arc_error, const std::vector<Point>& nodes, Line2& line) const;

  const MedialAxis& axis_;
  std::vector<Rise> rises_;
  std::vector<std::size_t> before_;  // the segment that ends in each corner
  std::vector<Point> normal_;        // of each segment, to its left, of length one
  std::vector<double> least_;        // of each site, the least clearance along its part of the axis
  std::vector<double> turn_;         // of each inward corner, radians from the one normal to the other
  std::vector<char> kept_;           // of each site
  double widest_ = 0;
};

}  // namespace doyen
