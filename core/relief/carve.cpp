#include "relief/carve.hpp"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <type_traits>
#include <variant>

#include "relief/cone_row.hpp"

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

// Shapes whose heights are worked out a row of cells at a time; false where it must be cell by cell.
template <typename Shape>
struct InRows {
  InRows(const HeightField&, const Move&, const Shape&) {}
  template <typename Take>
  bool take(std::size_t, std::size_t, double, Take) const {
    return false;
  }
};
template <>
struct InRows<Cone> {
  InRows(const HeightField& field, const Move& m, const Cone& cone)
      : left(field.box().left),
        cell(field.cell()),
        move{m.x0, m.y0, m.z0, m.dx, m.dy, m.len, m.slope, cone.steep, cone.shift, cone.body},
        can(cone.tip_radius == 0 && !cone.runaway) {}
  template <typename Take>
  bool take(std::size_t begin, std::size_t end, double y, Take take) const {
    std::array<float, 512> heights;
    if (!can || end - begin < 4 || end - begin > heights.size()) return false;
    const ConeRow row{left, cell, static_cast<int>(begin), static_cast<int>(end - begin), y};
    if (!cone_row(move, row, heights.data())) return false;
    for (std::size_t c = begin; c < end; ++c) take(c, heights[c - begin]);
    return true;
  }
  double left, cell;
  ConeMove move;
  bool can;
};

// What nobody watches.
struct Unwatched {
  void cell(std::size_t, float, float) const {}
};

// From where to where a row, `y` mm from the move's start, can be touched by it: x in mm; none where they come the
// other way round.
std::pair<double, double> near_move(const Move& m, double y, double reach) {
  const double x1 = m.x0 + m.dx * m.len;
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
    return {1, 0};
  }
  return {from, to};
}

template <typename Shape, typename Watch>
void sweep(HeightField& field, const Move& m, Shape shape, std::size_t first_row, std::size_t last_row, Watch& watch) {
  const double z1 = m.z0 + m.slope * m.len;
  const double lowest = std::min(m.z0, z1);
  if (lowest >= 0) return;
  shape.prepare(m);
  const InRows<Shape> in_rows(field, m, shape);
  const double reach = shape.reach(-lowest) + 1e-9;
  const double y1 = m.y0 + m.dy * m.len;
  auto rows = field.rows_in(std::min(m.y0, y1) - reach, std::max(m.y0, y1) + reach);
  rows.begin = std::max(rows.begin, first_row);
  rows.end = std::min(rows.end, last_row);
  for (std::size_t r = rows.begin; r < rows.end; ++r) {
    const double y = field.y_of(r) - m.y0;
    const auto [from, to] = near_move(m, y, reach);
    if (from > to) continue;
    const auto columns = field.columns_in(from, to);
    float* cells = field.row(r);
    const auto take = [&](std::size_t c, float z) {
      if constexpr (std::is_same_v<Watch, Unwatched>) {
        cells[c] = z < cells[c] ? z : cells[c];  // with nothing to branch for, several at a time
      } else {
        if (z >= cells[c]) return;
        watch.cell(r * field.columns() + c, cells[c], z);
        cells[c] = z;
      }
    };
    if (in_rows.take(columns.begin, columns.end, y, take)) continue;
    for (std::size_t c = columns.begin; c < columns.end; ++c) {
      const double x = field.x_of(c) - m.x0;
      const double u = x * m.dx + y * m.dy;
      const double w = std::abs(y * m.dx - x * m.dy);
      take(c, static_cast<float>(shape.height(m, u, w)));
    }
  }
}

using Shape = std::variant<Cone, Cylinder, Sphere, Taper>;

Shape shape_of(const Bit& bit) {
  const double radius = bit.true_diameter() / 2;
  switch (bit.kind) {
    case BitKind::V:
      return Cone{1 / bit.tan_half(), bit.tip / 2, radius};
    case BitKind::Ball:
      return Sphere{radius};
    case BitKind::Taper: {
      const Bit::BallEnd end = bit.ball_end();
      return Taper{Sphere{end.radius}, Cone{1 / bit.tan_half(), end.touch, radius}, end.height};
    }
    case BitKind::Flat:
    case BitKind::Keyhole:
      break;
  }
  // A wall that runs exactly through a cell's middle leaves that cell standing: the rounding of files decides nothing.
  return Cylinder{radius - 0.0005};
}

}  // namespace

struct PreparedCut::Impl {
  struct One {
    Move move;
    Box box;  // what it can touch
    MoveOf of;
    bool neck = false;  // of keyhole bits: the neck's, seen from above
  };
  Shape shape, neck;
  std::vector<One> moves;

  // `box`: only what can touch it is kept.
  void add(const Pass& pass, std::uint32_t index, const Shape& with, bool is_neck, const Box* box) {
    std::visit([&](const auto& shape_now) { add_with(pass, index, shape_now, is_neck, box); }, with);
  }

  template <typename S>
  void add_with(const Pass& pass, std::uint32_t index, const S& with, bool is_neck, const Box* box) {
    // Beyond a joint the next move takes over, but for the wedge that the turn opens and the spread of either move.
    const auto share_joint = [&](Move& one, Move& two, double reach) {
      const double turned = one.dx * two.dx + one.dy * two.dy;  // cosine
      if (one.len <= 0 || two.len <= 0 || turned < 0.3) return;
      const double wedge = reach * std::sqrt(1 - std::min(1.0, turned * turned)) / turned;
      const double keep = wedge + std::max(with.spread(one, reach), with.spread(two, reach)) + 1e-6;
      one.after = two.before = keep;
    };
    std::vector<Move> line;
    line.reserve(pass.points.size());
    for (std::size_t i = 0; i < pass.points.size(); ++i) {
      if (i == 0 && pass.points.size() > 1) continue;
      line.push_back(make_move(pass.points[i == 0 ? 0 : i - 1], pass.points[i]));
    }
    for (std::size_t i = 1; i < line.size(); ++i) {
      share_joint(line[i - 1], line[i],
                  with.reach(-std::min({pass.points[i - 1].z, pass.points[i].z, pass.points[i + 1].z})));
    }
    for (std::size_t k = 0; k < line.size(); ++k) {
      const Point3& a = pass.points[k];
      const Point3& b = pass.points[std::min(k + 1, pass.points.size() - 1)];
      if (std::min(a.z, b.z) >= 0) continue;
      const double reach = with.reach(-std::min(a.z, b.z));
      const Box own{std::min(a.x, b.x) - reach, std::min(a.y, b.y) - reach, std::max(a.x, b.x) + reach,
                    std::max(a.y, b.y) + reach};
      if (box != nullptr && !own.meets(*box)) continue;
      moves.push_back({line[k], own, {index, static_cast<std::uint32_t>(k)}, is_neck});
    }
  }
};

PreparedCut::PreparedCut(const std::vector<Pass>& passes, const Bit& bit, const Box* box)
    : impl_(std::make_unique<Impl>()) {
  impl_->shape = shape_of(bit);
  impl_->neck = Cylinder{std::max(0.001, bit.neck / 2 - 0.0005)};
  for (std::size_t p = 0; p < passes.size(); ++p) {
    const auto index = static_cast<std::uint32_t>(p);
    if (bit.kind != BitKind::Keyhole) {
      impl_->add(passes[p], index, impl_->shape, false, box);
      continue;
    }
    // Seen from above: its head where it goes straight down, its neck where it slides.
    for (std::size_t i = 0; i + 1 < passes[p].points.size(); ++i) {
      const Point3 &a = passes[p].points[i], &b = passes[p].points[i + 1];
      const bool down = distance(a.flat(), b.flat()) < 1e-6;
      impl_->add({{a, b}}, index, down ? impl_->shape : impl_->neck, !down, box);
    }
  }
}

PreparedCut::~PreparedCut() = default;
PreparedCut::PreparedCut(PreparedCut&&) noexcept = default;
PreparedCut& PreparedCut::operator=(PreparedCut&&) noexcept = default;

std::size_t PreparedCut::size() const { return impl_->moves.size(); }
const Box& PreparedCut::box(std::size_t move) const { return impl_->moves[move].box; }
double PreparedCut::length_in(std::size_t move, const Box& box) const {
  const Move& m = impl_->moves[move].move;
  double from = 0, to = m.len;
  const auto keep = [&](double start, double way, double least, double most) {
    if (std::abs(way) < 1e-12) {
      if (start < least || start > most) to = from;
      return;
    }
    const double a = (least - start) / way, b = (most - start) / way;
    from = std::max(from, std::min(a, b));
    to = std::min(to, std::max(a, b));
  };
  keep(m.x0, m.dx, box.left, box.right);
  keep(m.y0, m.dy, box.bottom, box.top);
  return std::max(0.0, to - from);
}
PreparedCut::MoveOf PreparedCut::of(std::size_t move) const { return impl_->moves[move].of; }

void PreparedCut::carve(HeightField& field, std::size_t move, std::size_t first_row, std::size_t last_row) const {
  const Impl::One& one = impl_->moves[move];
  Unwatched nobody;
  std::visit([&](const auto& shape) { sweep(field, one.move, shape, first_row, last_row, nobody); },
             one.neck ? impl_->neck : impl_->shape);
}

namespace {

struct Watching {
  CarveWatch& out;
  float top;  // the move's higher end
  void cell(std::size_t at, float before, float after) const {
    const float taken = before - after;
    out.by[at] = out.operation;
    if (taken > out.limit) ++out.over;
    if (taken > out.taken) {
      out.taken = taken;
      out.taken_at = at;
    }
    if (taken > kShaving && before - top > out.above_tip) {
      out.above_tip = before - top;
      out.above_at = at;
    }
  }
  static constexpr float kShaving = 0.02F;  // mm: less rubs off unnoticed
};

}  // namespace

void PreparedCut::carve_watched(HeightField& field, std::size_t move, CarveWatch& watch) const {
  const Impl::One& one = impl_->moves[move];
  Watching eye{watch, static_cast<float>(std::max(one.move.z0, one.move.z0 + one.move.slope * one.move.len))};
  std::visit([&](const auto& shape) { sweep(field, one.move, shape, 0, field.rows(), eye); },
             one.neck ? impl_->neck : impl_->shape);
}

void carve(HeightField& field, const std::vector<Pass>& passes, const Bit& bit, const Cancel& cancel) {
  const Box whole = field.box();
  const PreparedCut cut(passes, bit, &whole);
  constexpr std::size_t kBand = 32;
  const std::size_t bands = (field.rows() + kBand - 1) / kBand;
  std::vector<std::vector<std::uint32_t>> by_band(bands);
  for (std::size_t i = 0; i < cut.size(); ++i) {
    const auto rows = field.rows_in(cut.box(i).bottom, cut.box(i).top);
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
        for (const std::uint32_t i : by_band[b]) cut.carve(field, i, first, last);
      },
      tbb::simple_partitioner());
}

}  // namespace doyen
