#include "shell/display_dialog.hpp"

#include <QDialogButtonBox>
#include <QPushButton>
#include <QRadioButton>
#include <QScreen>
#include <QSettings>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "parts/cards.hpp"
#include "work/language.hpp"

namespace doyen {
namespace {

constexpr int kPercents[] = {100, 115, 130, 150, 175, 200};
const QString kKey = QStringLiteral("size");

}  // namespace

double chosen_size() {
  const double size = QSettings().value(kKey, 1.0).toDouble();
  return std::isfinite(size) ? std::clamp(size, 1.0, 2.0) : 1;
}

void take_chosen_size() {
  // What the person who starts it says goes before what was chosen once.
  if (const double size = chosen_size(); size > 1 && qEnvironmentVariableIsEmpty("QT_SCALE_FACTOR"))
    qputenv("QT_SCALE_FACTOR", QByteArray::number(size));
}

DisplayDialog::DisplayDialog(const QSize& least, QWidget* parent) : QDialog(parent), sizes_(new QButtonGroup(this)) {
  setObjectName(QStringLiteral("display"));
  setWindowTitle(tr("Language and size"));
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(tr("Both go from the next time that Doyen starts. Nothing of a job changes."), "faded"));
  language_ = new QComboBox;
  language_->setObjectName(QStringLiteral("language"));
  for (const Language& one : languages()) language_->addItem(one.name, one.code);
  language_->setCurrentIndex(std::max(0, language_->findData(chosen_language())));
  column->addWidget(make_row(tr("Language"), language_));
  column->addWidget(make_label(tr("How large should words, figures and pictures be?"), "heading"));
  const double set = qEnvironmentVariable("QT_SCALE_FACTOR", QStringLiteral("1")).toDouble();
  const double drawn = set > 0 ? set : 1;
  const int now = static_cast<int>(std::lround(100 * chosen_size()));
  for (const int percent : kPercents) {
    auto* size = new QRadioButton(percent == 100 ? tr("as the desktop has it") : tr("%1 % of that").arg(percent));
    size->setObjectName(QStringLiteral("size%1").arg(percent));
    const QSizeF needs = QSizeF(least) * (percent / 100.0 / drawn);
    if (const QScreen* on = screen();
        on != nullptr && percent > 100 &&
        (needs.width() > on->availableSize().width() || needs.height() > on->availableSize().height())) {
      size->setEnabled(false);
      size->setText(tr("%1 % of that: this screen is too small for it").arg(percent));
    }
    size->setChecked(percent == now);
    sizes_->addButton(size, percent);
    column->addWidget(size);
  }
  auto* buttons = new QDialogButtonBox;
  buttons->addButton(tr("Keep it"), QDialogButtonBox::AcceptRole)->setObjectName(QStringLiteral("keepSize"));
  buttons->addButton(tr("Cancel"), QDialogButtonBox::RejectRole);
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::accepted, this, &DisplayDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
}

void DisplayDialog::accept() {
  if (language_->currentData().toString() != chosen_language()) choose_language(language_->currentData().toString());
  if (sizes_->checkedId() > 0) QSettings().setValue(kKey, sizes_->checkedId() / 100.0);
  QDialog::accept();
}

}  // namespace doyen
