// Bevelled: a slope along its outline.
#include "cutting/groove.hpp"
#include "cutting/ring_splicer.hpp"
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/making.hpp"
#include "treatments/treatment_fields.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace bevel {

void add_choices(Record<Treatment>& all) {
  static const Record<BevelChoices> own = [] {
    Record<BevelChoices> f;
    f.flag("inside", &BevelChoices::inside).always();
    return f;
  }();
  all.within(&Treatment::bevel, own, used_by({Treatment::Kind::Bevel}));
}

// The tip runs beside the outline by depth · tan(α/2), so that the flank meets the ground on the outline itself and the
// kept face keeps its size. Into corners that it runs round on the inside it rises along their bisector, as a groove
// does: else a round would stay there.
void cut(const cutting::Piece& piece, PieceCuts& out) {
  const Bit* bit = piece.of_kind(BitKind::V);
  if (bit == nullptr) return;
  const Bit& v = *bit;
  const double depth = piece.cut.depth, aside = depth * v.tan_half() + v.tip / 2;
  const double ground = -piece.around.ground.below;
  const Region& outline = piece.outlines.region;
  const Region way = grow(outline, piece.cut.bevel.inside ? -aside : aside, Corner::Sharp);
  const Region beside = piece.cut.bevel.inside ? outline : subtract(grow(outline, 3 * aside + 1), outline);
  if (beside.empty()) return;
  std::vector<Ring> rings;
  for (const Island& island : way.islands) rings.insert(rings.end(), island.rings.begin(), island.rings.end());
  const Groove groove = plan_groove(beside, {v.tan_half(), v.tip, depth}, Threads::All, piece.cancel);
  Operation op = cutting::operation(piece, Operation::Kind::Bevel, v, depth);
  RingSplicer splicer(std::move(rings), ground - depth);
  for (Pass& pass : groove.passes(ground)) {
    if (!splicer.take(pass) && piece.cut.bevel.inside) op.passes.push_back(std::move(pass));
  }
  for (Pass& pass : splicer.finish()) op.passes.push_back(std::move(pass));
  if (op.passes.empty()) return;
  order_passes(op.passes, {0, 0}, false);
  op.passes = in_levels(op.passes, ground, v.depth_per_pass(piece.wood));
  out.deepest = -deepest(op.passes);
  out.deepest_at = op.passes.front().points.front().flat();
  out.operations.push_back(std::move(op));
}

void ask(Asking& wood) {
  if (wood.of_kind(BitKind::V) != nullptr && !wood.region.empty())
    wood.bevel(wood.region, wood.cut.bevel.inside, wood.cut.depth);
}

void check(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const Bit* bit = s.rack.find(item.cut.bit);
  if (bit == nullptr || bit->kind != BitKind::V || item.cut.depth <= bit->body_depth() + 1e-6) return;
  out.push_back({Grade::Stop,
                 "bevel-deeper-than-bit",
                 item.piece.id,
                 at,
                 say("The bevel of {0} is deeper than the {1} cuts.", name, bit->name),
                 say("Its cutting edge ends {0} above the tip.", s.show(bit->body_depth())),
                 {piece.deep(bit->body_depth())}});
}

}  // namespace bevel

constinit const Look kBevel{
    .kind = Treatment::Kind::Bevel,
    .word = "bevel",
    .done = "bevelled",
    .asks_depth = true,
    .starts_deep = true,
    .in_waste = true,
    .on_edge = true,
    .bit = [](const Treatment&) { return WantedBit::V; },
    .turns = [](const Treatment&) { return true; },
    .fields = bevel::add_choices,
    .start = [](Treatment& t, const LookStart&) { t.clearing.clear(); },
    .cut = bevel::cut,
    .ask = bevel::ask,
    .check = bevel::check,
};

}  // namespace doyen
