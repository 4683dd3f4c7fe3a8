#include "stages/run/timing_section.hpp"

#include "machine/timings.hpp"
#include "problem.hpp"

namespace doyen {

TimingSection::TimingSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("After the run"), QStringLiteral("timingOpen"));
  column->addWidget(fold_);
  took_ = new QDoubleSpinBox;
  took_->setObjectName(QStringLiteral("took"));
  took_->setRange(0, 100'000);
  took_->setDecimals(1);
  took_->setSuffix(tr(" min"));
  took_->setSpecialValueText(tr("not said"));
  took_->setToolTip(tr("All files of this board together, without the time for changing bits"));
  fold_->body()->addWidget(make_row(tr("The machine ran for"), took_));
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("timingSays"));
  fold_->body()->addWidget(says_);
  keep_ = new QPushButton(tr("Keep this time"));
  keep_->setObjectName(QStringLiteral("keepTime"));
  forget_ = new QPushButton(tr("Forget the last one"));
  forget_->setObjectName(QStringLiteral("forgetTime"));
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(keep_);
  buttons->addWidget(forget_);
  buttons->addStretch();
  fold_->body()->addLayout(buttons);
  connect(took_, &QDoubleSpinBox::valueChanged, this, [this] { refresh(); });
  connect(keep_, &QPushButton::clicked, this, &TimingSection::keep);
  connect(forget_, &QPushButton::clicked, this,
          [this] { change([this] { forget_last_timing(shop_.document.job().run.machine); }); });
}

double TimingSection::told() const {
  double seconds = 0;
  if (shop_.plan) {
    for (const BitRun& run : shop_.plan->runs) seconds += run.time.seconds;
  }
  return seconds;
}

void TimingSection::keep() {
  const Timed timed{told(), 60 * took_->value()};
  change([&] {
    keep_timing(shop_.document.job().run.machine, timed);
    took_->setValue(0);
  });
}

void TimingSection::change(const std::function<void()>& work) {
  try {
    work();
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
    return;
  }
  refresh();
}

void TimingSection::refresh() {
  const std::string& machine = shop_.document.job().run.machine;
  const Timings timings = known_timings();
  const auto found = timings.of.find(machine);
  const auto times = static_cast<int>(found == timings.of.end() ? 0 : found->second.size());
  const double s = told();
  const Timed timed{s, 60 * took_->value()};
  const bool said = took_->value() > 0 && s > 0;
  keep_->setEnabled(said && !unlikely(timed));
  forget_->setVisible(times > 0);
  const QString of_plan = QString::fromStdString(format_duration(s));
  QStringList lines;
  if (said && unlikely(timed))
    lines << tr("%1 were told for these files: is it minutes, and the time of all of them?").arg(of_plan);
  else if (const std::optional<double> factor = timings.factor(machine))
    lines << (times == 1 ? tr("This machine was timed once: it takes %1 times what its figures say.")
                               .arg(QString::fromStdString(format_number(*factor, 2)))
                         : tr("This machine was timed %1 times: it takes %2 times what its figures say.")
                               .arg(times)
                               .arg(QString::fromStdString(format_number(*factor, 2))));
  else
    lines << tr("This machine was never timed here.");
  if (s > 0) lines << tr("Without changing bits: %1.").arg(QString::fromStdString(likely_in_words(s, machine)));
  says_->setText(lines.join(QLatin1Char('\n')));
  fold_->set_summary(times == 0 ? tr("never timed") : times == 1 ? tr("timed once") : tr("timed %1 times").arg(times));
}

}  // namespace doyen
