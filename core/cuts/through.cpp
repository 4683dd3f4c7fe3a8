// Right through the wood, along an edge, or at points: pierced openings, cut-outs, bevels, drilled holes.
#include <algorithm>
#include <cmath>

#include "cuts/clearing.hpp"
#include "cuts/cutting.hpp"
#include "geometry/polyline.hpp"

namespace doyen::cutting {
namespace {

double over_cut_of(const Piece& piece) { return piece.cut.over_cut.value_or(default_over_cut(piece.blank)); }

CutOutShape through_shape(const Piece& piece, const Bit& bit) {
  CutOutShape shape;
  shape.diameter = bit.true_diameter();
  // A skin is what stays at the thinnest place.
  shape.thickness = piece.cut.skin > 0 ? piece.blank.thinnest() : piece.blank.thickest();
  shape.over_cut = piece.cut.skin > 0 ? -std::min(piece.cut.skin, shape.thickness - 0.1) : over_cut_of(piece);
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
// kept face keeps its size.
void bevel(const Piece& piece, const Bit& v, PieceCuts& out) {
  const double depth = piece.cut.depth, aside = depth * v.tan_half() + v.tip / 2;
  const Region way = grow(piece.outlines.region, piece.cut.inside ? -aside : aside, Corner::Sharp);
  if (way.empty()) return;
  const double ground = -piece.around.ground.below;
  const int levels =
      std::max(1, static_cast<int>(std::ceil(depth / std::max(0.05, v.depth_per_pass(piece.wood)) - 1e-9)));
  Operation op = operation(piece, Operation::Kind::Bevel, v, depth);
  for (const Island& island : way.islands) {
    for (const Ring& ring : island.rings) {
      Pass& pass = op.passes.emplace_back();
      for (int level = 1; level <= levels; ++level) {
        for (std::size_t i = 0; i <= ring.size(); ++i) {
          const Point& p = ring[i % ring.size()];
          const Point3 q{p.x, p.y, ground - depth * level / levels};
          if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
        }
      }
    }
  }
  order_passes(op.passes, {0, 0}, false);
  out.deepest = piece.around.ground.below + depth;
  out.deepest_at = op.passes.front().points.front().flat();
  out.operations.push_back(std::move(op));
}

void drill(const Piece& piece, const Bit& bit, PieceCuts& out) {
  if (piece.cut.spacing > 0) {
    std::vector<Line2> lines = piece.outlines.lines;
    for (const Island& island : piece.outlines.region.islands) {
      for (const Ring& ring : island.rings) {
        lines.push_back(ring);
        lines.back().push_back(ring.front());
      }
    }
    for (const Line2& line : lines) {
      const bool closed = line.size() > 3 && line.front() == line.back();
      double whole = 0;
      for (std::size_t i = 1; i < line.size(); ++i) whole += distance(line[i - 1], line[i]);
      // As near to the spacing asked for as goes in evenly.
      const int gaps = std::clamp(static_cast<int>(std::lround(whole / piece.cut.spacing)), 1, 5000);
      std::size_t i = 1;
      double run = 0;
      for (int k = 0; k < (closed ? gaps : gaps + 1); ++k) {
        const double wanted = whole * k / gaps;
        while (i + 1 < line.size() && run + distance(line[i - 1], line[i]) < wanted) {
          run += distance(line[i - 1], line[i]);
          ++i;
        }
        const double len = distance(line[i - 1], line[i]);
        out.holes.push_back(len > 0 ? line[i - 1] + (line[i] - line[i - 1]) * std::min(1.0, (wanted - run) / len)
                                    : line[i - 1]);
      }
    }
  } else {
    for (const Island& island : piece.outlines.region.islands)
      out.holes.push_back(centroid(Region{{Island{{island.rings.front()}}}}));
    for (const Line2& line : piece.outlines.lines) out.holes.push_back(line.front());
  }
  const double ground = -piece.around.ground.below;
  const double peck = piece.cut.peck > 0 ? piece.cut.peck : bit.depth_per_pass(piece.wood);
  const int pecks = std::clamp(static_cast<int>(std::ceil(piece.cut.depth / std::max(0.1, peck) - 1e-9)), 1, 1000);
  Operation op = operation(piece, Operation::Kind::Drill, bit, piece.cut.depth);
  for (const Point& hole : out.holes) {
    Pass& pass = op.passes.emplace_back();
    pass.points.push_back({hole.x, hole.y, ground});
    for (int k = 1; k <= pecks; ++k) {
      pass.points.push_back({hole.x, hole.y, ground - piece.cut.depth * k / pecks});
      if (k < pecks) pass.points.push_back({hole.x, hole.y, ground});  // up, so that the chips come out
    }
  }
  if (op.passes.empty()) return;
  order_passes(op.passes, {0, 0}, false);
  out.deepest = piece.around.ground.below + piece.cut.depth;
  out.deepest_at = out.holes.front();
  out.operations.push_back(std::move(op));
}

// The head goes down through a hole of its own size, slides under the face, comes back and up again. The hole lies at
// the lower end, so that the sign drops onto its screw.
void hanger_slot(const Piece& piece, const Bit& keyhole, PieceCuts& out) {
  struct Slot {
    Point from, to;
  };
  std::vector<Slot> slots;
  for (const Line2& line : piece.outlines.lines) {
    if (line.size() < 2) continue;
    const Point a = line.front(), b = line.back();
    slots.push_back(a.y <= b.y ? Slot{a, b} : Slot{b, a});
  }
  for (const Island& island : piece.outlines.region.islands) {
    const Point middle = centroid(Region{{Island{{island.rings.front()}}}});
    slots.push_back({middle, middle + Point{0, piece.cut.slot_length}});
  }
  const double ground = -piece.around.ground.below, floor = ground - piece.cut.depth;
  Operation op = operation(piece, Operation::Kind::Slot, keyhole, piece.cut.depth);
  for (const Slot& s : slots) {
    Pass& pass = op.passes.emplace_back();
    pass.points = {{s.from.x, s.from.y, ground}, {s.from.x, s.from.y, floor}};
    if (distance(s.from, s.to) > 0.01) {
      pass.points.push_back({s.to.x, s.to.y, floor});
      pass.points.push_back({s.from.x, s.from.y, floor});
    }
    out.holes.push_back(s.from);
  }
  if (op.passes.empty()) return;
  order_passes(op.passes, {0, 0}, false);
  out.deepest = piece.around.ground.below + piece.cut.depth;
  out.deepest_at = slots.front().to;
  out.operations.push_back(std::move(op));
}

}  // namespace doyen::cutting
