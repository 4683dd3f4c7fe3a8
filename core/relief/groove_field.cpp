#include "relief/groove_field.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <cstring>

namespace doyen {
namespace {

// A facet is a convex piece of the plan whose every point is nearest to one site. Over a segment the depth is linear;
// round a reflex corner it is a cone.
struct Facet {
  Point corner[4];
  int corners = 0;
  bool cone = false;
  Point apex;    // of a cone
  Point normal;  // of a plane: depth clearance = normal·p + offset
  double offset = 0;
  double bottom = 0, top = 0;
};

void finish(Facet& f) {
  f.bottom = f.top = f.corner[0].y;
  for (int i = 1; i < f.corners; ++i) {
    f.bottom = std::min(f.bottom, f.corner[i].y);
    f.top = std::max(f.top, f.corner[i].y);
  }
}

class FacetMaker {
 public:
  FacetMaker(const Groove::Place& place, double flatness)
      : place_(place), axis_(place.island->axis), flatness_(flatness) {}

  void add_all(std::vector<Facet>& out) {
    out.reserve(out.size() + axis_.edges.size() * 3);
    for (const auto& edge : axis_.edges) {
      const auto& a = axis_.vertices[static_cast<std::size_t>(edge.a)];
      const auto& b = axis_.vertices[static_cast<std::size_t>(edge.b)];
      points_.assign(1, a);
      trace_edge(axis_, a, b, edge.one, edge.two, flatness_, points_);
      for (std::size_t i = 1; i < points_.size(); ++i) {
        add_side(edge.one, points_[i - 1], points_[i], out);
        add_side(edge.two, points_[i - 1], points_[i], out);
      }
    }
  }

 private:
  void add_side(Site site, const MedialAxis::Vertex& a, const MedialAxis::Vertex& b, std::vector<Facet>& out) const {
    Facet f;
    f.corner[0] = place_.on_board(a.at);
    f.corner[1] = place_.on_board(b.at);
    if (site.is_point()) {
      f.apex = place_.on_board(axis_.corners[site.index()]);
      f.corner[2] = f.apex;
      f.corners = 3;
      f.cone = true;
    } else {
      const Point start = place_.on_board(axis_.segment_start(site.index()));
      const Point d = place_.on_board(axis_.segment_end(site.index())) - start;
      const double len = length(d);
      const Point along = d * (1 / len);
      f.normal = {-along.y, along.x};
      f.offset = -dot(f.normal, start);
      const auto foot = [&](Point p) { return start + along * dot(p - start, along); };
      f.corner[2] = foot(f.corner[1]);
      f.corner[3] = foot(f.corner[0]);
      f.corners = 4;
    }
    finish(f);
    out.push_back(f);
  }

  const Groove::Place& place_;
  const MedialAxis& axis_;
  double flatness_;
  std::vector<MedialAxis::Vertex> points_;
};

struct Painter {
  HeightField& field;
  const GrooveShape& shape;
  double ground;

  void paint(const Facet& f, std::size_t first_row, std::size_t last_row) const {
    const double slack = field.cell() * 1e-6;
    auto rows = field.rows_in(f.bottom - slack, f.top + slack);
    rows.begin = std::max(rows.begin, first_row);
    rows.end = std::min(rows.end, last_row);
    for (std::size_t r = rows.begin; r < rows.end; ++r) {
      const double y = field.y_of(r);
      double from = 1e300, to = -1e300;
      for (int i = 0, j = f.corners - 1; i < f.corners; j = i++) {
        const Point& p = f.corner[j];
        const Point& q = f.corner[i];
        if ((p.y < y && q.y < y) || (p.y > y && q.y > y)) continue;
        if (p.y == q.y) {
          from = std::min({from, p.x, q.x});
          to = std::max({to, p.x, q.x});
          continue;
        }
        const double x = p.x + (q.x - p.x) * (y - p.y) / (q.y - p.y);
        from = std::min(from, x);
        to = std::max(to, x);
      }
      const auto columns = field.columns_in(from - slack, to + slack);
      if (columns.begin < columns.end) fill(f, y, columns, field.row(r));
    }
  }

  void fill(const Facet& f, double y, HeightField::Range columns, float* cells) const {
    const auto steep = static_cast<float>(1 / shape.tan_half);
    const auto floor = static_cast<float>(ground - shape.limit);
    const auto high = static_cast<float>(ground);
    const double x0 = field.x_of(columns.begin);
    if (f.cone) {
      const double dy = y - f.apex.y;
      for (std::size_t c = columns.begin; c < columns.end; ++c) {
        const double dx = field.x_of(c) - f.apex.x;
        const float z = high - static_cast<float>(std::sqrt(dx * dx + dy * dy)) * steep;
        cells[c] = std::min(cells[c], std::max(floor, z));
      }
      return;
    }
    const auto at_first = static_cast<float>((f.normal.x * x0 + f.normal.y * y + f.offset));
    const auto step = static_cast<float>(f.normal.x * field.cell());
    const auto n = static_cast<int>(columns.end - columns.begin);
    float* out = cells + columns.begin;
    for (int i = 0; i < n; ++i) {
      const float clearance = std::max(0.0F, at_first + step * static_cast<float>(i));
      out[i] = std::min(out[i], std::max(floor, high - clearance * steep));
    }
  }
};

void paint_all(HeightField& field, const Groove& groove, double ground, bool clear_first) {
  constexpr std::size_t kBand = 64;
  // A chord that strays by e lets a facet reach e past its own parabola: at worst 2 e / tan(α/2) of depth, 5 µm.
  const double flatness = 0.0025 * groove.shape.tan_half;
  std::vector<std::vector<Facet>> facets(groove.places.size());
  tbb::parallel_for(std::size_t{0}, groove.places.size(),
                    [&](std::size_t i) { FacetMaker(groove.places[i], flatness).add_all(facets[i]); });
  struct Ref {
    std::uint32_t place, facet;
  };
  const std::size_t bands = (field.rows() + kBand - 1) / kBand;
  std::vector<std::vector<Ref>> by_band(bands);
  for (std::size_t p = 0; p < facets.size(); ++p) {
    for (std::size_t k = 0; k < facets[p].size(); ++k) {
      const auto rows = field.rows_in(facets[p][k].bottom - field.cell(), facets[p][k].top + field.cell());
      if (rows.begin == rows.end) continue;
      for (std::size_t b = rows.begin / kBand; b <= (rows.end - 1) / kBand; ++b) {
        by_band[b].push_back({static_cast<std::uint32_t>(p), static_cast<std::uint32_t>(k)});
      }
    }
  }
  const Painter painter{field, groove.shape, ground};
  tbb::parallel_for(
      std::size_t{0}, bands,
      [&](std::size_t b) {
        const std::size_t first = b * kBand, last = std::min(field.rows(), first + kBand);
        if (clear_first) std::memset(field.row(first), 0, (last - first) * field.columns() * sizeof(float));
        for (const Ref& ref : by_band[b]) painter.paint(facets[ref.place][ref.facet], first, last);
      },
      tbb::simple_partitioner());
}

}  // namespace

void paint_groove(HeightField& field, const Groove& groove, double ground) { paint_all(field, groove, ground, true); }

void paint_groove_over(HeightField& field, const Groove& groove, double ground) {
  paint_all(field, groove, ground, false);
}

}  // namespace doyen
