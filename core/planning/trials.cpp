#include "planning/trials.hpp"

#include "grounds/grounds.hpp"
#include "machine/motion.hpp"
#include "run/placement.hpp"
#include "stock/species.hpp"
#include "treatments/suits.hpp"

namespace doyen {

Trial try_cut(const Plan& plan, const Rack& rack, const std::string& id, const Treatment& cut, const Cancel& cancel) {
  Trial trial;
  const PiecePlan* piece = plan.piece(id);
  if (piece == nullptr || !piece->problem.empty()) return trial;
  const std::string wood = wood_class_of(plan.job.blank);
  const Rack own = rack_for(plan.job, rack);
  const MachineProfile machine = machine_along_board(plan.machine, plan.job.run.on_bed);
  const Travel travel = travel_of(plan.job, plan.machine, cut.back ? Side::Back : Side::Front);
  for (const PartOnGround& part : parts_on_grounds(piece->outlines, piece->around)) {
    const PieceCuts cuts = cut_piece(id, part.outlines, cut, plan.job.blank, own, cancel, part.around);
    trial.unreached += cuts.unreached.area;
    trial.deepest = std::max(trial.deepest, cuts.deepest);
    trial.cuts = trial.cuts || !cuts.operations.empty();
    for (const Operation& op : cuts.operations) {
      Feeds feeds = own.find(op.bit)->feeds_in(wood);
      feeds.feed *= op.feed_share;
      trial.seconds += run_time(op.passes, feeds, machine, {}, &travel, own.find(op.bit)->kind).seconds;
    }
  }
  return trial;
}

BitChoice BitChoice::clearing_alone() {
  return {[](const Bit& bit, double deepest, const Treatment& cut, const Bit* own) {
            return clears(bit, cut, own) && bit.flute_length + 1e-6 >= deepest;
          },
          [](Treatment& cut, const BitId& bit) { cut.clearing = {bit}; }};
}

BitChoice BitChoice::its_bit(std::optional<BitKind> of_kind) {
  return {[of_kind](const Bit& bit, double, const Treatment&, const Bit*) {
            return of_kind ? bit.kind == *of_kind : bit.kind != BitKind::Keyhole;
          },
          [](Treatment& cut, const BitId& bit) { cut.bit = bit; }};
}

void try_bits(const Plan& plan, const Rack& rack, const std::string& id, const BitChoice& choice, const Cancel& cancel,
              const std::function<void(const std::string& bit, const Trial&)>& tell) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr) return;
  const std::string wood = wood_class_of(plan.job.blank);
  const Rack own = rack_for(plan.job, rack);
  const Bit* its = own.find(item->cut.bit);
  for (const Bit& bit : own.bits) {
    if (!bit.feeds_in(wood).known() || !choice.offers(bit, piece->cuts.deepest, item->cut, its)) continue;
    cancel.check();
    Treatment cut = item->cut;
    choice.take(cut, bit.id);
    if (const Trial trial = try_cut(plan, rack, id, cut, cancel); trial.cuts) tell(bit.id, trial);
  }
}

}  // namespace doyen
