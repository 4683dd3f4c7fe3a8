#include "planning/trials.hpp"

#include "grounds/grounds.hpp"
#include "machine/motion.hpp"
#include "stock/species.hpp"

namespace doyen {

Trial try_cut(const Plan& plan, const Rack& rack, const std::string& id, const Treatment& cut, const Cancel& cancel) {
  Trial trial;
  const PiecePlan* piece = plan.piece(id);
  if (piece == nullptr || !piece->problem.empty()) return trial;
  const std::string wood = wood_class_of(plan.job.blank);
  const Rack own = rack_for(plan.job, rack);
  const Travel travel = travel_of(plan.job, plan.machine, cut.back ? Side::Back : Side::Front);
  for (const PartOnGround& part : parts_on_grounds(piece->outlines, piece->around)) {
    const PieceCuts cuts = cut_piece(id, part.outlines, cut, plan.job.blank, own, cancel, part.around);
    trial.unreached += cuts.unreached.area;
    for (const Operation& op : cuts.operations) {
      Feeds feeds = own.find(op.bit)->feeds_in(wood);
      feeds.feed *= op.feed_share;
      trial.seconds += run_time(op.passes, feeds, plan.machine, {}, &travel).seconds;
    }
  }
  return trial;
}

void try_clearing(const Plan& plan, const Rack& rack, const std::string& id, const Cancel& cancel,
                  const std::function<void(const std::string& bit, const Trial&)>& tell) {
  const PiecePlan* piece = plan.piece(id);
  const Item* item = plan.job.find(id);
  if (piece == nullptr || item == nullptr) return;
  const std::string wood = wood_class_of(plan.job.blank);
  const Rack own = rack_for(plan.job, rack);
  for (const Bit& bit : own.bits) {
    if (bit.kind != BitKind::Flat || !bit.feeds_in(wood).known()) continue;
    if (bit.flute_length + 1e-6 < piece->cuts.deepest) continue;
    cancel.check();
    Treatment cut = item->cut;
    cut.clearing = {bit.id};
    tell(bit.id, try_cut(plan, rack, id, cut, cancel));
  }
}

}  // namespace doyen
