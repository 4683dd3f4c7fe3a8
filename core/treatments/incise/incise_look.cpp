// Incised: a V-groove inside an outline, to where its flanks meet or to a flat floor.
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/making.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace incise {

void add_choices(Record<Treatment>& all) {
  static const Record<InciseChoices> own = [] {
    Record<InciseChoices> f;
    f.optional("floorLimit", &InciseChoices::floor_limit, {0.01, 1000});
    return f;
  }();
  all.within(&Treatment::incise, own, used_by({Treatment::Kind::Incise}));
}

void cut(const cutting::Piece& piece, PieceCuts& out) {
  const Bit* v = piece.of_kind(BitKind::V);
  if (v == nullptr || piece.outlines.region.empty()) return;
  const double limit = piece.cut.incise.floor_limit.value_or(std::numeric_limits<double>::infinity());
  cutting::groove(piece, *v, {.region = piece.outlines.region, .limit = limit, .propose = false}, out);
}

void ask(Asking& wood) {
  wood.groove(wood.region, wood.cut.incise.floor_limit.value_or(std::numeric_limits<double>::infinity()), 0,
              wood.below);
}

}  // namespace incise

constinit const Look kIncise{
    .kind = Treatment::Kind::Incise,
    .word = "incise",
    .done = "incised",
    .takes_area = true,
    .resin = true,
    .bit = [](const Treatment&) { return WantedBit::V; },
    .clears = [](const Treatment& t) { return t.incise.floor_limit.has_value(); },
    .floor_depth = [](const Treatment& t) { return t.incise.floor_limit.value_or(0); },
    .turns = [](const Treatment&) { return true; },
    .fields = incise::add_choices,
    .cut = incise::cut,
    .ask = incise::ask,
};

}  // namespace doyen
