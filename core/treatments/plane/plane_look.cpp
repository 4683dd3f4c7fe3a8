// Planed: made flat, before everything else.
#include <algorithm>

#include "cutting/proposals.hpp"
#include "treatments/all.hpp"
#include "treatments/asking.hpp"
#include "treatments/making.hpp"

namespace doyen {
namespace plane {

// Beyond the area where there is air or waste, so much that the bit's round leaves nothing standing in its corners; but
// not into wood that is kept.
void cut(const cutting::Piece& piece, PieceCuts& out) {
  if (piece.outlines.region.empty()) return;
  double widest = 0;
  for (const Bit& bit : piece.rack.all()) {
    const bool chosen =
        std::find(piece.cut.clearing.begin(), piece.cut.clearing.end(), bit.id) != piece.cut.clearing.end();
    if (bit.kind == BitKind::Flat && (chosen || piece.cut.clearing.empty()))
      widest = std::max(widest, bit.true_diameter());
  }
  const Region& area_of = piece.outlines.region;
  const Region wide =
      unite(area_of, intersect(grow(area_of, widest / 2 + 0.5, Corner::Sharp), grow(piece.around.open, 0.005)));
  // One bit will do: the largest that is chosen, or that the rack has for this depth.
  Treatment one = piece.cut;
  if (one.clearing.empty()) {
    const auto proposed = propose_clearing(wide, piece.cut.depth, piece.rack, piece.wood, piece.cancel, false);
    if (!proposed.empty()) one.clearing = {proposed.front().bit};
  }
  cutting::upright_floor(piece.with(one), wide, piece.cut.depth, out);
  for (Operation& op : out.operations) op.kind = Operation::Kind::Plane;
  if (out.bits.empty()) return;
  cutting::note_lost(out, subtract(piece.outlines.region,
                                   grow(opening(wide, piece.rack.find(out.bits.back())->true_diameter() / 2), 0.003)));
}

void ask(Asking& wood) { wood.floor(wood.region, wood.cut.depth, wood.below); }

}  // namespace plane

constinit const Look kPlane{
    .kind = Treatment::Kind::Plane,
    .word = "plane",
    .done = "planed",
    .ground = true,
    .asks_depth = true,
    .starts_deep = true,
    .clears = [](const Treatment&) { return true; },
    .cut = plane::cut,
    .ask = plane::ask,
};

}  // namespace doyen
