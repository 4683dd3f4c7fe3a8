#include "stages/proof/proof_ticket.hpp"

#include <QPushButton>

#include "machine/timings.hpp"
#include "parts/theme.hpp"
#include "planning/outputs.hpp"
#include "planning/test_cut.hpp"
#include "stock/species.hpp"

namespace doyen {

ProofTicket::ProofTicket(Workshop& shop, FitKeeper& keeper) : Ticket(shop) {
  add_title(tr("Proof"));
  summary_ = make_label({}, "faded");
  column_->addWidget(summary_);
  judged_words_ << summary_;
  judged_ = make_label({}, "faded");
  judged_->setObjectName(QStringLiteral("judged"));
  column_->addWidget(judged_);
  auto* tilt = new QPushButton(tr("Take the board in your hands…"));
  tilt->setObjectName(QStringLiteral("tiltBoard"));
  tilt->setToolTip(tr("Carved, tilted and turned, under a light that you move"));
  column_->addWidget(tilt, 0, Qt::AlignLeft);
  connect(tilt, &QPushButton::clicked, this, &ProofTicket::tilt_wanted);
  fit_ = new FitSection(shop_, keeper);
  column_->addWidget(fit_);
  verdicts_ = new VerdictList(shop_);
  column_->addWidget(verdicts_);
  add_rule();
  untested_ = make_label({}, "faded");
  untested_->setObjectName(QStringLiteral("untested"));
  column_->addWidget(untested_);
  test_ = new QPushButton(tr("Make a test cut of it…"));
  test_->setObjectName(QStringLiteral("testCut"));
  test_->setToolTip(
      tr("A job of its own, on a small piece of the same wood: the narrowest and the widest stroke, a pointed "
         "corner and the tightest gap, floors, openings, lines, holes and the cut-out, cut as they are here"));
  column_->addWidget(test_, 0, Qt::AlignLeft);
  connect(test_, &QPushButton::clicked, this, &ProofTicket::test_wanted);
  time_ = new NumberCard(tr("Time at the machine"));
  column_->addWidget(time_);
  by_bit_ = new Fold(tr("Bit by bit"), QStringLiteral("byBitOpen"), true);
  by_bit_->body()->setSpacing(6);
  column_->addWidget(by_bit_);
  weak_ = new WeakSection(shop_);
  column_->addWidget(weak_);
  auto* what_if = new Fold(tr("What if…"), QStringLiteral("whatIfOpen"));
  what_if->set_summary(tr("thicker, larger, slower, another V"));
  what_if_ = new WhatIfSection(shop_);
  what_if->body()->addWidget(what_if_);
  column_->addWidget(what_if);
  column_->addStretch();
}

void ProofTicket::show_untested() {
  const Plan& plan = *shop_.seen();
  QStringList names;
  if (plan.job.run.test_of.empty()) {
    for (const BitId& id : untested(plan)) names << QString::fromStdString(plan.rack.find(id)->name);
  }
  const Species* wood = species_table().find(plan.job.blank.species);
  const QString in = QString::fromStdString(wood == nullptr ? std::string(plan.job.blank.species) : wood->name);
  untested_->setText(
      names.size() == 1
          ? tr("The %1 has no test cut in this wood yet: %2.").arg(names.front(), in)
          : tr("These have no test cut in this wood (%1) yet: %2.").arg(in, names.join(QStringLiteral(", "))));
  untested_->setVisible(!names.isEmpty());
  test_->setVisible(!names.isEmpty());
}

void ProofTicket::refresh() {
  fit_->refresh();
  what_if_->refresh();
  weak_->refresh();
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
  show_untested();
  const double cutting = plan.cutting_seconds();
  time_->show_number(QString::fromStdString(format_duration(plan.seconds)),
                     plan.job.plates.there()   ? tr("one plate alone, not its sheets")
                     : plan.job.panels.there() ? tr("as if it were one board; each panel has its own")
                     : plan.job.made_as_parts()
                         ? tr("as it is drawn; each board has its own")
                         : QString::fromStdString(likely_in_words(cutting, plan.machine.id, plan.seconds - cutting)),
                     [plan = shop_.seen()] { return time_sum(*plan); });
  clear_layout(by_bit_->body());
  const int bits = plan.runs.empty() ? 0 : plan.bit_changes() + 1;
  by_bit_->set_summary(bits == 1 ? tr("1 bit") : tr("%1 bits").arg(bits));
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
