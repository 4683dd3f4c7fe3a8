// Inlaid: the pocket in this board, and the plug that is cut from another wood.
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/inlay/figures.hpp"
#include "treatments/inlay/inlay_parts.hpp"
#include "treatments/inlay/joint.hpp"
#include "treatments/making.hpp"
#include "treatments/start.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace inlay {

using Kind = Treatment::Kind;

void add_choices(Record<Treatment>& all) {
  static const Record<Inlay> own = [] {
    Record<Inlay> f;
    f.flag("sloped", &Inlay::sloped).always();
    f.number("contact", &Inlay::contact, {0.05, 200}).always();
    f.number("sawGap", &Inlay::saw_gap, {0, 100}).always();
    f.number("allowance", &Inlay::allowance, {0, 5}).always();
    f.number("ease", &Inlay::ease, {0, 20}).always();
    f.text("wood", &Inlay::wood).always();
    f.number("thickness", &Inlay::thickness, {0.5, 300}).always();
    f.flag("crossed", &Inlay::crossed).always();
    f.number("moisture", &Inlay::moisture, {0, 30}).always();
    f.optional("rung", &Inlay::rung, {-50, 50});
    return f;
  }();
  const auto joint = used_by({Kind::Inlay, Kind::Plug});
  all.record("inlay", &Treatment::inlay, own).also_when(joint).used_when(joint);
  all.flag(
         "vAlone", [](auto& t) -> auto& { return t.inlay.v_alone; })
      .used_when(joint);
}

WantedBit bit(const Treatment& t) { return t.inlay.sloped ? WantedBit::V : WantedBit::None; }
bool clears(const Treatment&) { return true; }
bool upright(const Treatment& t) { return !t.inlay.sloped; }

// What the pocket takes away in this board.
void cut_pocket(const cutting::Piece& piece, PieceCuts& out) {
  const Inlay& inlay = piece.cut.inlay;
  const Region art = eased(piece.outlines.region, inlay.ease);
  const Bit* v = piece.of_kind(BitKind::V);
  if (!inlay.sloped)
    cutting::upright_floor(piece, art, piece.cut.depth, out);
  else if (v != nullptr && !art.empty())
    cutting::groove(piece, *v, {.region = art, .limit = piece.cut.depth, .v_alone = inlay.v_alone}, out);
}

void ask_pocket(Asking& wood) {
  const Region art = eased(wood.region, wood.cut.inlay.ease);
  if (wood.cut.inlay.sloped)
    wood.groove(art, wood.cut.depth, 0, wood.below);
  else
    wood.floor(art, wood.cut.depth, wood.below);
}

// The plug's background: an incise of what surrounds the art, whose outline lies `contact` below the face and whose
// floor lies `saw_gap` below that. Its flanks run on upwards to the land, which is smaller than the art (geometry.md).
void cut_plug(const cutting::Piece& piece, PieceCuts& out) {
  const Inlay& inlay = piece.cut.inlay;
  const Region ground = plug_background(piece.outlines.region, inlay, piece.cut.margin);
  const Bit* v = piece.of_kind(BitKind::V);
  if (ground.empty()) return;
  if (!inlay.sloped)
    cutting::upright_floor(piece, ground, inlay.contact + inlay.saw_gap, out);
  else if (v != nullptr)
    cutting::groove(piece, *v,
                    {.region = ground, .limit = inlay.saw_gap, .sunk = inlay.contact, .v_alone = inlay.v_alone}, out);
}

void ask_plug(Asking& wood) {
  const Inlay& inlay = wood.cut.inlay;
  const Region ground = plug_background(wood.region, inlay, wood.cut.margin);
  if (ground.empty()) return;
  if (inlay.sloped)
    wood.groove(ground, inlay.saw_gap, inlay.contact, 0);
  else
    wood.floor(ground, inlay.contact + inlay.saw_gap, 0);
}

void start(Treatment& t, const LookStart& about) {
  t.back = false;  // inlays lie in the front
  t.clearing.clear();
  start_inlay(t, about);
}

}  // namespace inlay

void start_inlay(Treatment& t, const LookStart& about) {
  const Bit* v = about.rack.find(t.bit);
  if (v == nullptr || v->kind != BitKind::V) return;
  const InlayStart start = inlay_start(about.widest_stroke(*v), *v, about.blank, about.lengths);
  t.depth = start.depth;
  t.inlay.contact = start.contact;
  t.inlay.saw_gap = start.saw_gap;
}

constinit const Look kInlay{
    .kind = Treatment::Kind::Inlay,
    .word = "inlay",
    .done = "inlaid",
    .asks_depth = true,
    .takes_area = true,
    .bit = inlay::bit,
    .clears = inlay::clears,
    .upright = inlay::upright,
    .turns = [](const Treatment&) { return true; },
    .fields = inlay::add_choices,
    .start = inlay::start,
    .cut = inlay::cut_pocket,
    .ask = inlay::ask_pocket,
    .check = check_inlay,
};

constinit const Look kPlug{
    .kind = Treatment::Kind::Plug,
    .word = "plug",
    .done = "a plug",
    .chosen = false,
    .asks_depth = true,
    .needs_area = false,
    .bit = inlay::bit,
    .clears = inlay::clears,
    .upright = inlay::upright,
    .floor_depth = [](const Treatment& t) { return t.inlay.contact + t.inlay.saw_gap; },
    .cut = inlay::cut_plug,
    .ask = inlay::ask_plug,
};

}  // namespace doyen
