#include "planning/plan.hpp"

#include <algorithm>
#include <utility>

#include "geometry/united.hpp"
#include "grounds/grounds.hpp"
#include "holding/witness.hpp"
#include "planning/placed_cuts.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "verdicts/accepted.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// The board's outline; its box where that is no path.
Region board_of(const Blank& blank) {
  try {
    return region_of(blank);
  } catch (const Problem&) {
    return region_of(blank.box());
  }
}

// A cut-out that comes before other work is held by its tabs alone meanwhile.
void judge_order(Plan& plan) {
  if (plan.job.run.order.empty()) return;
  const Operation* out_first = nullptr;
  for (const BitRun& run : plan.runs) {
    for (const Operation* op : run.operations) {
      if (op->kind == Operation::Kind::Profile) {
        if (out_first == nullptr) out_first = op;
        continue;
      }
      if (out_first == nullptr) continue;
      const Item* item = plan.job.find(out_first->piece);
      plan.verdicts.push_back({Grade::Mind,
                               "cut-out-early",
                               out_first->piece,
                               out_first->passes.front().points.front().flat(),
                               say("In your order “{0}” is cut out before the {1} has done its work.",
                                   (item == nullptr ? out_first->piece : item->piece.name), run.bit.name),
                               say("Only its tabs hold it meanwhile; it can shift or lift under the bit."),
                               {{say("Take Doyen's order"), [](Job& job) { job.run.order.clear(); }}}});
      return;
    }
  }
}

// A witness mark that is not the first thing done on its side says nothing of what came before it.
void judge_witness(Plan& plan) {
  const auto first = std::find_if(plan.runs.begin(), plan.runs.end(),
                                  [](const BitRun& run) { return run.side == Side::Front && run.screws == 0; });
  if (first == plan.runs.end()) return;
  for (const Item& item : plan.job.items) {
    if (!is_witness(item) || item.cut.bit == first->bit.id) continue;
    const BitId bit = first->bit.id;
    plan.verdicts.push_back(
        {Grade::Mind,
         "witness-late",
         item.piece.id,
         item.piece.at,
         say("The {0} cuts before “{1}” makes the mark.", first->bit.name, item.piece.name),
         say("Whether x and y were lost meanwhile the mark cannot tell: the first bit must make it."),
         {{say("Make it with the {0}", first->bit.name), [id = item.piece.id, bit](Job& job) {
             if (Item* mark = job.find(id)) mark->cut.bit = bit;
           }}}});
  }
}

}  // namespace

bool Plan::has_stop() const { return count(Grade::Stop) > 0; }

double Plan::cutting_seconds() const {
  double all = 0;
  for (const BitRun& run : runs) all += run.time.seconds;
  return all;
}

Region Plan::finished_shape() const {
  std::vector<Region> all;
  for (std::size_t i = 0; i < job.items.size() && i < pieces.size(); ++i) {
    if (job.items[i].cut.kind == Treatment::Kind::CutOut && pieces[i]->problem.empty())
      all.push_back(pieces[i]->outlines.region);
  }
  return united(std::move(all));
}

bool Plan::has_later() const {
  return std::any_of(runs.begin(), runs.end(), [](const BitRun& run) { return run.later; });
}

int Plan::count(Grade grade) const {
  return static_cast<int>(
      std::count_if(verdicts.begin(), verdicts.end(), [&](const Verdict& v) { return v.grade == grade; }));
}

const PiecePlan* Plan::piece(const std::string& id) const {
  for (std::size_t i = 0; i < job.items.size() && i < pieces.size(); ++i) {
    if (job.items[i].piece.id == id) return pieces[i].get();
  }
  return nullptr;
}

bool Plan::has_back() const {
  return std::any_of(runs.begin(), runs.end(), [](const BitRun& r) { return r.side == Side::Back; });
}

Rack rack_for(const Job& job, const Rack& rack) {
  Rack own = rack;
  const std::string wood = wood_class_of(job.blank);
  for (const auto& [id, feeds] : job.run.feeds) {
    for (Bit& bit : own.bits) {
      if (bit.id == id) bit.feeds[wood] = feeds;
    }
  }
  return own;
}

namespace {

// Every piece worked out, or as it is remembered: first its outlines, then what lies on what, then the cutting.
std::vector<std::shared_ptr<const PiecePlan>> worked_out(const Job& job, const Rack& rack, PlanCache& cache,
                                                         const Cancel& cancel, const Progress& progress) {
  std::vector<PieceKeys> keys;
  std::vector<std::shared_ptr<const PiecePlan>> set, pieces;
  std::vector<LaidPiece> laid;
  for (const Item& item : job.items) {
    cancel.check();
    const PieceKey key = keys.emplace_back(job, item).of_outlines();
    std::shared_ptr<const PiecePlan> piece = cache.find(key, rack);
    if (!piece) {
      piece = set_piece(job, item);
      cache.keep(key, {}, piece);
    }
    laid.push_back({item.piece.id, piece->problem.empty() ? &piece->outlines : nullptr, &item.cut});
    set.push_back(std::move(piece));
  }
  const std::vector<Surroundings> around = surroundings_of(laid, rack, board_of(job.blank));
  bool told = !progress.set;
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    cancel.check();
    const PieceKey key = keys[i].of_cuts(around[i]);
    std::shared_ptr<const PiecePlan> piece = cache.find(key, rack);
    if (!piece) {
      if (!std::exchange(told, true)) {
        SetJob now;
        now.plan.job = job;
        now.plan.machine = machine_for(job);
        now.plan.rack = rack;
        now.plan.pieces = set;
        now.around = around;
        progress.set(std::move(now));
      }
      PlacedCuts placed(rack, cache, cancel);
      piece = kept_to_board(cut_set_piece(*set[i], job.items[i], around[i], job, placed), job, rack);
      cache.keep(key, placed.asked(), piece);
    }
    pieces.push_back(std::move(piece));
    if (progress.tell) progress.tell(static_cast<int>(pieces.size()), static_cast<int>(job.items.size()));
  }
  return pieces;
}

}  // namespace

Plan plan(const Job& job, const Rack& whole_rack, const MachineProfile& machine, PlanCache* cache, const Cancel& cancel,
          const Progress& progress) {
  const Cancel::Scope stops(cancel);
  PlanCache own;
  PlanCache& remembered = cache == nullptr ? own : *cache;
  remembered.begin_plan();
  Plan out;
  out.job = job;
  out.machine = machine;
  out.rack = rack_for(job, whole_rack);
  out.pieces = worked_out(job, out.rack, remembered, cancel, progress);
  make_runs(out);
  cancel.check();
  VerdictMemory& found = remembered.found();
  Situation situation{job, out.rack, machine,
                      {},  &found,   found.mark({job.lengths, job.blank, job.run, out.rack, machine})};
  for (std::size_t i = 0; i < out.pieces.size(); ++i) {
    const PiecePlan& piece = *out.pieces[i];
    if (piece.problem.empty())
      situation.pieces.push_back({&piece.outlines, &piece.cuts, &piece.around, "", bounds(piece.outlines),
                                  found.mark(job.items[i], piece.key)});
    else
      situation.pieces.push_back({nullptr, nullptr, nullptr, piece.problem});
  }
  out.verdicts = judge(situation);
  judge_order(out);
  judge_witness(out);
  take_acceptances(job, out.verdicts);
  std::stable_sort(out.verdicts.begin(), out.verdicts.end(),
                   [](const Verdict& a, const Verdict& b) { return a.grade > b.grade; });
  return out;
}

const MachineProfile& machine_for(const Job& job) {
  const MachineProfile* machine = machine_table().find(job.run.machine);
  return machine == nullptr ? machine_table().machines.front() : *machine;
}

}  // namespace doyen
