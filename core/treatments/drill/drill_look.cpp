// Drilled: holes as wide as the bit.
#include <cmath>

#include "cutting/peck.hpp"
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/drill/drill_places.hpp"
#include "treatments/making.hpp"
#include "treatments/suits.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace drill {

constexpr double kUsualDrill = kMmPerInch / 8;  // mm

void add_choices(Record<Treatment>& all) {
  static const Record<DrillChoices> own = [] {
    Record<DrillChoices> f;
    f.number("drillStep", &DrillChoices::peck, {0, 500});
    f.formerly("peck", [](DrillChoices& d, const JsonView& v) {
      if (v.has("peck")) d.peck = v.number("peck", 0, 500);
    });
    f.number("spacing", &DrillChoices::spacing, {0, 5000});
    f.flag("screws", &DrillChoices::screws);
    f.flag("witness", &DrillChoices::witness);
    return f;
  }();
  all.within(&Treatment::drill, own, used_by({Treatment::Kind::Drill}));
}

void cut(const cutting::Piece& piece, PieceCuts& out) {
  if (piece.bit == nullptr || piece.bit->kind == BitKind::Keyhole) return;
  const Bit& bit = *piece.bit;
  out.holes = drill_points(piece.outlines, piece.cut.drill);
  const double ground = -piece.around.ground.below;
  const double peck = piece.cut.drill.peck > 0 ? piece.cut.drill.peck : bit.depth_per_pass(piece.wood);
  Operation op = cutting::operation(piece, piece.cut.drill.witness ? Operation::Kind::Mark : Operation::Kind::Drill,
                                    bit, piece.cut.depth);
  for (const Point& hole : out.holes) op.passes.push_back(pecked(hole, ground, ground - piece.cut.depth, peck));
  if (op.passes.empty()) return;
  order_passes(op.passes, {0, 0}, false);
  out.deepest = piece.around.ground.below + piece.cut.depth;
  out.deepest_at = out.holes.front();
  out.operations.push_back(std::move(op));
}

void ask(Asking& wood) {
  if (wood.bit == nullptr || wood.bit->kind == BitKind::Keyhole) return;
  std::vector<Line2> points;
  for (const Point& p : drill_points(*wood.piece.outlines, wood.cut.drill)) points.push_back({wood.place(p)});
  if (!points.empty()) wood.line(points, wood.cut.depth);
}

}  // namespace drill

constinit const Look kDrill{
    .kind = Treatment::Kind::Drill,
    .word = "drill",
    .done = "drilled",
    .asks_depth = true,
    .starts_deep = true,
    .needs_area = false,
    .in_waste = true,
    .bit = [](const Treatment&) { return WantedBit::Any; },
    .takes = [](const Bit& bit) { return bit.kind != BitKind::V; },  // a V makes no hole that anyone asks for
    .usual_bit =
        [](const Rack& rack) {
          return nearest_bit(rack, BitKind::Flat,
                             [](const Bit& b) { return std::abs(b.diameter - drill::kUsualDrill); });
        },
    .fields = drill::add_choices,
    .cut = drill::cut,
    .ask = drill::ask,
};

}  // namespace doyen
