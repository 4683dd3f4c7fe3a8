// Lines that the bit follows: engraving, hatching.
#include <algorithm>
#include <cmath>

#include "cutting/groove.hpp"
#include "geometry/polyline.hpp"
#include "measure/whole.hpp"
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/making.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace line {

void add_choices(Record<Treatment>& all) {
  static const Record<LineChoices> own = [] {
    using L = LineChoices;
    const auto hatched = [](const L& l) { return !(l == L{}); };
    Record<L> f;
    f.number("hatch", &L::hatch, {0, 1000}).also_when(hatched);
    f.number("hatchAngle", &L::hatch_angle, {-360, 360}).also_when(hatched);
    return f;
  }();
  all.within(&Treatment::line, own, used_by({Treatment::Kind::Line}));
}

// The bit follows stroke lines, and the outlines where there is an inside, level by level at no more than its own step.
std::vector<Pass> follow_lines(std::vector<Line2> lines, const Region& region, double ground, double depth,
                               double step) {
  for (Line2& ring : rings_as_lines(region)) lines.push_back(std::move(ring));
  const int levels = whole_up(depth / std::max(0.05, step) - 1e-9, 1, 100'000);
  std::vector<Pass> passes;
  for (const Line2& line : lines) {
    if (line.empty()) continue;
    const bool closed = line.size() > 2 && line.front() == line.back();
    Pass pass;  // back and forth (or round and round) without a lift
    bool forward = true;
    for (int level = 1; level <= levels; ++level) {
      const double z = ground - depth * level / levels;
      for (std::size_t k = 0; k < line.size(); ++k) {
        const Point& p = line[forward ? k : line.size() - 1 - k];
        const Point3 q{p.x, p.y, z};
        if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
      }
      if (!closed) forward = !forward;
    }
    passes.push_back(std::move(pass));
  }
  order_passes(passes, {0, 0}, false);
  return passes;
}

// Engraving: the lines or outlines followed; or the inside filled with lines at an angle, and its edge followed so far
// inside that nothing passes the outline.
void cut(const cutting::Piece& piece, PieceCuts& out) {
  if (piece.bit == nullptr || piece.bit->kind == BitKind::Keyhole) return;
  const Bit& bit = *piece.bit;
  const Treatment& t = piece.cut;
  std::vector<Line2> lines = piece.outlines.lines;
  Region edge = piece.outlines.region;
  if (t.line.hatch > 0 && !edge.empty()) {
    edge = grow(edge, -bit.half_width_at(t.depth));
    bool forward = true;
    for (Line2& line : hatch(edge, t.line.hatch, piece.cancel, t.line.hatch_angle)) {
      if (!forward) std::reverse(line.begin(), line.end());
      forward = !forward;
      lines.push_back(std::move(line));
    }
    cutting::note_lost(out, lost_in_opening(piece.outlines.region, bit.half_width_at(t.depth)));
  }
  Operation op = cutting::operation(piece, Operation::Kind::Groove, bit, t.depth);
  op.passes = follow_lines(std::move(lines), edge, -out.ground, t.depth, bit.depth_per_pass(piece.wood));
  if (op.passes.empty()) return;
  out.deepest = out.ground + t.depth;
  out.deepest_at = op.passes.front().points.front().flat();
  out.operations.push_back(std::move(op));
}

void ask(Asking& wood) {
  if (wood.bit == nullptr || wood.bit->kind == BitKind::Keyhole) return;
  const double depth = wood.cut.depth;
  if (!wood.lines.empty()) wood.line(wood.lines, depth);
  if (wood.region.empty()) return;
  if (wood.cut.line.hatch <= 0)
    wood.line(rings_as_lines(wood.region), depth);
  else
    wood.hatch(grow(wood.region, -wood.bit->half_width_at(depth)), depth);
}

}  // namespace line

constinit const Look kLine{
    .kind = Treatment::Kind::Line,
    .word = "line",
    .done = "followed as a line",
    .asks_depth = true,
    .needs_area = false,
    .in_waste = true,
    .resin = true,
    .bit = [](const Treatment&) { return WantedBit::Any; },
    .turns = [](const Treatment& t) { return t.line.hatch == 0; },
    .fields = line::add_choices,
    .cut = line::cut,
    .ask = line::ask,
};

}  // namespace doyen
