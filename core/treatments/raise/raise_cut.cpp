// How it is raised: the ground round it sunk, in one go or in even steps.
#include <algorithm>
#include <cmath>

#include "cutting/proposals.hpp"
#include "treatments/raise/raise_parts.hpp"

namespace doyen {
namespace {

using Step = std::function<void(const cutting::Piece&, const Region&, double depth, PieceCuts&)>;

// Standing strokes thinner than they are high break easily: half the feed round them (50 in/min where 100 is usual;
// common practice, no source).
// All that stands in the panel counts: one piece does the work for every other of its panel.
void spare_delicate(const cutting::Piece& piece, PieceCuts& out) {
  const Region kept = left_inside(piece.around.sunk);
  if (kept.empty() || !stands_thin(kept, piece.cut.depth)) return;
  for (Operation& op : out.operations) {
    op.feed_share = 0.5;
    op.slowed = "delicate letters";
  }
}

// Adds what one step came to.
void take_in(PieceCuts& out, PieceCuts part) {
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
}

// A sunk ground in even steps (geometry.md, grounds): `step` cuts one of them into its own cuts.
void terraces(const cutting::Piece& piece, double flank_run, PieceCuts& out, const Step& step) {
  const int n = piece.cut.raise.steps;
  const double each = piece.cut.depth / n;
  if (piece.cut.clearing.empty()) {  // what is proposed for one step is used for all: each goes as far as the others
    Treatment chosen = piece.cut;
    chosen.clearing.clear();
    for (const ProposedBit& p : propose_clearing(piece.around.sunk, piece.cut.depth, piece.rack, piece.wood,
                                                 piece.cancel, upright_walls(piece.cut)))
      chosen.clearing.push_back(p.bit);
    if (!chosen.clearing.empty()) return terraces(piece.with(chosen), flank_run, out, step);
  }
  Region region = piece.around.sunk;
  for (int k = 0; k < n && !region.empty(); ++k) {
    Surroundings around = piece.around;
    around.ground.below += k * each;
    PieceCuts part;
    step(piece.on(around), region, each, part);
    take_in(out, std::move(part));
    // The next step begins beyond this one's flat.
    const Region next = flank_run > 0 ? grow(region, -flank_run) : std::move(region);
    region = subtract(next, grow(piece.around.raised, (k + 1) * (flank_run + piece.cut.raise.terrace)));
  }
  out.limit = piece.cut.depth;
  cutting::note_lost(out, out.lost);
  // Each bit takes all steps from the top down before the next one comes: a larger bit's lower floor lies within its
  // upper one, so none waits for a smaller bit.
  std::stable_sort(out.operations.begin(), out.operations.end(), [&](const Operation& a, const Operation& b) {
    if (a.kind != b.kind) return a.kind < b.kind;
    const auto place = [&](const Operation& op) { return std::find(out.bits.begin(), out.bits.end(), op.bit); };
    return place(a) < place(b);
  });
}

}  // namespace

bool stands_thin(const Region& kept, double high) {
  // A share of an area needs no fine outline: letters of thousands of points are asked in a tenth of the time.
  constexpr double kNear = 0.05;  // mm
  const Region plain = thinned(kept, kNear);
  double left = 0;
  for (const Island& island : plain.islands) left += area(opening({{island}}, high / 2, kNear));
  return left <= 0.85 * area(plain);
}

void cut_raise(const cutting::Piece& piece, PieceCuts& out) {
  const RaiseChoices& raise = piece.cut.raise;
  const Bit* v = piece.of_kind(BitKind::V);
  if (piece.around.sunk.empty() || (raise.sloped && v == nullptr)) return;
  const auto one = [&](const cutting::Piece& p, const Region& region, double depth, PieceCuts& cuts) {
    if (raise.sloped)
      cutting::groove(p, *v, {.region = region, .limit = depth}, cuts);
    else
      cutting::upright_floor(p, region, depth, cuts);
  };
  if (raise.steps > 1)
    terraces(piece, raise.sloped ? piece.cut.depth / raise.steps * v->tan_half() + v->tip / 2 : 0, out, one);
  else
    one(piece, piece.around.sunk, piece.cut.depth, out);
  spare_delicate(piece, out);
}

}  // namespace doyen
