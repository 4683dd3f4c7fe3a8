// Right through the wood, along an edge, or at points: pierced openings, cut-outs, bevels, drilled holes.
#include <algorithm>
#include <cmath>

#include "cutting/clearing.hpp"
#include "cutting/ring_splicer.hpp"
#include "geometry/polyline.hpp"
#include "treatments/holes.hpp"
#include "treatments/making.hpp"

namespace doyen::cutting {
namespace {

CutOutShape through_shape(const Piece& piece, const Bit& bit) {
  CutOutShape shape;
  shape.diameter = bit.true_diameter();
  // A skin is what stays at the thinnest place.
  shape.thickness = piece.cut.skin > 0 ? piece.blank.thinnest() : piece.blank.thickest();
  shape.over_cut = through_depth(piece.cut, piece.blank) - shape.thickness;
  shape.leave_on = piece.cut.moves.leave_on;
  shape.climb = piece.cut.moves.climb;
  shape.depth_per_pass = bit.depth_per_pass(piece.wood);
  shape.tabs = piece.cut.tabs;
  return shape;
}

// From the face down, whatever the piece lies on. Deep edges are cut slower: the chips leave badly and a long bit bends
// (about 60 in/min where 100 is usual; common practice, no source).
Operation through_operation(const Piece& piece, Operation::Kind kind, const Bit& flat, const CutOutShape& shape) {
  Operation op = operation(piece, kind, flat, shape.thickness + shape.over_cut);
  op.ground = 0;
  if (op.depth > 2.5 * flat.true_diameter()) {
    op.feed_share = 0.6;
    op.slowed = "deep edge";
  }
  return op;
}

// Straight down in steps, up between them so that the chips come out.
Pass pecked(Point hole, double from, double to, double step) {
  const int pecks = std::clamp(static_cast<int>(std::ceil((from - to) / std::max(0.1, step) - 1e-9)), 1, 1000);
  Pass pass;
  pass.points.push_back({hole.x, hole.y, from});
  for (int k = 1; k <= pecks; ++k) {
    pass.points.push_back({hole.x, hole.y, from + (to - from) * k / pecks});
    if (k < pecks) pass.points.push_back({hole.x, hole.y, from});
  }
  return pass;
}

// A round hole of the bit's own size: a plunge makes it.
bool fits_the_bit(const Island& island, double radius) {
  constexpr double kOff = 0.02;  // mm of radius
  if (island.rings.size() != 1) return false;
  const Point middle = centroid(Region{{island}});
  return std::all_of(island.rings.front().begin(), island.rings.front().end(),
                     [&](Point p) { return std::abs(distance(p, middle) - radius) < kOff; });
}

void finish_through(const Piece& piece, const CutOutShape& shape, PieceCuts& out) {
  out.deepest = shape.thickness + shape.over_cut;
  for (const Operation& op : out.operations) {
    if (!op.passes.empty()) out.deepest_at = op.passes.front().points.front().flat();
  }
  out.ground = 0;
  (void)piece;
}

}  // namespace

void cut_out(const Piece& piece, const Bit& flat, PieceCuts& out) {
  if (piece.outlines.region.empty()) return;
  // Beside a bevel the cut keeps clear by its width (geometry.md, allowances).
  const Region body =
      piece.around.grown > 0 ? grow(piece.outlines.region, piece.around.grown, Corner::Sharp) : piece.outlines.region;
  const CutOutShape shape = through_shape(piece, flat);
  out.cut_out = plan_cut_out(body, shape, piece.cancel);
  if (!out.cut_out->passes.empty()) {
    Operation op = through_operation(piece, Operation::Kind::Profile, flat, shape);
    op.passes = out.cut_out->passes;
    out.operations.push_back(std::move(op));
  }
  finish_through(piece, shape, out);
  const Region kept = grow(grow(body, shape.diameter / 2), -shape.diameter / 2);
  note_lost(out, subtract(kept, grow(body, 0.01)));
}

// The waste of each opening falls out whole where that was asked for and it is larger than the bit's own way round it;
// everything else is cleared.
void pierce(const Piece& piece, const Bit& flat, PieceCuts& out) {
  Region region = piece.outlines.region;
  if (piece.around.grown < 0) region = grow(region, piece.around.grown, Corner::Sharp);
  if (region.empty()) return;
  const CutOutShape shape = through_shape(piece, flat);
  Region slugs, cleared;
  std::vector<int> slug_of;  // the slugs' places among the piece's islands, which tabs count by
  for (std::size_t i = 0; i < region.islands.size(); ++i) {
    const bool falls = piece.cut.slug && !grow(Region{{region.islands[i]}}, -1.5 * shape.diameter).empty();
    (falls ? slugs : cleared).islands.push_back(region.islands[i]);
    if (falls) slug_of.push_back(static_cast<int>(i));
  }
  const double depth = shape.thickness + shape.over_cut;
  Operation plunges = through_operation(piece, Operation::Kind::Pierce, flat, shape);
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
  if (!cleared.empty()) {
    Operation op = through_operation(piece, Operation::Kind::Pierce, flat, shape);
    ClearingShape clearing;
    clearing.diameter = shape.diameter;
    clearing.stepover = piece.cut.moves.stepover;
    clearing.floor = -depth;
    clearing.depth_per_pass = shape.depth_per_pass;
    clearing.entry = piece.cut.moves.entry;
    clearing.climb = shape.climb;
    op.passes = clear_floor(cleared, {}, clearing, piece.cancel);
    if (!op.passes.empty()) out.operations.push_back(std::move(op));
  }
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
      Operation op = through_operation(piece, Operation::Kind::Pierce, flat, shape);
      op.passes = out.cut_out->passes;
      out.operations.push_back(std::move(op));
    }
  }
  finish_through(piece, shape, out);
  note_lost(out, lost_in_opening(region, shape.diameter / 2));
}

// The tip runs beside the outline by depth · tan(α/2), so that the flank meets the ground on the outline itself and the
// kept face keeps its size. Into corners that it runs round on the inside it rises along their bisector, as a groove
// does: else a round would stay there.
void bevel(const Piece& piece, const Bit& v, PieceCuts& out) {
  const double depth = piece.cut.depth, aside = depth * v.tan_half() + v.tip / 2;
  const double ground = -piece.around.ground.below;
  const Region& outline = piece.outlines.region;
  const Region way = grow(outline, piece.cut.inside ? -aside : aside, Corner::Sharp);
  const Region beside = piece.cut.inside ? outline : subtract(grow(outline, 3 * aside + 1), outline);
  if (beside.empty()) return;
  std::vector<Ring> rings;
  for (const Island& island : way.islands) rings.insert(rings.end(), island.rings.begin(), island.rings.end());
  const Groove groove = plan_groove(beside, {v.tan_half(), v.tip, depth}, Threads::All, piece.cancel);
  Operation op = operation(piece, Operation::Kind::Bevel, v, depth);
  RingSplicer splicer(std::move(rings), ground - depth);
  for (Pass& pass : groove.passes(ground)) {
    if (!splicer.take(pass) && piece.cut.inside) op.passes.push_back(std::move(pass));
  }
  for (Pass& pass : splicer.finish()) op.passes.push_back(std::move(pass));
  if (op.passes.empty()) return;
  order_passes(op.passes, {0, 0}, false);
  op.passes = in_levels(op.passes, ground, v.depth_per_pass(piece.wood));
  out.deepest = -deepest(op.passes);
  out.deepest_at = op.passes.front().points.front().flat();
  out.operations.push_back(std::move(op));
}

void drill(const Piece& piece, const Bit& bit, PieceCuts& out) {
  out.holes = drill_points(piece.outlines, piece.cut);
  const double ground = -piece.around.ground.below;
  const double peck = piece.cut.peck > 0 ? piece.cut.peck : bit.depth_per_pass(piece.wood);
  Operation op = operation(piece, Operation::Kind::Drill, bit, piece.cut.depth);
  for (const Point& hole : out.holes) op.passes.push_back(pecked(hole, ground, ground - piece.cut.depth, peck));
  if (op.passes.empty()) return;
  order_passes(op.passes, {0, 0}, false);
  out.deepest = piece.around.ground.below + piece.cut.depth;
  out.deepest_at = out.holes.front();
  out.operations.push_back(std::move(op));
}

// The head goes down through a hole of its own size, slides under the face, comes back and up again.
void hanger_slot(const Piece& piece, const Bit& keyhole, PieceCuts& out) {
  const std::vector<SlotPlace> slots = slot_places(piece.outlines, piece.cut);
  const double ground = -piece.around.ground.below, floor = ground - piece.cut.depth;
  Operation op = operation(piece, Operation::Kind::Slot, keyhole, piece.cut.depth);
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

}  // namespace doyen::cutting
