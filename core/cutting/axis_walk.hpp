// The walk along an island's medial axis that makes a groove: hairs peeled, clipped to where its floor begins, then
// gone along with as little twice as can be. Not for use outside cutting/.
#pragma once

#include <vector>

#include "cutting/groove.hpp"
#include "geometry/medial_axis.hpp"

namespace doyen {

// The axis as a graph that can be peeled, clipped and walked. Index-based throughout: at a hundred thousand segments
// this has to cost a few hundredths of the diagram.
class AxisWalk {
 public:
  AxisWalk(const MedialAxis& axis, const GrooveShape& shape)
      : axis_(axis), shape_(shape), vertices_(axis.vertices), edges_(axis.edges) {}

  void peel_hairs(double tolerance);
  void clip_to(double least, double kink, double most);
  void measure(IslandGroove& out);
  void chain(IslandGroove& out);

 private:
  using Vertex = MedialAxis::Vertex;
  using Edge = MedialAxis::Edge;
  void link();
  [[nodiscard]] std::int32_t other(std::int32_t e, std::int32_t v) const {
    const Edge& edge = edges_[static_cast<std::size_t>(e)];
    return edge.a == v ? edge.b : edge.a;
  }
  [[nodiscard]] std::int32_t only_edge(std::int32_t v) const;
  void walk_component(std::int32_t root, IslandGroove& out);
  void span(std::int32_t root);
  std::int32_t choose_path(std::int32_t root);
  [[nodiscard]] double edge_length(std::int32_t e) const {
    const Edge& edge = edges_[static_cast<std::size_t>(e)];
    return distance(vertices_[static_cast<std::size_t>(edge.a)].at, vertices_[static_cast<std::size_t>(edge.b)].at);
  }
  void emit(const std::vector<std::int32_t>& trail, std::int32_t start, IslandGroove& out);
  [[nodiscard]] double tolerance() const;

  const MedialAxis& axis_;
  GrooveShape shape_;
  std::vector<Vertex> vertices_;
  std::vector<Edge> edges_;
  std::vector<char> gone_;            // per edge
  std::vector<std::int32_t> first_;   // per vertex, into around_; one more at the end
  std::vector<std::int32_t> around_;  // edges round each vertex
  std::vector<std::int32_t> degree_;
  std::vector<std::int32_t> dots_;  // vertices left alone when everything round them was peeled

  // scratch of walk_component
  std::vector<std::int32_t> order_, parent_edge_, used_, cursor_;
  std::vector<char> times_, odd_, seen_;
  std::vector<double> reach_;
  std::vector<std::int32_t> reach_edge_;
  std::vector<Vertex> traced_;
};

}  // namespace doyen
