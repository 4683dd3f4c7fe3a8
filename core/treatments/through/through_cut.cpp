#include "treatments/through/through_cut.hpp"

namespace doyen::cutting {

CutOutShape through_shape(const Piece& piece, const Bit& flat) {
  CutOutShape shape;
  shape.diameter = flat.true_diameter();
  // A skin is what stays at the thinnest place.
  shape.thickness = piece.cut.through.skin > 0 ? piece.blank.thinnest() : piece.blank.thickest();
  shape.over_cut = through_depth(piece.cut.through, piece.blank) - shape.thickness;
  shape.leave_on = piece.cut.moves.leave_on;
  shape.climb = piece.cut.moves.climb;
  shape.ramp_slope = piece.cut.moves.ramp;
  shape.depth_per_pass = flat.depth_per_pass(piece.wood);
  shape.tabs = piece.cut.through.tabs;
  return shape;
}

// Deep edges are cut slower: the chips leave badly and a long bit bends (about 60 in/min where 100 is usual; common
// practice, no source).
Operation through_operation(const Piece& piece, Operation::Kind kind, const Bit& flat, const CutOutShape& shape) {
  Operation op = operation(piece, kind, flat, shape.thickness + shape.over_cut);
  op.ground = 0;
  if (op.depth > 2.5 * flat.true_diameter()) {
    op.feed_share = 0.6;
    op.slowed = "deep edge";
  }
  return op;
}

void finish_through(const CutOutShape& shape, PieceCuts& out) {
  out.deepest = shape.thickness + shape.over_cut;
  for (const Operation& op : out.operations) {
    if (!op.passes.empty()) out.deepest_at = op.passes.front().points.front().flat();
  }
  out.ground = 0;
}

}  // namespace doyen::cutting
