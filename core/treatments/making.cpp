// What the looks make operations with; grooves have a file of their own.
#include <algorithm>
#include <cmath>

#include "cutting/clearing.hpp"
#include "cutting/proposals.hpp"
#include "geometry/polyline.hpp"
#include "treatments/making.hpp"
#include "treatments/suits.hpp"

namespace doyen::cutting {

std::vector<const Bit*> clearing_large_first(const Piece& piece) {
  std::vector<const Bit*> bits;
  for (const BitId& id : piece.cut.clearing) {
    const Bit* bit = piece.rack.find(id);
    if (bit != nullptr && clears(*bit, piece.cut, piece.bit)) bits.push_back(bit);
  }
  std::sort(bits.begin(), bits.end(), [](const Bit* a, const Bit* b) { return a->levels() > b->levels(); });
  return bits;
}

Operation operation(const Piece& piece, Operation::Kind kind, const Bit& bit, double depth) {
  Operation op;
  op.kind = kind;
  op.piece = piece.id;
  op.bit = bit.id;
  op.treatment = to_word(piece.cut.kind);
  op.ground = piece.around.ground.below == 0 ? 0 : -piece.around.ground.below;
  op.depth = depth;
  return op;
}

Region without_dust(Region region) {
  std::erase_if(region.islands, [](const Island& i) { return area(Region{{i}}) < 1e-3; });
  return region;
}

namespace {
Unreached unreached_of(const Region& lost) {
  Unreached out;
  double largest = 0;
  for (const Island& island : lost.islands) {
    double a = 0, edge = 0;
    for (const Ring& ring : island.rings) {
      a += signed_area(ring);
      for (std::size_t i = 0; i < ring.size(); ++i) edge += distance(ring[i], ring[(i + 1) % ring.size()]);
    }
    out.area += a;
    if (a > largest) {
      largest = a;
      out.at = bounds(island).centre();
      out.width = edge > 0 ? 2 * a / edge : 0;
    }
  }
  return out;
}
}  // namespace

void note_lost(PieceCuts& out, const Region& lost) {
  out.lost = without_dust(lost);
  out.unreached = unreached_of(out.lost);
}

namespace {
ClearingShape clearing_shape(const Piece& piece, const Bit& bit, double depth) {
  const Moves& moves = piece.cut.moves;
  ClearingShape shape;
  shape.diameter = bit.levels();
  if (bit.kind == BitKind::V) shape.lean = depth * bit.tan_half();
  shape.stepover = moves.stepover;
  shape.ground = -piece.around.ground.below;
  shape.floor = shape.ground - depth;
  shape.depth_per_pass = bit.depth_per_pass(piece.wood);
  shape.way = moves.way;
  shape.entry = moves.entry;
  shape.ramp_slope = moves.ramp;
  shape.climb = moves.climb;
  const bool grain_along_x = piece.blank.grain == Grain::AlongWidth;
  shape.row_angle = (moves.way == Moves::Way::AlongGrain) == grain_along_x ? 0 : 90;
  return shape;
}
}  // namespace

namespace {
// What is left to take of a floor whose walls still have `leave_on` mm on them: slots that only the bit itself fits
// into, then the last clean pass along every wall.
std::vector<Pass> walls_to_clean(const Region& floor, const Region& rough, double leave_on, const ClearingShape& shape,
                                 const Cancel& cancel) {
  const Region done = grow(opening(rough, shape.diameter / 2), leave_on + 0.01);
  ClearingShape thorough = shape;
  thorough.least = 1e-4;  // whatever is missed here the clean pass would take at once
  thorough.all_gone = false;
  std::vector<Pass> out = clear_floor(floor, done, thorough, cancel);
  for (Pass& pass : clean_walls(floor, shape, leave_on)) out.push_back(std::move(pass));
  return out;
}
}  // namespace

void clear_with(const Piece& piece, const DrawnIn& floor, double depth, bool propose, PieceCuts& out,
                const WithCleared& with_cleared) {
  std::vector<const Bit*> bits = clearing_large_first(piece);
  if (bits.empty() && propose) {
    for (const ProposedBit& p :
         propose_clearing(floor.floor(), depth, piece.rack, piece.wood, piece.cancel, upright_walls(piece.cut)))
      bits.push_back(piece.rack.find(p.bit));
  }
  if (bits.empty()) return;
  std::vector<ClearingShape> shapes;
  for (const Bit* bit : bits) shapes.push_back(clearing_shape(piece, *bit, depth));
  const double leave_on = upright_walls(piece.cut) ? piece.cut.moves.leave_on : 0;
  std::vector<std::vector<Pass>> passes;
  if (leave_on > 0) {
    const DrawnIn rough(floor.by(leave_on));
    passes = clear_in_turn(rough, shapes, piece.cancel);
    for (Pass& pass : walls_to_clean(floor.floor(), rough.floor(), leave_on, shapes.back(), piece.cancel))
      passes.back().push_back(std::move(pass));
    if (with_cleared.work)
      with_cleared.work(grow(opening(floor.floor(), shapes.back().diameter / 2), with_cleared.beyond));
  } else {
    passes = clear_in_turn(floor, shapes, piece.cancel, with_cleared);
  }
  for (std::size_t i = 0; i < bits.size(); ++i) {
    if (passes[i].empty()) continue;
    Operation op = operation(piece, Operation::Kind::Clear, *bits[i], depth);
    op.passes = std::move(passes[i]);
    out.bits.push_back(bits[i]->id);
    out.operations.push_back(std::move(op));
  }
}

void upright_floor(const Piece& piece, const Region& region, double depth, PieceCuts& out) {
  clear_with(piece, DrawnIn(region), depth, true, out);
  out.floor = region;
  out.limit = depth;
  out.deepest = piece.around.ground.below + depth;
  out.deepest_at = region.empty() ? Point{} : bounds(region.islands.front()).centre();
  if (out.bits.empty()) return;
  const Bit* smallest = piece.rack.find(out.bits.back());
  note_lost(out, lost_in_opening(region, smallest->true_diameter() / 2));
}

}  // namespace doyen::cutting
