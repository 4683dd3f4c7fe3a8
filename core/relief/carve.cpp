#include "relief/carve.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace doyen {
namespace {

// One straight move seen from its start: s runs along it in plan, z = z0 + slope·s. Only cells between `before` the
// start and `after` the end are looked at: what lies farther along is nearer to the pass's other moves.
struct Move {
  double x0, y0, z0, dx, dy, len, slope;  // (dx, dy) of length one; len in plan
  double before = 1e300, after = 1e300;
};

Move make_move(const Point3& a, const Point3& b) {
  const double len = std::hypot(b.x - a.x, b.y - a.y);
  if (len < 1e-9) return {a.x, a.y, std::min(a.z, b.z), 1, 0, 0, 0};
  return {a.x, a.y, a.z, (b.x - a.x) / len, (b.y - a.y) / len, len, (b.z - a.z) / len};
}

// Each shape answers: the lowest surface that the move leaves at a place u along and w beside it.
// The height over s is convex for every profile here, so the free minimum clamped to the move is the answer.
struct Cone {
  double steep, tip_radius, body;
  double shift = 0;  // per move: distance of the free minimum from u, per unit of |w|
  bool runaway = false;
  void prepare(const Move& m) {
    runaway = std::abs(m.slope) >= steep;
    shift = runaway ? 0 : m.slope / std::sqrt(steep * steep - m.slope * m.slope);
  }
  [[nodiscard]] double reach(double depth) const { return std::min(body, tip_radius + depth / steep); }
  // How far along the move the free minimum can lie from a cell's foot, within `out` mm beside it.
  [[nodiscard]] double spread(const Move& m, double out) const {
    if (std::abs(m.slope) >= steep * 0.98) return 1e300;
    return tip_radius + out * std::abs(m.slope) / std::sqrt(steep * steep - m.slope * m.slope);
  }
  [[nodiscard]] double height(const Move& m, double u, double w) const {
    double s = runaway ? (m.slope > 0 ? 0 : m.len) : u - w * shift;
    if (tip_radius > 0 && !runaway) {
      const double off = (u - s) * (u - s) + w * w;
      if (off < tip_radius * tip_radius) {
        const double c = std::sqrt(tip_radius * tip_radius - w * w);
        s = m.slope > 0 ? u - c : u + c;
      }
    }
    s = std::clamp(s, 0.0, m.len);
    const double d = std::sqrt((u - s) * (u - s) + w * w);
    if (d > body) return nearest_within(m, u, w);
    return m.z0 + m.slope * s + steep * std::max(0.0, d - tip_radius);
  }
  // The body ends at a radius: where the free minimum lies beyond it, the rim does the cutting.
  [[nodiscard]] double nearest_within(const Move& m, double u, double w) const {
    if (w > body) return 1;
    const double c = std::sqrt(body * body - w * w);
    const double from = std::max(0.0, u - c), to = std::min(m.len, u + c);
    if (from > to) return 1;
    const double s = m.slope > 0 ? from : to;
    return m.z0 + m.slope * s + steep * std::max(0.0, std::hypot(u - s, w) - tip_radius);
  }
};

struct Cylinder {
  double radius;
  void prepare(const Move&) {}
  // On a slope the far rim of the disc cuts last, so only level moves may leave cells to their neighbours.
  [[nodiscard]] double spread(const Move& m, double) const { return m.slope == 0 ? 0 : 1e300; }
  [[nodiscard]] double reach(double) const { return radius; }
  [[nodiscard]] double height(const Move& m, double u, double w) const {
    const double c2 = radius * radius - w * w;
    if (c2 < 0) return 1;
    const double c = std::sqrt(c2);
    const double from = std::max(0.0, u - c), to = std::min(m.len, u + c);
    if (from > to) return 1;
    return m.z0 + m.slope * (m.slope > 0 ? from : to);
  }
};

struct Sphere {
  double radius;
  void prepare(const Move&) {}
  [[nodiscard]] double spread(const Move&, double) const { return 1e300; }
  [[nodiscard]] double reach(double depth) const {
    return depth >= radius ? radius : std::sqrt(depth * (2 * radius - depth));
  }
  [[nodiscard]] double height(const Move& m, double u, double w) const {
    const double c2 = radius * radius - w * w;
    if (c2 < 0) return 1;
    const double s = std::clamp(u - m.slope * std::sqrt(c2 / (1 + m.slope * m.slope)), 0.0, m.len);
    const double d2 = (u - s) * (u - s) + w * w;
    if (d2 > radius * radius) return 1;
    return m.z0 + m.slope * s + radius - std::sqrt(radius * radius - d2);
  }
};

// A tapered ball is a ball joined with a cone whose tip is cut off where the two touch.
struct Taper {
  Sphere ball;
  Cone cone;
  double lift;  // the cone's cut end lies this much above the ball's tip
  void prepare(const Move& m) { cone.prepare(m); }
  [[nodiscard]] double spread(const Move&, double) const { return 1e300; }
  [[nodiscard]] double reach(double depth) const { return depth > lift ? cone.reach(depth - lift) : ball.reach(depth); }
  [[nodiscard]] double height(const Move& m, double u, double w) const {
    return std::min(ball.height(m, u, w), cone.height(m, u, w) + lift);
  }
};

template <typename Shape>
void sweep(HeightField& field, const Move& m, Shape shape, std::size_t first_row, std::size_t last_row) {
  const double z1 = m.z0 + m.slope * m.len;
  const double lowest = std::min(m.z0, z1);
  if (lowest >= 0) return;
  shape.prepare(m);
  const double reach = shape.reach(-lowest) + 1e-9;
  const double x1 = m.x0 + m.dx * m.len, y1 = m.y0 + m.dy * m.len;
  auto rows = field.rows_in(std::min(m.y0, y1) - reach, std::max(m.y0, y1) + reach);
  rows.begin = std::max(rows.begin, first_row);
  rows.end = std::min(rows.end, last_row);
  for (std::size_t r = rows.begin; r < rows.end; ++r) {
    const double y = field.y_of(r) - m.y0;
    // Only the part of the row within `reach` of the move's line: |w| <= reach with w = dx·y − dy·x.
    double from = std::min(m.x0, x1) - reach, to = std::max(m.x0, x1) + reach;
    if (std::abs(m.dy) > 1e-6) {
      const double a = (m.dx * y - reach) / m.dy + m.x0, b = (m.dx * y + reach) / m.dy + m.x0;
      from = std::max(from, std::min(a, b));
      to = std::min(to, std::max(a, b));
    }
    if (std::abs(m.dx) > 1e-6) {  // between the two ends, with what was left to this move beyond them
      const double a = (-m.before - m.dy * y) / m.dx + m.x0, b = (m.len + m.after - m.dy * y) / m.dx + m.x0;
      from = std::max(from, std::min(a, b));
      to = std::min(to, std::max(a, b));
    } else if (m.dy * y < -m.before || m.dy * y > m.len + m.after) {
      continue;
    }
    if (from > to) continue;
    const auto columns = field.columns_in(from, to);
    float* cells = field.row(r);
    for (std::size_t c = columns.begin; c < columns.end; ++c) {
      const double x = field.x_of(c) - m.x0;
      const double u = x * m.dx + y * m.dy;
      const double w = std::abs(y * m.dx - x * m.dy);
      const auto z = static_cast<float>(shape.height(m, u, w));
      if (z < cells[c]) cells[c] = z;
    }
  }
}

struct Prepared {
  Move move;
  double bottom, top;  // y-range that the move can touch
};

template <typename Shape>
void carve_with(HeightField& field, const std::vector<Pass>& passes, const Shape& shape, const Cancel& cancel) {
  std::vector<Prepared> moves;
  const Box box = field.box();
  // Beyond a joint the next move takes over, but for the wedge that the turn opens and the spread of either move.
  const auto share_joint = [&](Move& one, Move& two, double reach) {
    const double turned = one.dx * two.dx + one.dy * two.dy;  // cosine
    if (one.len <= 0 || two.len <= 0 || turned < 0.3) return;
    const double wedge = reach * std::sqrt(1 - std::min(1.0, turned * turned)) / turned;
    const double keep = wedge + std::max(shape.spread(one, reach), shape.spread(two, reach)) + 1e-6;
    one.after = two.before = keep;
  };
  std::vector<Move> line;
  for (const Pass& pass : passes) {
    line.clear();
    for (std::size_t i = 0; i < pass.points.size(); ++i) {
      if (i == 0 && pass.points.size() > 1) continue;
      line.push_back(make_move(pass.points[i == 0 ? 0 : i - 1], pass.points[i]));
    }
    for (std::size_t i = 1; i < line.size(); ++i) {
      share_joint(line[i - 1], line[i],
                  shape.reach(-std::min({pass.points[i - 1].z, pass.points[i].z, pass.points[i + 1].z})));
    }
    for (std::size_t k = 0; k < line.size(); ++k) {
      const Point3& a = pass.points[k];
      const Point3& b = pass.points[std::min(k + 1, pass.points.size() - 1)];
      const double reach = shape.reach(-std::min(a.z, b.z));
      if (std::max(a.x, b.x) + reach < box.left || std::min(a.x, b.x) - reach > box.right) continue;
      const double bottom = std::min(a.y, b.y) - reach, top = std::max(a.y, b.y) + reach;
      if (top < box.bottom || bottom > box.top) continue;
      moves.push_back({line[k], bottom, top});
    }
  }
  constexpr std::size_t kBand = 32;
  const std::size_t bands = (field.rows() + kBand - 1) / kBand;
  std::vector<std::vector<std::uint32_t>> by_band(bands);
  for (std::size_t i = 0; i < moves.size(); ++i) {
    const auto rows = field.rows_in(moves[i].bottom, moves[i].top);
    if (rows.begin == rows.end) continue;
    for (std::size_t b = rows.begin / kBand; b <= (rows.end - 1) / kBand; ++b) {
      by_band[b].push_back(static_cast<std::uint32_t>(i));
    }
  }
  tbb::parallel_for(
      std::size_t{0}, bands,
      [&](std::size_t b) {
        cancel.check();
        const std::size_t first = b * kBand, last = std::min(field.rows(), first + kBand);
        for (const std::uint32_t i : by_band[b]) sweep(field, moves[i].move, shape, first, last);
      },
      tbb::simple_partitioner());
}

}  // namespace

void carve(HeightField& field, const std::vector<Pass>& passes, const Bit& bit, const Cancel& cancel) {
  const double radius = bit.true_diameter() / 2;
  switch (bit.kind) {
    case BitKind::V:
      carve_with(field, passes, Cone{1 / bit.tan_half(), bit.tip / 2, radius}, cancel);
      break;
    case BitKind::Flat:
      // A wall that runs exactly through a cell's middle leaves that cell standing: the rounding of files decides
      // nothing.
      carve_with(field, passes, Cylinder{radius - 0.0005}, cancel);
      break;
    case BitKind::Ball:
      carve_with(field, passes, Sphere{radius}, cancel);
      break;
    case BitKind::Keyhole: {
      // Seen from above: its head where it goes straight down, its neck where it slides.
      std::vector<Pass> head, neck;
      for (const Pass& pass : passes) {
        for (std::size_t i = 0; i + 1 < pass.points.size(); ++i) {
          const Point3 &a = pass.points[i], &b = pass.points[i + 1];
          (distance(a.flat(), b.flat()) < 1e-6 ? head : neck).push_back({{a, b}});
        }
      }
      carve_with(field, head, Cylinder{radius - 0.0005}, cancel);
      carve_with(field, neck, Cylinder{bit.neck / 2 - 0.0005}, cancel);
      break;
    }
    case BitKind::Taper: {
      const double steep = 1 / bit.tan_half();
      const double ball = bit.tip / 2;
      const double touch = ball * steep / std::sqrt(1 + steep * steep);
      const double lift = ball - std::sqrt(ball * ball - touch * touch);
      carve_with(field, passes, Taper{Sphere{ball}, Cone{steep, touch, radius}, lift}, cancel);
      break;
    }
  }
}

}  // namespace doyen
