#include "stages/run/left_over_section.hpp"

#include <algorithm>

#include "bench/bench.hpp"
#include "parts/cards.hpp"
#include "problem.hpp"

namespace doyen {

LeftOverSection::LeftOverSection(Workshop& shop)
    : Fold(tr("What is left of the board"), QStringLiteral("leftOverOpen")), shop_(shop) {
  set_summary(tr("kept among the off-cuts"));
  about_ = make_label({}, "faded");
  about_->setObjectName(QStringLiteral("leftOverAbout"));
  body()->addWidget(about_);
  rows_ = new QVBoxLayout;
  rows_->setSpacing(4);
  body()->addLayout(rows_);
  connect(this, &Fold::opened, this, &LeftOverSection::refresh);
  connect(this, &Fold::closed, this, [this] { shop_.bench->show_highlight({}); });
}

void LeftOverSection::refresh() {
  const Job& job = shop_.document.job();
  const bool cut_out = std::any_of(job.items.begin(), job.items.end(),
                                   [](const Item& item) { return item.cut.kind == Treatment::Kind::CutOut; });
  setVisible(cut_out && !job.made_as_others());
  if (!open() || !shop_.plan || shop_.bench->stage() != Stage::Run) return;
  if (shop_.plan == of_) return waiting_ ? void() : light();
  of_ = shop_.plan;
  waiting_ = true;
  about_->setText(tr("The wood that is left is being looked for…"));
  clear_layout(rows_);
  behind_.start(
      [this, plan = of_](const Cancel& cancel, const Behind::Tell& tell) {
        std::vector<LeftOver> found = left_over(*plan, cancel);
        tell([this, found = std::move(found)] { found_ = found; });
      },
      [this](bool well) {
        waiting_ = false;
        if (!well) found_.clear();
        show_found();
      });
}

void LeftOverSection::show_found() {
  clear_layout(rows_);
  const LengthStyle& lengths = shop_.document.job().lengths;
  about_->setText(
      found_.empty()
          ? tr("Nothing worth keeping: under %1 wide or %2.")
                .arg(shop_.show(kLeastLeftOver), QString::fromStdString(format_area(kLeastLeftOverArea, lengths)))
          : tr("Sawn from what stays when the sign is out, %1 from every cut.").arg(shop_.show(kBesideCuts)));
  for (std::size_t i = 0; i < found_.size(); ++i) {
    rows_->addWidget(
        make_label(QString::fromStdString(off_cut_in_words(found_[i].off_cut, shop_.document.job().lengths)), "plain"));
    auto* row = new QWidget;
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 4);
    auto* place = new QLineEdit;
    place->setObjectName(QStringLiteral("leftOverPlace%1").arg(i));
    place->setMaxLength(60);
    place->setPlaceholderText(tr("where it lies"));
    place->setAccessibleName(tr("where it lies"));
    line->addWidget(place, 1);
    auto* button = new QPushButton(tr("Keep it"));
    button->setObjectName(QStringLiteral("keepLeftOver%1").arg(i));
    line->addWidget(button);
    connect(button, &QPushButton::clicked, this, [this, i, place, button] { keep(i, place, button); });
    rows_->addWidget(row);
  }
  light();
}

void LeftOverSection::light() {
  std::vector<Region> regions;
  for (const LeftOver& one : found_) regions.push_back(region_of(one.box));
  shop_.bench->show_highlight(regions);
}

void LeftOverSection::keep(std::size_t i, QLineEdit* place, QPushButton* button) {
  OffCut one = found_[i].off_cut;
  one.place = place->text().trimmed().toStdString();
  try {
    const std::string aside = keep_off_cut(one);
    button->setText(tr("kept"));
    button->setEnabled(false);
    place->setEnabled(false);
    about_->setText(
        aside.empty() ? tr("It stands among the off-cuts now, under Blank.")
                      : tr("The off-cuts could not be read and were put aside: %1").arg(QString::fromStdString(aside)));
  } catch (const Problem& problem) {
    about_->setText(QString::fromUtf8(problem.what()));
  }
}

}  // namespace doyen
