// How openings are pierced: plunged, cleared, or cut round.
#include <algorithm>
#include <cmath>

#include "cutting/clearing.hpp"
#include "cutting/peck.hpp"
#include "geometry/polyline.hpp"
#include "treatments/pierce/pierce_parts.hpp"
#include "treatments/through/through_cut.hpp"

namespace doyen {
namespace {

// A round hole of the bit's own size: a plunge makes it.
bool fits_the_bit(const Island& island, double radius) {
  constexpr double kOff = 0.02;  // mm of radius
  if (island.rings.size() != 1) return false;
  const Point middle = centroid(Region{{island}});
  return std::all_of(island.rings.front().begin(), island.rings.front().end(),
                     [&](Point p) { return std::abs(distance(p, middle) - radius) < kOff; });
}

// Larger bits first, each where it gets in; what they leave, and every wall they do not reach, is the own bit's.
void clear_openings(const cutting::Piece& piece, const Bit& own, const Region& openings, const CutOutShape& shape,
                    PieceCuts& out) {
  std::vector<const Bit*> bits = cutting::clearing_large_first(piece);
  std::erase_if(bits, [&](const Bit* bit) { return bit->true_diameter() <= own.true_diameter() + 0.01; });
  bits.push_back(&own);
  std::vector<ClearingShape> shapes;
  for (const Bit* bit : bits) {
    ClearingShape& clearing = shapes.emplace_back();
    clearing.diameter = bit->true_diameter();
    clearing.stepover = piece.cut.moves.stepover;
    clearing.floor = -(shape.thickness + shape.over_cut);
    clearing.depth_per_pass = bit->depth_per_pass(piece.wood);
    clearing.way = piece.cut.moves.way;
    const bool grain_along_x = piece.blank.grain == Grain::AlongWidth;
    clearing.row_angle = (clearing.way == Moves::Way::AlongGrain) == grain_along_x ? 0 : 90;
    clearing.entry = piece.cut.moves.entry;
    clearing.ramp_slope = piece.cut.moves.ramp;
    clearing.climb = shape.climb;
  }
  std::vector<std::vector<Pass>> passes = clear_in_turn(DrawnIn(openings), shapes, piece.cancel);
  for (std::size_t i = 0; i < bits.size(); ++i) {
    Operation op = cutting::through_operation(piece, Operation::Kind::Pierce, *bits[i], shape);
    op.passes = std::move(passes[i]);
    if (!op.passes.empty()) out.operations.push_back(std::move(op));
  }
}

}  // namespace

// The waste of each opening falls out whole where that was asked for and it is larger than the bit's own way round it;
// everything else is cleared.
void cut_pierce(const cutting::Piece& piece, PieceCuts& out) {
  const Bit* bit = piece.of_kind(BitKind::Flat);
  if (bit == nullptr) return;
  const Bit& flat = *bit;
  Region region = piece.outlines.region;
  if (piece.around.grown < 0) region = grow(region, piece.around.grown, Corner::Sharp);
  if (region.empty()) return;
  const CutOutShape shape = cutting::through_shape(piece, flat);
  Region slugs, cleared;
  std::vector<int> slug_of;  // the slugs' places among the piece's islands, which tabs count by
  for (std::size_t i = 0; i < region.islands.size(); ++i) {
    const bool falls = piece.cut.pierce.slug && !grow(Region{{region.islands[i]}}, -1.5 * shape.diameter).empty();
    (falls ? slugs : cleared).islands.push_back(region.islands[i]);
    if (falls) slug_of.push_back(static_cast<int>(i));
  }
  const double depth = shape.thickness + shape.over_cut;
  Operation plunges = cutting::through_operation(piece, Operation::Kind::Pierce, flat, shape);
  std::erase_if(cleared.islands, [&](const Island& island) {
    if (!flat.centre_cutting || !fits_the_bit(island, shape.diameter / 2)) return false;
    plunges.passes.push_back(pecked(centroid(Region{{island}}), 0, -depth, shape.depth_per_pass));
    std::erase_if(region.islands, [&](const Island& i) { return i.rings == island.rings; });
    return true;
  });
  if (!plunges.passes.empty()) {
    order_passes(plunges.passes, {0, 0}, false);
    out.operations.push_back(std::move(plunges));
  }
  if (!cleared.empty()) clear_openings(piece, flat, cleared, shape, out);
  if (!slugs.empty()) {
    CutOutShape inside = shape;
    inside.inside = true;
    for (TabPlace& place : inside.tabs.placed) {
      const auto at = std::find(slug_of.begin(), slug_of.end(), place.island);
      place.island = at == slug_of.end() ? -1 : static_cast<int>(at - slug_of.begin());
    }
    out.cut_out = plan_cut_out(slugs, inside, piece.cancel);
    for (PlacedTab& tab : out.cut_out->tabs) tab.place.island = slug_of[static_cast<std::size_t>(tab.place.island)];
    if (!out.cut_out->passes.empty()) {
      Operation op = cutting::through_operation(piece, Operation::Kind::Pierce, flat, shape);
      op.passes = out.cut_out->passes;
      out.operations.push_back(std::move(op));
    }
  }
  cutting::finish_through(shape, out);
  cutting::note_lost(out, lost_in_opening(region, shape.diameter / 2));
}

}  // namespace doyen
