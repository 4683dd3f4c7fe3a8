// Hanger slots: a screw's head goes in and slides under the wood.
#include <algorithm>
#include <cmath>

#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/hanger_slot/hanger_slot_parts.hpp"
#include "treatments/hanger_slot/slot_places.hpp"
#include "treatments/making.hpp"
#include "treatments/suits.hpp"
#include "treatments/treatment_fields.hpp"

namespace doyen {
namespace hanger_slot {

void add_choices(Record<Treatment>& all) {
  static const Record<SlotChoices> own = [] {
    Record<SlotChoices> f;
    f.number("slotLength", &SlotChoices::length, {0.5, 500}).always();
    return f;
  }();
  all.within(&Treatment::slot, own, used_by({Treatment::Kind::HangerSlot}));
}

void start(Treatment& t, const LookStart& about) {
  t.back = true;
  if (const Bit* bit = about.rack.find(t.bit); bit != nullptr)
    t.depth = std::min(bit->flute_length, std::round(2 * bit->head_height));
}

// The head goes down through a hole of its own size, slides under the face, comes back and up again.
void cut(const cutting::Piece& piece, PieceCuts& out) {
  const Bit* keyhole = piece.of_kind(BitKind::Keyhole);
  if (keyhole == nullptr) return;
  const std::vector<SlotPlace> slots = slot_places(piece.outlines, piece.cut.slot);
  const double ground = -piece.around.ground.below, floor = ground - piece.cut.depth;
  Operation op = cutting::operation(piece, Operation::Kind::Slot, *keyhole, piece.cut.depth);
  for (const SlotPlace& s : slots) {
    Pass& pass = op.passes.emplace_back();
    pass.points = {{s.hole.x, s.hole.y, ground}, {s.hole.x, s.hole.y, floor}};
    if (distance(s.hole, s.end) > 0.01) {
      pass.points.push_back({s.end.x, s.end.y, floor});
      pass.points.push_back({s.hole.x, s.hole.y, floor});
    }
    out.holes.push_back(s.hole);
  }
  if (op.passes.empty()) return;
  order_passes(op.passes, {0, 0}, false);
  out.deepest = piece.around.ground.below + piece.cut.depth;
  out.deepest_at = slots.front().end;
  out.operations.push_back(std::move(op));
}

void ask(Asking& wood) {
  const Bit* bit = wood.of_kind(BitKind::Keyhole);
  if (bit == nullptr) return;
  Bit head = *bit, neck = *bit;
  head.kind = neck.kind = BitKind::Flat;
  neck.diameter = bit->neck;
  neck.measured_diameter.reset();
  std::vector<Line2> holes, necks;
  for (const SlotPlace& s : slot_places(*wood.piece.outlines, wood.cut.slot)) {
    holes.push_back({wood.place(s.hole)});
    necks.push_back({wood.place(s.hole), wood.place(s.end)});
  }
  if (holes.empty()) return;
  wood.line(holes, wood.cut.depth, head);
  wood.line(necks, wood.cut.depth, neck);
}

}  // namespace hanger_slot

constinit const Look kHangerSlot{
    .kind = Treatment::Kind::HangerSlot,
    .word = "hangerSlot",
    .done = "a hanger slot",
    .asks_depth = true,
    .needs_area = false,
    .in_waste = true,
    .to_back = true,
    .bit = [](const Treatment&) { return WantedBit::Keyhole; },
    .usual_bit =
        [](const Rack& rack) { return nearest_bit(rack, BitKind::Keyhole, [](const Bit& b) { return -b.diameter; }); },
    .fields = hanger_slot::add_choices,
    .start = hanger_slot::start,
    .cut = hanger_slot::cut,
    .ask = hanger_slot::ask,
    .check = check_hanger_slot,
};

}  // namespace doyen
