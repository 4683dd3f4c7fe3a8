// Recessed: a flat floor inside its outline, for an insert where there is one.
#include "cutting/proposals.hpp"
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/making.hpp"
#include "treatments/recess/recess_shape.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace recess {

void add_choices(Record<Treatment>& all) {
  static const Record<Insert> insert = [] {
    using C = Insert::Corners;
    Record<Insert> f;
    f.number("thickness", &Insert::thickness, {0, 500}).needed();
    f.number("clearance", &Insert::clearance, {0, 50}).always();
    f.number("cover", &Insert::cover, {0, 500}).always();
    f.number("notch", &Insert::notch, {0, 500}).always();
    f.choice("corners", &Insert::corners, Words<C>{{"plain", C::Plain}, {"round", C::Round}, {"slot", C::Slot}})
        .always();
    f.flag("cut", &Insert::cut);
    f.text("material", &Insert::material).also_when([](const Insert& i) { return i.cut; });
    return f;
  }();
  all.record("insert", &Treatment::insert, insert).used_when(used_by({Treatment::Kind::Recess}));
}

void cut(const cutting::Piece& piece, PieceCuts& out) {
  const double depth = floor_depth(piece.cut);
  double corner_radius = 0;
  if (relieves_corners(piece.cut.insert)) {
    // By the smallest of the chosen bits, or of those that would be proposed for the floor as it is.
    std::vector<const Bit*> bits = cutting::clearing_large_first(piece);
    if (bits.empty()) {
      const Region plain = recess_shape(piece.outlines.region, piece.cut.insert, piece.around.grown, 0);
      for (const ProposedBit& p : propose_clearing(plain, depth, piece.rack, piece.wood, piece.cancel, true))
        bits.push_back(piece.rack.find(p.bit));
    }
    if (!bits.empty()) corner_radius = bits.back()->true_diameter() / 2;
  }
  const Region region = recess_shape(piece.outlines.region, piece.cut.insert, piece.around.grown, corner_radius);
  if (!region.empty()) cutting::upright_floor(piece, region, depth, out);
}

void ask(Asking& wood) {
  wood.floor(recess_shape(wood.region, wood.cut.insert, wood.piece.around->grown, wood.piece.smallest_flat / 2),
             floor_depth(wood.cut), wood.below);
}

}  // namespace recess

constinit const Look kRecess{
    .kind = Treatment::Kind::Recess,
    .word = "recess",
    .done = "recessed",
    .ground = true,
    .asks_depth = true,
    .starts_deep = true,
    .takes_area = true,
    .resin = true,
    .clears = [](const Treatment&) { return true; },
    .upright = [](const Treatment&) { return true; },
    .floor_depth =
        [](const Treatment& t) { return t.insert.thickness > 0 ? t.insert.thickness + t.insert.cover : t.depth; },
    .turns = [](const Treatment& t) { return t.insert.notch == 0; },  // a notch is in front
    .fields = recess::add_choices,
    .cut = recess::cut,
    .ask = recess::ask,
};

}  // namespace doyen
