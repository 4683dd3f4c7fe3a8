#include "stages/cuts/bit_trials.hpp"

namespace doyen {

bool BitTrials::look_at(const BitChoice& choice, const Item& item, const PiecePlan* piece) {
  choice_ = choice;
  piece_ = item.piece.id;
  key_.reset();
  const Item* planned = shop_.plan ? shop_.plan->job.find(piece_) : nullptr;  // what is tried is the plan's piece
  if (piece != nullptr && piece->problem.empty() && planned != nullptr) {
    Treatment whatever = planned->cut;
    choice_.take(whatever, {});
    const Job& job = shop_.plan->job;
    key_ = {key_of_cuts(piece->outlines, whatever, job.blank, piece->around), rack_for(job, shop_.rack),
            shop_.plan->machine};
  }
  if (key_ == asked_) return true;
  behind_.stop();
  waiting_ = false;
  asked_.reset();
  return false;
}

void BitTrials::ask() {
  if (!key_ || key_ == asked_) return;
  asked_ = key_;
  waiting_ = true;
  behind_.start(
      [this, plan = shop_.plan, rack = shop_.rack, id = piece_, choice = choice_](const Cancel& cancel,
                                                                                  const Behind::Tell& tell) {
        try_bits(*plan, rack, id, choice, cancel, [&](const std::string& bit, const Trial& trial) {
          tell([this, bit = QString::fromStdString(bit), trial] { Q_EMIT told(bit, trial); });
        });
      },
      [this](bool) {
        waiting_ = false;
        Q_EMIT ended();
      });
}

QString BitTrials::in_words(const QString& bit, const Trial& trial) const {
  const LengthStyle& lengths = shop_.document.job().lengths;
  const QString time = QString::fromStdString(format_duration(trial.seconds));
  const bool all = trial.unreached < 0.005;
  const QString left = QString::fromStdString(format_area(trial.unreached, lengths));
  const Bit* known = shop_.rack.find(bit.toStdString());
  if (known != nullptr && known->kind == BitKind::V) {
    const QString deep = shop_.show(trial.deepest);
    return all ? tr("%1 deep, %2").arg(deep, time) : tr("%1 deep, %2, leaves %3").arg(deep, time, left);
  }
  return all ? tr("%1, reaches all").arg(time) : tr("%1, leaves %2").arg(time, left);
}

}  // namespace doyen
