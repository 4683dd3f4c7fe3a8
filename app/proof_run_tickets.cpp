#include "planning/outputs.hpp"
#include "theme.hpp"
#include "tickets.hpp"

namespace doyen {

ProofTicket::ProofTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("Proof"));
  summary_ = make_label({}, "faded");
  column_->addWidget(summary_);
  verdicts_ = new VerdictList(shop_);
  column_->addWidget(verdicts_);
  add_rule();
  time_ = new NumberCard(tr("Time at the machine"));
  column_->addWidget(time_);
  runs_ = new QVBoxLayout;
  runs_->setSpacing(6);
  column_->addLayout(runs_);
  column_->addStretch();
}

void ProofTicket::refresh() {
  if (!shop_.plan) return;
  const Plan& plan = *shop_.plan;
  const int stops = plan.count(Grade::Stop), minds = plan.count(Grade::Mind);
  summary_->setText(stops > 0   ? (stops == 1 ? tr("One thing would spoil wood, break a bit or be unsafe.")
                                              : tr("%1 things would spoil wood, break a bit or be unsafe.").arg(stops))
                    : minds > 0 ? (minds == 1 ? tr("Nothing stops it; one thing to look at.")
                                              : tr("Nothing stops it; %1 things to look at.").arg(minds))
                                : tr("Nothing stands against it. The board will look as shown."));
  verdicts_->show_for({}, true);
  time_->show_number(QString::fromStdString(format_duration(plan.seconds)),
                     tr("by acceleration and corners, not length over feed"), time_sum(plan));
  clear_layout(runs_);
  const bool inch = plan.job.lengths.unit == Unit::Inch;
  for (std::size_t i = 0; i < plan.runs.size(); ++i) {
    const BitRun& run = plan.runs[i];
    auto* card = new NumberCard(QString::fromStdString(run.bit.name));
    const double k = inch ? kMmPerInch : 1;
    Sum sum = run_time_sum(plan, i);
    const Sum chip = chip_sum(plan, i);
    sum.lines.push_back(chip.title + ": " + chip.lines.back() + " " + chip.result);
    card->show_number(QString::fromStdString(format_duration(run.time.seconds)),
                      tr("reaches %1 of %2 %3")
                          .arg(run.time.reached_feed() / k, 0, 'f', 0)
                          .arg(run.feeds.feed / k, 0, 'f', 0)
                          .arg(inch ? tr("in/min") : tr("mm/min")),
                      sum);
    runs_->addWidget(card);
  }
}

RunTicket::RunTicket(Workshop& shop) : Ticket(shop) {
  add_title(tr("Run"));
  machine_ = new QComboBox;
  for (const MachineProfile& m : machine_table().machines)
    machine_->addItem(QString::fromStdString(m.name), QString::fromStdString(m.id));
  add_row(tr("Machine takes"), machine_);
  files_ = new QComboBox;
  files_->addItems({tr("one file per bit"), tr("one file with pauses")});
  add_row(tr("Files"), files_);
  surface_ = new QComboBox;
  surface_->addItems({tr("on the blank's face"), tr("on the bed")});
  place_ = new QComboBox;
  place_->addItems({tr("at the left front corner"), tr("in the middle")});
  add_row(tr("Zero is taken"), surface_);
  add_row(QString(), place_);
  zero_ = make_label({}, "faded");
  column_->addWidget(zero_);
  least_ = new LengthField(0, 200);
  add_row(tr("Wood kept under"), least_);
  holding_ = new QLineEdit;
  add_row(tr("Held down by"), holding_);
  add_rule();
  add_heading(tr("Bits, in this order"));
  order_ = make_label({}, "plain");
  order_->setTextFormat(Qt::RichText);
  column_->addWidget(order_);
  add_rule();
  add_heading(tr("Before you start"));
  column_->addWidget(
      make_label(tr("Eyes and ears covered, dust extraction on, no loose sleeves. Work held so that it cannot lift. "
                    "Spindle still, machine locked or unplugged, before a bit is changed. Stop within reach. "
                    "The machine's own instructions and local rules come first."),
                 "faded"));
  written_ = make_label({}, "plain");
  written_->setObjectName(QStringLiteral("written"));
  written_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  column_->addWidget(written_);
  column_->addStretch();

  connect(machine_, &QComboBox::activated, this, [this] {
    shop_.document.edit(tr("choose the machine"),
                        [&](Job& job) { job.run.machine = machine_->currentData().toString().toStdString(); });
  });
  connect(files_, &QComboBox::activated, this,
          [this](int i) { shop_.document.edit(tr("change the files"), [&](Job& job) { job.run.one_file = i == 1; }); });
  connect(surface_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("move zero"),
                        [&](Job& job) { job.run.zero_surface = i == 1 ? ZeroSurface::Bed : ZeroSurface::Face; });
  });
  connect(place_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("move zero"),
                        [&](Job& job) { job.run.zero_place = i == 1 ? ZeroPlace::Centre : ZeroPlace::LeftFront; });
  });
  connect(least_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(tr("change the wood kept under grooves"), [&](Job& job) { job.run.least_wood = *mm; });
  });
  connect(holding_, &QLineEdit::editingFinished, this, [this] {
    shop_.document.edit(tr("say how it is held"), [&](Job& job) { job.run.holding = holding_->text().toStdString(); });
  });
}

void RunTicket::refresh() {
  const Job& job = shop_.document.job();
  machine_->setCurrentIndex(machine_->findData(QString::fromStdString(job.run.machine)));
  files_->setCurrentIndex(job.run.one_file ? 1 : 0);
  surface_->setCurrentIndex(job.run.zero_surface == ZeroSurface::Bed ? 1 : 0);
  place_->setCurrentIndex(job.run.zero_place == ZeroPlace::Centre ? 1 : 0);
  zero_->setText(tr("Zero: %1, the same for every bit.").arg(QString::fromStdString(zero_in_words(job))));
  least_->show_length(job.run.least_wood, job.lengths);
  if (!holding_->hasFocus()) {
    holding_->setText(QString::fromStdString(job.run.holding));
    holding_->setCursorPosition(0);
    holding_->setToolTip(holding_->text());
  }
  if (!shop_.plan) return;
  QString order;
  int i = 0;
  for (const BitRun& run : shop_.plan->runs) {
    const QString file = job.run.one_file && shop_.plan->runs.size() > 1 ? QStringLiteral("01-all-bits.nc")
                                                                         : QString::fromStdString(run.file);
    order += QStringLiteral(
                 "<p style='margin:0 0 7px 0'><span style='color:%1'>■</span> <b>%2. %3</b><br><span "
                 "style='color:#6E675C'>%4 · %5 · deepest %6</span></p>")
                 .arg(theme::dye(i).name())
                 .arg(i + 1)
                 .arg(QString::fromStdString(run.bit.name).toHtmlEscaped(), file,
                      QString::fromStdString(format_duration(run.time.seconds)), shop_.show(run.deepest));
    ++i;
  }
  order_->setText(order.isEmpty() ? tr("Nothing is cut yet.") : order);
}

void RunTicket::show_written(const QString& words, bool fine) {
  written_->setStyleSheet(fine ? QStringLiteral("color: #3E5E40;") : QStringLiteral("color: #9C3B2E;"));
  QString breakable = words;  // a long path may wrap after each of its folders
  written_->setText(breakable.replace(QLatin1Char('/'), QStringLiteral("/\u200B"))
                        .replace(QLatin1Char('-'), QStringLiteral("-\u200B")));
}

}  // namespace doyen
