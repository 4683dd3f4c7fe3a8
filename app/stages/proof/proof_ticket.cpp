#include "stages/proof/proof_ticket.hpp"

#include "parts/theme.hpp"
#include "planning/outputs.hpp"
#include "stages/run/timing_section.hpp"

namespace doyen {

ProofTicket::ProofTicket(Workshop& shop, FitKeeper& keeper) : Ticket(shop) {
  add_title(tr("Proof"));
  summary_ = make_label({}, "faded");
  column_->addWidget(summary_);
  judged_words_ << summary_;
  judged_ = make_label({}, "faded");
  judged_->setObjectName(QStringLiteral("judged"));
  column_->addWidget(judged_);
  fit_ = new FitSection(shop_, keeper);
  column_->addWidget(fit_);
  verdicts_ = new VerdictList(shop_);
  column_->addWidget(verdicts_);
  add_rule();
  time_ = new NumberCard(tr("Time at the machine"));
  column_->addWidget(time_);
  by_bit_ = new Fold(tr("Bit by bit"), QStringLiteral("byBitOpen"), true);
  by_bit_->body()->setSpacing(6);
  column_->addWidget(by_bit_);
  column_->addStretch();
}

void ProofTicket::refresh() {
  fit_->refresh();
  if (!shop_.plan) return;
  const Plan& plan = *shop_.seen();
  const int stops = plan.count(Grade::Stop), minds = plan.count(Grade::Mind);
  summary_->setText(
      stops > 0   ? (stops == 1 ? tr("One thing would spoil wood, break a bit or be unsafe.")
                                : tr("%1 things would spoil wood, break a bit or be unsafe.").arg(stops))
      : minds > 0 ? (minds == 1 ? tr("Nothing stops it; 1 warning.") : tr("Nothing stops it; %1 warnings.").arg(minds))
                  : tr("No problems found. The board will look as shown."));
  judged_->setText(shop_.judgement
                       ? tr("The files, read back and carved in the computer: %1.")
                             .arg(QString::fromStdString(judged_in_words(*shop_.judgement, plan.job.lengths)))
                   : shop_.judged ? QString()
                                  : tr("The files are being read back and carved in the computer…"));
  judged_->setVisible(!judged_->text().isEmpty());
  // What stops the work comes first; else the inlay's fit does.
  column_->removeWidget(verdicts_);
  column_->insertWidget(column_->indexOf(fit_) + (stops > 0 ? 0 : 1), verdicts_);
  verdicts_->show_for({}, true);
  double cutting = 0;
  for (const BitRun& run : plan.runs) cutting += run.time.seconds;
  time_->show_number(QString::fromStdString(format_duration(plan.seconds)),
                     likely_in_words(cutting, plan.machine.id, plan.seconds - cutting),
                     [plan = shop_.seen()] { return time_sum(*plan); });
  clear_layout(by_bit_->body());
  by_bit_->set_summary(plan.runs.size() == 1 ? tr("1 bit") : tr("%1 bits").arg(plan.runs.size()));
  for (std::size_t i = 0; i < plan.runs.size(); ++i) {
    const BitRun& run = plan.runs[i];
    auto* card = new NumberCard(QString::fromStdString(run.bit.name));
    card->show_number(QString::fromStdString(format_duration(run.time.seconds)),
                      tr("averages %1").arg(speed_of_asked(run.time.reached_feed(), run.feeds.feed, plan.job.lengths)),
                      [plan = shop_.seen(), i] { return run_sum(*plan, i); });
    by_bit_->body()->addWidget(card);
  }
}

}  // namespace doyen
