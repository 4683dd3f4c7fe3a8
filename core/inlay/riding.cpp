#include "inlay/riding.hpp"

#include <cmath>

#include "inlay/fit.hpp"
#include "inlay/plugs.hpp"

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
  for (const PlugBoard& board : plug_boards(one)) {
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

}  // namespace

std::vector<Verdict> riding_inlays(const Plan& pocket, const Rack& rack, const Cancel& cancel) {
  constexpr double kWarns = 0.05, kStops = 0.3;  // mm
  std::vector<Verdict> out;
  for (std::size_t i = 0; i < pocket.job.items.size(); ++i) {
    const Item& item = pocket.job.items[i];
    const Bit* v = rack.find(item.cut.bit);
    if (item.cut.kind != Treatment::Kind::Inlay || !item.cut.inlay.sloped || v == nullptr || v->kind != BitKind::V ||
        v->tip <= 0 || pocket.pieces[i]->cuts.operations.empty())
      continue;
    const auto show = [&](double mm) { return format_length(mm, pocket.job.lengths); };
    const Ride now = rides_up(pocket.job, item, item.cut.inlay.ease, rack, cancel);
    if (now.up < kWarns) continue;
    // What seats it wholly, and half of that: the one that leaves least, the smaller where they are alike.
    const double full = ease_that_seats(item.cut.inlay, *v);
    double best = item.cut.inlay.ease, remains = now.up;
    for (const double ease : {full / 2, full}) {
      if (ease <= item.cut.inlay.ease + 0.01) continue;
      const double up = rides_up(pocket.job, item, ease, rack, cancel).up;
      if (up < remains - 0.02) {
        best = ease;
        remains = up;
      }
      if (remains < kWarns) break;
    }
    Verdict verdict{now.up > kStops ? Grade::Stop : Grade::Mind,
                    "plug-rides-high",
                    item.piece.id,
                    now.at,
                    "The plug of “" + item.piece.name + "” stays " + show(now.up) + " above its place.",
                    "The V's tip, " + show(v->tip) + " wide, leaves the pocket's corners rounder than the plug's.",
                    {}};
    if (best > item.cut.inlay.ease) {
      const double radius = std::ceil(best * 100) / 100;
      verdict.remedies.push_back(
          {"Round both halves' corners by " + show(radius) +
               (remains < kWarns ? std::string(": it then seats") : ": " + show(remains) + " then remain"),
           [id = item.piece.id, radius](Job& job) {
             if (Item* it = job.find(id)) it->cut.inlay.ease = radius;
           }});
    }
    out.push_back(std::move(verdict));
  }
  return out;
}

}  // namespace doyen
