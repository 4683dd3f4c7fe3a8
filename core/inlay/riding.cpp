#include "inlay/riding.hpp"

#include <cmath>
#include <functional>

#include "inlay/fit.hpp"
#include "inlay/plugs.hpp"
#include "verdicts/accepted.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

struct Ride {
  double up = 0;  // mm
  Point at;
};

// The job's other pieces do not matter to how this one's halves meet.
Ride rides_up(const Job& job, const Item& item, double ease, const Rack& rack, const Cancel& cancel) {
  Job one = job;
  for (Item& each : one.items) {
    if (each.piece.id != item.piece.id) each.cut.kind = Treatment::Kind::None;
  }
  one.find(item.piece.id)->cut.inlay.ease = ease;
  const Plan pocket = plan(one, rack, machine_for(one), nullptr, cancel);
  for (const FurtherBoard& board : plug_boards(one)) {
    for (const PlugPlace& place : board.places) {
      if (place.piece != item.piece.id) continue;
      const Plan plug = plan(board.job, rack, machine_for(board.job), nullptr, cancel);
      const Halves halves = halves_of(pocket, plug, place, MovesFrom::Plan, cancel);
      const Fit fit = mate(halves, fit_cell(halves.art), {}, cancel);
      return {fit.rides_up, fit.binds_at};
    }
  }
  return {};
}

struct Eased {
  double ease, remains;  // mm
};

// The least easing that seats the plug; where none does, the one that leaves it lowest, the least of those alike.
// `full`: what seats it by the figures alone; art with many corners may want more, and loses strokes to it.
Eased nearest_easing(double up_now, double ease_now, double full, double seated,
                     const std::function<double(double)>& rides) {
  Eased best{ease_now, up_now};
  double too_little = ease_now;
  for (const double share : {0.5, 0.75, 1.0, 1.3}) {
    const double ease = full * share;
    if (ease <= ease_now + 0.01) continue;
    const double up = rides(ease);
    if (up < best.remains - 0.02) best = {ease, up};
    if (up < seated) break;
    too_little = ease;
  }
  if (best.remains >= seated) return best;
  for (int k = 0; k < 3 && best.ease - too_little > 0.02; ++k) {
    const double ease = (best.ease + too_little) / 2, up = rides(ease);
    if (up < seated)
      best = {ease, up};
    else
      too_little = ease;
  }
  return best;
}

}  // namespace

std::vector<Verdict> riding_inlays(const Plan& pocket, const Rack& rack, const Cancel& cancel,
                                   const std::function<void(int)>& trying) {
  int tries = 0;
  constexpr double kWarns = 0.05, kStops = 0.3;  // mm
  std::vector<Verdict> out;
  for (std::size_t i = 0; i < pocket.job.items.size(); ++i) {
    const Item& item = pocket.job.items[i];
    const Bit* v = rack.find(item.cut.bit);
    if (item.cut.kind != Treatment::Kind::Inlay || !item.cut.inlay.sloped || v == nullptr || v->kind != BitKind::V ||
        v->tip <= 0 || pocket.pieces[i]->cuts.operations.empty())
      continue;
    const auto show = [&](double mm) { return depth_in_words(mm, pocket.job.lengths); };
    const Ride now = rides_up(pocket.job, item, item.cut.inlay.ease, rack, cancel);
    if (now.up < kWarns) continue;
    const auto [best, remains] =
        nearest_easing(now.up, item.cut.inlay.ease, ease_that_seats(item.cut.inlay, *v), kWarns, [&](double ease) {
          if (trying) trying(++tries);
          return rides_up(pocket.job, item, ease, rack, cancel).up;
        });
    Verdict verdict{now.up > kStops ? Grade::Stop : Grade::Mind,
                    "plug-rides-high",
                    item.piece.id,
                    now.at,
                    say("The plug of “{0}” stays {1} above its place.", item.piece.name, show(now.up)),
                    say("The V's tip, {0} wide, leaves the pocket's corners rounder than the plug's.", show(v->tip)),
                    {}};
    if (best > item.cut.inlay.ease) {
      const double radius = std::ceil(best * 100) / 100;
      verdict.remedies.push_back(
          {say("Round both halves' corners by {0}{1}", show(radius),
               (remains < kWarns ? say(": it then seats") : say(": {0} then remain", show(remains)))),
           [id = item.piece.id, radius](Job& job) {
             if (Item* it = job.find(id)) it->cut.inlay.ease = radius;
           }});
    }
    out.push_back(std::move(verdict));
  }
  take_acceptances(pocket.job, out);
  return out;
}

}  // namespace doyen
