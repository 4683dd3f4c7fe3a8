#include "stages/blank/off_cuts_button.hpp"

#include <QVBoxLayout>

#include "parts/cards.hpp"
#include "problem.hpp"

namespace doyen {

OffCutsButton::OffCutsButton(Workshop& shop, const char* name, std::function<double()> narrowest, Take takes)
    : shop_(shop), narrowest_(std::move(narrowest)), takes_(std::move(takes)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* button = new QPushButton(tr("Add the off-cuts of this wood"));
  button->setObjectName(QLatin1String(name));
  button->setToolTip(tr("Those kept under Off-cuts that are as thick as this board"));
  column->addWidget(button, 0, Qt::AlignLeft);
  says_ = make_label({}, "error");
  says_->setObjectName(QLatin1String(name) + QStringLiteral("Says"));
  says_->hide();
  column->addWidget(says_);
  connect(button, &QPushButton::clicked, this, &OffCutsButton::take);
}

void OffCutsButton::take() {
  says_->hide();
  try {
    const Blank& blank = shop_.document.job().blank;
    std::vector<Sides> sides;
    for (const OffCut& one : load_off_cuts()) {
      const Sides lies = blank.grain == Grain::AlongWidth ? Sides{one.along, one.across} : Sides{one.across, one.along};
      if (as_thick(one, blank) && lies.height >= narrowest_() - 1e-6) sides.push_back(lies);
    }
    if (sides.empty())
      throw bad_input(tr("None is kept that is of this wood, as thick and large enough.").toStdString());
    takes_(sides);
  } catch (const Problem& problem) {
    says_->setText(QString::fromUtf8(problem.what()));
    says_->show();
  }
}

}  // namespace doyen
