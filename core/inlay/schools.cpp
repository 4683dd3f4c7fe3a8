#include "inlay/schools.hpp"

#include <algorithm>
#include <cmath>

#include "inlay/fit.hpp"
#include "treatments/inlay/joint.hpp"
#include "treatments/suits.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// The job with this inlay alone.
Job alone(const Job& job, const std::string& piece, const Treatment& cut) {
  Job one = job;
  one.run.order.clear();
  for (Item& item : one.items) {
    if (item.piece.id == piece)
      item.cut = cut;
    else if (!makes_ground(item.cut.kind))  // what it lies on stays
      item.cut.kind = Treatment::Kind::None;
  }
  return one;
}

// How wide at its foot a stroke of the plug is that stands as high as it is wide there, mm of the art: thinner ones
// are likely to snap. 0 when none is.
double snaps_below(const Inlay& inlay, const Bit* v) {
  constexpr double kStep = 0.02;  // mm
  constexpr int kMost = 1500;     // 30 mm: nothing wider is thin
  double below = 0;
  for (int i = 1; i < kMost; ++i) {
    const double w = i * kStep;
    double foot = w - 2 * inlay.allowance, high = inlay.contact + inlay.saw_gap;
    if (inlay.sloped && v != nullptr) {
      foot = w + 2 * inlay.saw_gap * v->tan_half();
      high = std::min(inlay.contact, w / 2 / v->tan_half()) + inlay.saw_gap;
    }
    if (foot < high) below = w;
  }
  return below;
}

void judge_snapping(InlayWay& way, const Region& art, const Bit* v, const LengthStyle& lengths) {
  const double below = snaps_below(way.cut.inlay, v);
  if (below > 0) {
    const Region thin = lost_in_opening(art, below / 2, 0.01);
    double thinnest = 1e300;
    for (const Island& island : thin.islands) {
      const Region part{{island}};
      const double size = area(part);
      const Box box = bounds(island);
      // Corners that a disc does not reach are no strokes: a part counts when it is longer than it is wide.
      const double along = std::hypot(box.width(), box.height());
      if (along < below || size < 0.05 * along * below) continue;
      ++way.snapping;
      thinnest = std::min(thinnest, size / along);
    }
    way.thinnest = way.snapping > 0 ? thinnest : 0;
  }
  way.snaps = way.snapping == 0 ? say("no part is thinner than it is tall")
              : way.snapping == 1
                  ? say("one part is thinner than it is tall, about {0} thick", depth_in_words(way.thinnest, lengths))
                  : say("{0} parts are thinner than they are tall, down to about {1}", way.snapping,
                        depth_in_words(way.thinnest, lengths));
}

void judge_exactness(InlayWay& way, const Bit* v, const LengthStyle& lengths) {
  const auto show = [&](double mm) { return depth_in_words(mm, lengths); };
  const Inlay& inlay = way.cut.inlay;
  if (inlay.sloped && v != nullptr) {
    way.exact = say("heights to {0}: too shallow, it lies higher and is levelled off; sideways it centres itself",
                    show(std::max(0.0, way.cut.depth - inlay.contact)));
    return;
  }
  way.play = 2 * inlay.allowance;
  way.exact =
      say("sideways to {0} on both halves: beyond it binds, and all play stays to be seen", show(inlay.allowance));
}

InlayWay work_out(const Job& job, const std::string& piece, const std::string& name, const Treatment& cut,
                  const Rack& rack, const Cancel& cancel) {
  InlayWay way;
  way.name = name;
  way.cut = cut;
  const Job one = alone(job, piece, cut);
  const Plan pocket = plan(one, rack, machine_for(one), nullptr, cancel);
  const PiecePlan* hole = pocket.piece(piece);
  if (hole == nullptr || !hole->problem.empty() || hole->cuts.operations.empty()) {
    way.problem =
        hole != nullptr && !hole->problem.empty() ? hole->problem : say("No bit of the rack cuts its pocket.");
    return way;
  }
  const auto count = [&](const Plan& p, const std::string& id, const PlugPlace& place) {
    for (const BitRun& run : p.runs) {
      const bool its = std::any_of(run.operations.begin(), run.operations.end(),
                                   [&](const Operation* op) { return op->piece == id; });
      if (!its) continue;
      way.seconds += run.time.seconds;
      ++way.bit_changes;
    }
    way.bit_changes -= 1;
    const PiecePlan* half = p.piece(id);
    if (half == nullptr || half->cuts.lost.empty()) return;
    way.lost += area(half->cuts.lost);
    if (place.piece.empty()) {
      way.lost_where.push_back(half->cuts.lost);
      return;
    }
    const double turn = place.half_turn ? 1 : -1;  // from the plug's board back to the carrying board
    way.lost_where.push_back(transformed(
        half->cuts.lost,
        Transform{turn, 0, 0, -turn, place.pocket.x - turn * place.plug.x, place.pocket.y + turn * place.plug.y}));
  };
  count(pocket, piece, {});
  if (cut.inlay.ease > 0) {  // what rounding the art takes away, and fills up
    const Region& art = hole->outlines.region;
    const Region rounded = eased(art, cut.inlay.ease);
    for (const Region& changed : {subtract(art, grow(rounded, 0.003)), subtract(rounded, grow(art, 0.003))}) {
      way.lost += area(changed);
      if (!changed.empty()) way.lost_where.push_back(changed);
    }
  }
  for (const FurtherBoard& board : plug_boards(one)) {
    for (const PlugPlace& place : board.places) {
      if (place.piece != piece) continue;
      Job single = board.job;
      std::erase_if(single.items, [&](const Item& item) { return item.piece.id != piece; });
      const Plan plug = plan(single, rack, machine_for(single), nullptr, cancel);
      const PiecePlan* fill = plug.piece(piece);
      if (fill == nullptr || fill->cuts.operations.empty()) way.problem = say("No bit of the rack cuts its plug.");
      count(plug, piece, place);
    }
  }
  way.seconds += way.bit_changes * machine_for(one).bit_change_seconds;
  const Bit* v = rack.find(cut.bit);
  judge_exactness(way, v, job.lengths);
  judge_snapping(way, eased(hole->outlines.region, cut.inlay.ease), v, job.lengths);
  return way;
}

}  // namespace

double least_ease(const Job& job, const std::string& piece, const Rack& rack, double allowed, const Cancel& cancel) {
  const Item* item = job.find(piece);
  const Bit* v = item == nullptr ? nullptr : rack.find(item->cut.bit);
  if (v == nullptr || !item->cut.inlay.sloped) return 0;
  const auto rides_up = [&](double ease) {
    Treatment cut = item->cut;
    cut.inlay.ease = ease;
    const Job one = alone(job, piece, cut);
    const Plan pocket = plan(one, rack, machine_for(one), nullptr, cancel);
    for (const FurtherBoard& board : plug_boards(one)) {
      for (const PlugPlace& place : board.places) {
        if (place.piece != piece) continue;
        const Plan plug = plan(board.job, rack, machine_for(board.job), nullptr, cancel);
        const Halves halves = halves_of(pocket, plug, place, MovesFrom::Plan, cancel);
        return mate(halves, fit_cell(halves.art), {}, cancel).rides_up;
      }
    }
    return 0.0;
  };
  if (rides_up(0) <= allowed) return 0;
  double low = 0, high = ease_that_seats(item->cut.inlay, *v);
  if (rides_up(high) > allowed) return -1;
  constexpr double kStep = 0.02;  // mm
  while (high - low > kStep) {
    const double middle = (low + high) / 2;
    (rides_up(middle) > allowed ? low : high) = middle;
  }
  return std::ceil(high * 100) / 100;
}

std::vector<InlayWay> ways_to_inlay(const Job& job, const std::string& piece, const Rack& rack, const Cancel& cancel) {
  const Item* item = job.find(piece);
  if (item == nullptr || item->cut.kind != Treatment::Kind::Inlay) return {};
  std::vector<InlayWay> ways{work_out(job, piece, say("As chosen"), item->cut, rack, cancel)};
  const auto add = [&](const std::string& name, const Treatment& cut) {
    cancel.check();
    InlayWay way = work_out(job, piece, name, cut, rack, cancel);
    const bool same = std::any_of(ways.begin(), ways.end(), [&](const InlayWay& w) {
      return w.cut.inlay.sloped == cut.inlay.sloped && std::abs(w.seconds - way.seconds) < 0.5 &&
             w.problem == way.problem;
    });
    if (!same) ways.push_back(std::move(way));
  };
  Treatment cut = item->cut;
  const Bit* v = rack.find(cut.bit);
  if (v == nullptr || v->kind != BitKind::V) {
    v = usual_v(rack);
    cut.bit = id_of(v);
  }
  if (v != nullptr && v->kind == BitKind::V) {
    cut.inlay.sloped = true;
    cut.inlay.v_alone = true;
    add(say("V alone"), cut);
    cut.inlay.v_alone = false;
    cut.clearing.clear();
    add(say("V and flat bits"), cut);
  }
  // Upright by a bit that most shops have, then with a finer one behind it; corners as round as the last bit on both
  // halves, so that they meet.
  const Bit* smallest = flat_nearest(rack, kMmPerInch / 8);
  if (smallest != nullptr) {
    Treatment upright = item->cut;
    upright.inlay.sloped = upright.inlay.v_alone = false;
    upright.inlay.ease = std::max(upright.inlay.ease, smallest->true_diameter() / 2 + 0.02);
    if (smallest->ladder_allowance) upright.inlay.allowance = *smallest->ladder_allowance;
    upright.clearing = {smallest->id};
    add(say("Upright, {0}", smallest->name), upright);
    const Bit* finer = flat_nearest(rack, kMmPerInch / 16);
    if (finer->true_diameter() < smallest->true_diameter()) {
      upright.inlay.ease =
          std::max(item->cut.inlay.sloped ? 0.0 : item->cut.inlay.ease, finer->true_diameter() / 2 + 0.02);
      upright.clearing = {smallest->id, finer->id};
      add(say("Upright, {0} then {1}", smallest->name, finer->name), upright);
    }
  }
  return ways;
}

}  // namespace doyen
