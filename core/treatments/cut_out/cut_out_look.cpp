// Cut out: right through, outside the line, held by tabs.
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/cut_out/cut_out.hpp"
#include "treatments/through/through_cut.hpp"
#include "treatments/through/through_look.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {

Region cut_out_body(const Region& outline, double grown) {
  return grown > 0 ? grow(outline, grown, Corner::Sharp) : outline;
}

namespace {

// What both looks that go through are asked is listed here once.
void add_choices(Record<Treatment>& all) {
  all.within(&Treatment::through, through_fields(), [](const Treatment& t) { return goes_through(t.kind); });
}

void cut(const cutting::Piece& piece, PieceCuts& out) {
  const Bit* bit = piece.of_kind(BitKind::Flat);
  if (bit == nullptr || piece.outlines.region.empty()) return;
  const Bit& flat = *bit;
  const Region body = cut_out_body(piece.outlines.region, piece.around.grown);
  const CutOutShape shape = cutting::through_shape(piece, flat);
  out.cut_out = plan_cut_out(body, shape, piece.cancel);
  if (!out.cut_out->passes.empty()) {
    Operation op = cutting::through_operation(piece, Operation::Kind::Profile, flat, shape);
    op.passes = out.cut_out->passes;
    out.operations.push_back(std::move(op));
  }
  cutting::finish_through(shape, out);
  const Region kept = grow(grow(body, shape.diameter / 2), -shape.diameter / 2);
  cutting::note_lost(out, subtract(kept, grow(body, 0.01)));
}

void ask(Asking& wood) {
  if (wood.of_kind(BitKind::Flat) == nullptr || wood.region.empty()) return;
  wood.slit(cut_out_body(wood.region, wood.piece.around->grown), false);
}

}  // namespace

constinit const Look kCutOut{
    .kind = Treatment::Kind::CutOut,
    .word = "cutout",
    .done = "cut out",
    .through = true,
    .on_edge = true,
    .bit = [](const Treatment&) { return WantedBit::Flat; },
    .fields = add_choices,
    .start = start_through,
    .cut = cut,
    .ask = ask,
    .check = check_through,
};

}  // namespace doyen
