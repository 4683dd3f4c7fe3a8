#include "treatments/piece_cuts.hpp"

#include <algorithm>
#include <limits>

#include "cutting/merge.hpp"
#include "cutting/way_down.hpp"
#include "geometry/polyline.hpp"
#include "stock/species.hpp"
#include "treatments/look.hpp"
#include "treatments/making.hpp"

namespace doyen {
namespace {

// What its way is off by sideways a narrow V is off by several times as much in depth.
double merged_off(const Bit& v) {
  constexpr double kUsual = 0.577;  // tan 30°
  return kMergedV * (v.kind == BitKind::V ? std::min(1.0, v.tan_half() / kUsual) : 1.0);
}

}  // namespace

PieceCuts cut_piece(const std::string& id, const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                    const AskedRack& rack, const Cancel& cancel, const Surroundings& around) {
  constexpr double kTremble = 0.008;  // mm, under what is promised of flanks and walls
  if (rough(outlines.region) || rough(around.sunk)) {
    Outlines calm = outlines;
    Surroundings round = around;
    calm.region = thinned(outlines.region, kTremble);
    round.sunk = thinned(around.sunk, kTremble);
    if (point_count(calm.region) < point_count(outlines.region) || point_count(round.sunk) < point_count(around.sunk))
      return cut_piece(id, calm, treatment, blank, rack, cancel, round);
  }
  PieceCuts out;
  out.limit = std::numeric_limits<double>::infinity();
  out.ground = around.ground.below;
  const cutting::Piece piece{
      id, outlines, treatment, blank, rack, cancel, around, wood_class_of(blank), rack.find(treatment.bit)};
  if (outlines.region.empty() && outlines.lines.empty()) return out;
  look_of(treatment.kind).cut(piece, out);
  for (Operation& op : out.operations) {
    const Bit* bit = rack.find(op.bit);
    const double off = bit == nullptr || bit->kind == BitKind::Flat ? kMerged : merged_off(*bit);
    for (Pass& pass : op.passes) {
      cancel.check();
      pass = merged(pass, off);
    }
  }
  note_ways_down(out.operations, rack);
  note_floor_below(out.operations, rack, {around.floor, -around.ground.below});
  return out;
}

}  // namespace doyen
