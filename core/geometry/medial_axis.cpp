#include "geometry/medial_axis.hpp"

#include <algorithm>
#include <boost/polygon/voronoi.hpp>
#include <optional>

#include "cancel.hpp"
#include "geometry/wide_numbers.hpp"
#include "measure/whole.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Diagram = boost::polygon::voronoi_diagram<double>;
using Cell = Diagram::cell_type;

// A segment as a line in grid units: signed distance = nx x + ny y + c, positive on the left, the material's side.
struct Line {
  double nx, ny, c;
  [[nodiscard]] double side(double x, double y) const { return nx * x + ny * y + c; }
};

struct Sites {
  std::vector<std::int32_t> xs, ys;
  std::vector<std::int32_t> next, previous;
  std::vector<Line> lines;

  [[nodiscard]] std::size_t point_of(const Cell& cell) const {
    const std::size_t segment = cell.source_index();
    const bool start = cell.source_category() == boost::polygon::SOURCE_CATEGORY_SEGMENT_START_POINT;
    return start ? segment : static_cast<std::size_t>(next[segment]);
  }
  // Inward corners have their cell inside the material, outward ones outside.
  [[nodiscard]] bool reflex(std::size_t i) const {
    const auto p = static_cast<std::size_t>(previous[i]);
    const auto n = static_cast<std::size_t>(next[i]);
    const std::int64_t ax = xs[i] - xs[p], ay = ys[i] - ys[p];
    const std::int64_t bx = xs[n] - xs[i], by = ys[n] - ys[i];
    return ax * by - ay * bx < 0;
  }
};

Sites read_sites(const Island& island, std::int32_t left, std::int32_t bottom) {
  Sites s;
  std::size_t total = 0;
  for (const Ring& ring : island.rings) total += ring.size();
  s.xs.reserve(total);
  s.ys.reserve(total);
  s.next.reserve(total);
  s.previous.reserve(total);
  s.lines.reserve(total);
  for (const Ring& ring : island.rings) {
    const auto first = static_cast<std::int32_t>(s.xs.size());
    const auto n = static_cast<std::int32_t>(ring.size());
    for (std::int32_t i = 0; i < n; ++i) {
      const Point& p = ring[static_cast<std::size_t>(i)];
      s.xs.push_back(to_grid(p.x) - left);
      s.ys.push_back(to_grid(p.y) - bottom);
      s.next.push_back(first + (i + 1 == n ? 0 : i + 1));
      s.previous.push_back(first + (i == 0 ? n - 1 : i - 1));
    }
  }
  for (std::size_t i = 0; i < s.xs.size(); ++i) {
    const auto j = static_cast<std::size_t>(s.next[i]);
    const double dx = s.xs[j] - s.xs[i];
    const double dy = s.ys[j] - s.ys[i];
    const double len = std::sqrt(dx * dx + dy * dy);
    const double nx = len > 0 ? -dy / len : 0;
    const double ny = len > 0 ? dx / len : 0;
    s.lines.push_back({nx, ny, -(nx * s.xs[i] + ny * s.ys[i])});
  }
  return s;
}

// The library's own predicates, which stop when this thread's work is asked to: one diagram can take a tenth of a
// second. What throws Cancelled out of the builder leaves only what its destructors free.
using Coordinates = WideNumbers;
struct StoppingPredicates : boost::polygon::detail::voronoi_predicates<Coordinates> {
  template <typename Site, typename Circle>
  class circle_formation_predicate
      : public boost::polygon::detail::voronoi_predicates<Coordinates>::circle_formation_predicate<Site, Circle> {
    using Base = boost::polygon::detail::voronoi_predicates<Coordinates>::circle_formation_predicate<Site, Circle>;

   public:
    bool operator()(const Site& a, const Site& b, const Site& c, Circle& circle) {
      Cancel::check_here();
      return Base::operator()(a, b, c, circle);
    }
  };
};

void fill(Diagram& diagram, const Sites& sites) {
  boost::polygon::voronoi_builder<std::int32_t, Coordinates, StoppingPredicates> builder;
  for (std::size_t i = 0; i < sites.xs.size(); ++i) {
    const auto j = static_cast<std::size_t>(sites.next[i]);
    builder.insert_segment(sites.xs[i], sites.ys[i], sites.xs[j], sites.ys[j]);
  }
  builder.construct(&diagram);
}

// Radii at both ends of an edge of the diagram, in grid units; none where it lies outside the material.
struct Radii {
  double at0 = 0, at1 = 0;
  bool wrong = false;  // both sides' outlines are not as far away: they cross
};
std::optional<Radii> radii_of(const Sites& sites, const Diagram::vertex_type& v0, const Diagram::vertex_type& v1,
                              const Cell& near, const Cell& far) {
  if (!near.contains_segment()) {
    const std::size_t p = sites.point_of(near);
    if (!sites.reflex(p)) return std::nullopt;
    return Radii{std::hypot(v0.x() - sites.xs[p], v0.y() - sites.ys[p]),
                 std::hypot(v1.x() - sites.xs[p], v1.y() - sites.ys[p])};
  }
  const Line& line = sites.lines[near.source_index()];
  const double s0 = line.side(v0.x(), v0.y()), s1 = line.side(v1.x(), v1.y());
  if ((std::abs(s0) > std::abs(s1) ? s0 : s1) <= 0) return std::nullopt;
  Radii radii{std::max(0.0, s0), std::max(0.0, s1)};
  if (far.contains_segment()) {
    const Line& other = sites.lines[far.source_index()];
    const double o = std::abs(s0) > std::abs(s1) ? other.side(v0.x(), v0.y()) : other.side(v1.x(), v1.y());
    radii.wrong = std::abs(o - std::max(radii.at0, radii.at1)) > 20;
  }
  return radii;
}

}  // namespace

std::vector<std::int32_t> island_key(const Island& island) {
  const Box box = bounds(island);
  const std::int32_t left = to_grid(box.left);
  const std::int32_t bottom = to_grid(box.bottom);
  std::vector<std::int32_t> key;
  for (const Ring& ring : island.rings) {
    key.push_back(-static_cast<std::int32_t>(ring.size()));
    for (const Point& p : ring) {
      key.push_back(to_grid(p.x) - left);
      key.push_back(to_grid(p.y) - bottom);
    }
  }
  return key;
}

MedialAxis medial_axis(const Island& island) {
  const Box box = bounds(island);
  const std::int32_t left = to_grid(box.left);
  const std::int32_t bottom = to_grid(box.bottom);
  const Sites sites = read_sites(island, left, bottom);
  const std::size_t n = sites.xs.size();

  Diagram diagram;
  fill(diagram, sites);
  MedialAxis axis;
  axis.origin = {left * kGrid, bottom * kGrid};
  axis.next = sites.next;
  axis.corners.reserve(n);
  for (std::size_t i = 0; i < n; ++i) axis.corners.push_back({sites.xs[i] * kGrid, sites.ys[i] * kGrid});
  if (diagram.edges().empty()) return axis;

  const auto* first_vertex = diagram.vertices().data();
  std::vector<std::int32_t> compact(diagram.vertices().size(), -1);
  const auto keep = [&](const Diagram::vertex_type* v, double r) {
    std::int32_t& slot = compact[static_cast<std::size_t>(v - first_vertex)];
    if (slot < 0) {
      slot = static_cast<std::int32_t>(axis.vertices.size());
      axis.vertices.push_back({{v->x() * kGrid, v->y() * kGrid}, r * kGrid});
    }
    return slot;
  };

  axis.vertices.reserve(2 * n);
  axis.edges.reserve(2 * n);
  bool wrong = false;
  const auto& edges = diagram.edges();
  for (std::size_t e = 0; e + 1 < edges.size(); e += 2) {  // twins stand side by side
    const auto& edge = edges[e];
    if (!edge.is_primary()) continue;
    const auto* v0 = edge.vertex0();
    const auto* v1 = edge.vertex1();
    if (v0 == nullptr || v1 == nullptr) continue;
    const Cell* cells[2] = {edge.cell(), edges[e + 1].cell()};
    if (!cells[0]->contains_segment()) std::swap(cells[0], cells[1]);

    const std::optional<Radii> radii = radii_of(sites, *v0, *v1, *cells[0], *cells[1]);
    if (!radii) continue;
    wrong = wrong || radii->wrong;
    const auto site = [&](const Cell& c) {
      return c.contains_segment() ? Site::segment(c.source_index()) : Site::point(sites.point_of(c));
    };
    axis.edges.push_back({keep(v0, radii->at0), keep(v1, radii->at1), site(*cells[0]), site(*cells[1])});
  }
  if (wrong) throw bad_input(say("The outline crosses itself, so its middle line cannot be found."));
  return axis;
}

namespace {

// A segment's own frame: u along it, v the distance from it; the focus seen in that frame.
struct Parabola {
  Point start, along;
  double focus_u = 0, focus_v = 0;
  Parabola(const MedialAxis& axis, std::size_t segment, std::size_t point) : start(axis.segment_start(segment)) {
    const Point d = axis.segment_end(segment) - start;
    along = d * (1 / length(d));
    const Point f = axis.corners[point] - start;
    focus_u = dot(f, along);
    focus_v = cross(along, f);
  }
  [[nodiscard]] double u_of(Point p) const { return dot(p - start, along); }
  [[nodiscard]] double v_at(double u) const {
    return ((u - focus_u) * (u - focus_u) + focus_v * focus_v) / (2 * focus_v);
  }
  [[nodiscard]] MedialAxis::Vertex at(double u) const {
    const double v = v_at(u);
    return {{start.x + along.x * u - along.y * v, start.y + along.y * u + along.x * v}, v};
  }
};

bool is_parabola(Site one, Site two) { return one.is_point() != two.is_point(); }

Parabola parabola_of(const MedialAxis& axis, Site one, Site two) {
  return one.is_point() ? Parabola(axis, two.index(), one.index()) : Parabola(axis, one.index(), two.index());
}

}  // namespace

void trace_edge(const MedialAxis& axis, const MedialAxis::Vertex& from, const MedialAxis::Vertex& to, Site one,
                Site two, double tolerance, std::vector<MedialAxis::Vertex>& out) {
  constexpr int kMostParts = 4000;
  if (is_parabola(one, two)) {
    const Parabola p = parabola_of(axis, one, two);
    if (p.focus_v > kGrid / 2) {
      const double u0 = p.u_of(from.at);
      const double u1 = p.u_of(to.at);
      const double step = std::sqrt(8 * p.focus_v * tolerance);
      const int n = whole_up(std::abs(u1 - u0) / step, 0, kMostParts);
      for (int i = 1; i < n; ++i) out.push_back(p.at(u0 + (u1 - u0) * i / n));
    }
  } else if (one.is_point()) {
    const Point focus = axis.corners[one.index()];
    const double half = distance(focus, axis.corners[two.index()]) / 2;
    if (half > kGrid / 2) {
      const double nearest = std::min(from.r, to.r);
      const double step = std::sqrt(8 * tolerance * nearest * nearest * nearest) / half;
      const double len = distance(from.at, to.at);
      const int n = whole_up(len / std::max(step, std::sqrt(8 * tolerance * half)), 0, kMostParts);
      for (int i = 1; i < n; ++i) {
        const Point at = from.at + (to.at - from.at) * (static_cast<double>(i) / n);
        out.push_back({at, distance(at, focus)});
      }
    }
  }
  out.push_back(to);
}

bool edge_waist(const MedialAxis& axis, const MedialAxis::Vertex& from, const MedialAxis::Vertex& to, Site one,
                Site two, MedialAxis::Vertex& waist) {
  if (is_parabola(one, two)) {
    const Parabola p = parabola_of(axis, one, two);
    const double u0 = p.u_of(from.at) - p.focus_u;
    const double u1 = p.u_of(to.at) - p.focus_u;
    if (u0 * u1 >= 0 || p.focus_v < kGrid) return false;
    waist = p.at(p.focus_u);
    return true;
  }
  if (!one.is_point()) return false;
  const Point a = axis.corners[one.index()];
  const Point middle = (a + axis.corners[two.index()]) * 0.5;
  const Point d = to.at - from.at;
  const double along = dot(middle - from.at, d);
  if (along <= 0 || along >= dot(d, d)) return false;
  waist = {middle, distance(a, middle)};
  return true;
}

MedialAxis::Vertex edge_point_at_radius(const MedialAxis& axis, const MedialAxis::Vertex& from,
                                        const MedialAxis::Vertex& to, Site one, Site two, double r) {
  if (is_parabola(one, two)) {
    const Parabola p = parabola_of(axis, one, two);
    if (p.focus_v > kGrid) {
      const double half = std::sqrt(std::max(0.0, 2 * p.focus_v * r - p.focus_v * p.focus_v));
      const bool right = p.u_of(from.at) + p.u_of(to.at) > 2 * p.focus_u;
      MedialAxis::Vertex v = p.at(p.focus_u + (right ? half : -half));
      v.r = r;
      return v;
    }
  } else if (one.is_point()) {
    const Point a = axis.corners[one.index()];
    const double half = distance(a, axis.corners[two.index()]) / 2;
    const auto along = [&](double radius) { return std::sqrt(std::max(0.0, radius * radius - half * half)); };
    const double s0 = along(from.r), s1 = along(to.r);
    const double t = s0 == s1 ? 0 : (along(r) - s0) / (s1 - s0);
    return {from.at + (to.at - from.at) * t, r};
  }
  const double t = from.r == to.r ? 0 : (r - from.r) / (to.r - from.r);
  return {from.at + (to.at - from.at) * t, r};
}

}  // namespace doyen
