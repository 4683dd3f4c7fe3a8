#include "stages/run/inlay_run_section.hpp"

#include "inlay/steps.hpp"

namespace doyen {

InlayRunSection::InlayRunSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(7);
  column->addWidget(make_line());
  column->addWidget(make_label(tr("From two boards to one"), "heading"));
  last_ = new QComboBox;
  last_->setObjectName(QStringLiteral("cutOutLast"));
  last_->addItems({tr("second run, after gluing"), tr("with the pockets")});
  column->addWidget(make_row(tr("Cut-out, bevels"), last_));
  zero_ = new QComboBox;
  zero_->setObjectName(QStringLiteral("keepZero"));
  zero_->addItems({tr("the same corner"), tr("two witness marks"), tr("two pins")});
  zero_->setToolTip(tr("Marks and pin holes are put into the waste at the board's ends"));
  column->addWidget(make_row(tr("Zero again by"), zero_));
  mill_ = new LengthField(range_of("run.millLevel"), true);
  mill_->setObjectName(QStringLiteral("millLevel"));
  mill_->setPlaceholderText(tr("by hand"));
  mill_->setToolTip(tr("How far the saw leaves the plugs standing above the face, to be milled level"));
  column->addWidget(make_row(tr("Mill level from"), mill_));
  steps_ = make_label({}, "plain");
  steps_->setObjectName(QStringLiteral("inlaySteps"));
  steps_->setTextFormat(Qt::RichText);
  column->addWidget(steps_);
  connect(last_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(i == 0 ? tr("cut out after gluing") : tr("cut out with the pockets"),
                        [&](Job& job) { job.run.cut_out_last = i == 0; });
  });
  connect(zero_, &QComboBox::activated, this, [this](int i) {
    shop_.document.edit(tr("find zero again by %1").arg(zero_->itemText(i)),
                        [&](Job& job) { keep_zero_by(job, static_cast<KeepZero>(i), shop_.rack); });
  });
  connect(mill_, &LengthField::entered, this, [this](std::optional<double> mm) {
    shop_.document.edit(mm ? tr("mill the plugs level") : tr("level the plugs by hand"),
                        [&](Job& job) { job.run.mill_level = mm; });
  });
}

void InlayRunSection::refresh() {
  const RunSettings& run = shop_.document.job().run;
  const std::vector<InlayStep> steps = shop_.plan ? inlay_steps(*shop_.plan) : std::vector<InlayStep>{};
  setVisible(!steps.empty());
  last_->setCurrentIndex(run.cut_out_last ? 0 : 1);
  zero_->setCurrentIndex(static_cast<int>(run.keep_zero));
  mill_->show_length(run.mill_level, shop_.document.job().lengths);
  QString words;
  int found = 0;
  for (const Item& item : shop_.document.job().items) found += is_zero_mark(item);
  if (run.keep_zero != KeepZero::Corner && found < 2)
    words =
        tr("<p style='color:#9C3B2E'>There is no clear place in the waste for both: leave more wood at the ends, or "
           "find zero again by the corner.</p>");
  int number = 0;
  for (const InlayStep& step : steps) {
    words += QStringLiteral("<p style='margin: 4px 0'><b>%1. %2.</b> %3")
                 .arg(QString::number(++number), QString::fromStdString(step.board).toHtmlEscaped(),
                      QString::fromStdString(step.words).toHtmlEscaped());
    if (!step.caution.empty())
      words += QStringLiteral(" <span style='color:#9C3B2E'>%1</span>")
                   .arg(QString::fromStdString(step.caution).toHtmlEscaped());
    words += QStringLiteral("</p>");
  }
  steps_->setText(words);
}

}  // namespace doyen
