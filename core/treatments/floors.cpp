// Floors with upright walls: recesses with or without an insert, raised shapes' ground, planed areas, pierced openings.
#include <algorithm>
#include <cmath>

#include "cutting/clearing.hpp"
#include "cutting/proposals.hpp"
#include "geometry/polyline.hpp"
#include "treatments/making.hpp"
#include "treatments/recess/recess_shape.hpp"

namespace doyen::cutting {
namespace {

std::vector<const Bit*> flat_bits_large_first(const std::vector<std::string>& ids, const AskedRack& rack) {
  std::vector<const Bit*> bits;
  for (const std::string& id : ids) {
    const Bit* bit = rack.find(id);
    if (bit != nullptr && bit->kind == BitKind::Flat) bits.push_back(bit);
  }
  std::sort(bits.begin(), bits.end(),
            [](const Bit* a, const Bit* b) { return a->true_diameter() > b->true_diameter(); });
  return bits;
}

}  // namespace

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

Region clear_with(const Piece& piece, const Region& floor, double depth, bool propose, PieceCuts& out) {
  std::vector<const Bit*> bits = flat_bits_large_first(piece.cut.clearing, piece.rack);
  if (bits.empty() && propose) {
    for (const ProposedBit& p :
         propose_clearing(floor, depth, piece.rack, piece.wood, piece.cancel, upright_walls(piece.cut)))
      bits.push_back(piece.rack.find(p.bit));
  }
  const Moves& moves = piece.cut.moves;
  const double leave_on = upright_walls(piece.cut) ? moves.leave_on : 0;
  const Region rough = leave_on > 0 ? grow(floor, -leave_on) : Region{};
  Region cleared;
  for (const Bit* bit : bits) {
    ClearingShape shape;
    shape.diameter = bit->true_diameter();
    shape.stepover = moves.stepover;
    shape.ground = -piece.around.ground.below;
    shape.floor = shape.ground - depth;
    shape.depth_per_pass = bit->depth_per_pass(piece.wood);
    shape.way = moves.way;
    shape.entry = moves.entry;
    shape.climb = moves.climb;
    const bool grain_along_x = piece.blank.grain == Grain::AlongWidth;
    shape.row_angle = (moves.way == Moves::Way::AlongGrain) == grain_along_x ? 0 : 90;
    Operation op = operation(
        piece, piece.cut.kind == Treatment::Kind::Plane ? Operation::Kind::Plane : Operation::Kind::Clear, *bit, depth);
    if (leave_on > 0) {
      op.passes = clear_floor(rough, cleared, shape, piece.cancel);
      if (bit == bits.back()) {
        // Slots that only the bit itself fits into, then the last clean pass along every wall.
        const Region done = grow(opening(rough, shape.diameter / 2), leave_on + 0.01);
        ClearingShape thorough = shape;
        thorough.least = 1e-4;  // whatever is missed here the clean pass would take at once
        for (Pass& pass : clear_floor(floor, done, thorough, piece.cancel)) op.passes.push_back(std::move(pass));
        for (Pass& pass : clean_walls(floor, shape, leave_on)) op.passes.push_back(std::move(pass));
      }
      cleared = opening(bit == bits.back() ? floor : rough, shape.diameter / 2);
    } else {
      Region reached;
      op.passes = clear_floor(floor, cleared, shape, piece.cancel, &reached);
      cleared = std::move(reached);  // what larger bits swept lies within it
    }
    if (op.passes.empty()) continue;
    out.bits.push_back(bit->id);
    out.operations.push_back(std::move(op));
  }
  return cleared;
}

void upright_floor(const Piece& piece, const Region& region, double depth, PieceCuts& out) {
  clear_with(piece, region, depth, true, out);
  out.floor = region;
  out.limit = depth;
  out.deepest = piece.around.ground.below + depth;
  out.deepest_at = region.empty() ? Point{} : bounds(region.islands.front()).centre();
  if (out.bits.empty()) return;
  const Bit* smallest = piece.rack.find(out.bits.back());
  note_lost(out, lost_in_opening(region, smallest->true_diameter() / 2));
}

void terraces(const Piece& piece, double flank_run, PieceCuts& out,
              const std::function<void(const Piece&, const Region&, double depth, PieceCuts&)>& step) {
  const int n = piece.cut.steps;
  const double each = piece.cut.depth / n;
  if (piece.cut.clearing.empty()) {  // what is proposed for one step is used for all: each goes as far as the others
    Treatment chosen = piece.cut;
    chosen.clearing.clear();
    for (const ProposedBit& p : propose_clearing(piece.around.sunk, piece.cut.depth, piece.rack, piece.wood,
                                                 piece.cancel, upright_walls(piece.cut)))
      chosen.clearing.push_back(p.bit);
    const Piece with{piece.id, piece.outlines, chosen, piece.blank, piece.rack, piece.cancel, piece.around, piece.wood};
    if (!chosen.clearing.empty()) return terraces(with, flank_run, out, step);
  }
  Region region = piece.around.sunk;
  for (int k = 0; k < n && !region.empty(); ++k) {
    Surroundings around = piece.around;
    around.ground.below += k * each;
    const Piece one{piece.id, piece.outlines, piece.cut, piece.blank, piece.rack, piece.cancel, around, piece.wood};
    PieceCuts part;
    step(one, region, each, part);
    for (Operation& op : part.operations) out.operations.push_back(std::move(op));
    for (const std::string& bit : part.bits) {
      if (std::find(out.bits.begin(), out.bits.end(), bit) == out.bits.end()) out.bits.push_back(bit);
    }
    out.floor = std::move(part.floor);
    out.floor_by_v += part.floor_by_v;
    out.lost.islands.insert(out.lost.islands.end(), part.lost.islands.begin(), part.lost.islands.end());
    out.limited_by_body = out.limited_by_body || part.limited_by_body;
    if (part.groove) out.groove = std::move(part.groove);
    if (part.deepest > out.deepest) {
      out.deepest = part.deepest;
      out.deepest_at = part.deepest_at;
    }
    // The next step begins beyond this one's flat.
    const Region next = flank_run > 0 ? grow(region, -flank_run) : std::move(region);
    region = subtract(next, grow(piece.around.raised, (k + 1) * (flank_run + piece.cut.terrace)));
  }
  out.limit = piece.cut.depth;
  note_lost(out, out.lost);
  // Each bit takes all steps from the top down before the next one comes: a larger bit's lower floor lies within its
  // upper one, so none waits for a smaller bit.
  std::stable_sort(out.operations.begin(), out.operations.end(), [&](const Operation& a, const Operation& b) {
    if (a.kind != b.kind) return a.kind < b.kind;
    const auto place = [&](const Operation& op) { return std::find(out.bits.begin(), out.bits.end(), op.bit); };
    return place(a) < place(b);
  });
}

void recess(const Piece& piece, PieceCuts& out) {
  const double depth = floor_depth(piece.cut);
  double corner_radius = 0;
  if (relieves_corners(piece.cut)) {
    // By the smallest of the chosen bits, or of those that would be proposed for the floor as it is.
    std::vector<const Bit*> bits = flat_bits_large_first(piece.cut.clearing, piece.rack);
    if (bits.empty()) {
      const Region plain = recess_shape(piece.outlines.region, piece.cut, piece.around.grown, 0);
      for (const ProposedBit& p : propose_clearing(plain, depth, piece.rack, piece.wood, piece.cancel, true))
        bits.push_back(piece.rack.find(p.bit));
    }
    if (!bits.empty()) corner_radius = bits.back()->true_diameter() / 2;
  }
  const Region region = recess_shape(piece.outlines.region, piece.cut, piece.around.grown, corner_radius);
  if (!region.empty()) upright_floor(piece, region, depth, out);
}

// Beyond the area where there is air or waste, so much that the bit's round leaves nothing standing in its corners; but
// not into wood that is kept.
void plane(const Piece& piece, PieceCuts& out) {
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
  const Piece alone{piece.id, piece.outlines, one, piece.blank, piece.rack, piece.cancel, piece.around, piece.wood};
  upright_floor(alone, wide, piece.cut.depth, out);
  if (out.bits.empty()) return;
  note_lost(out, subtract(piece.outlines.region,
                          grow(opening(wide, piece.rack.find(out.bits.back())->true_diameter() / 2), 0.003)));
}

}  // namespace doyen::cutting
