#include "stages/log/outcome_dialog.hpp"

#include <QDialogButtonBox>
#include <algorithm>

#include "parts/cards.hpp"

namespace doyen {
namespace {

constexpr std::size_t kRows = 4;
enum Said { Nothing, Fine, Faulty };

}  // namespace

OutcomeDialog::OutcomeDialog(const LogEntry& entry, const LengthStyle& lengths, QWidget* parent)
    : QDialog(parent), took_before_(entry.took) {
  setWindowTitle(tr("How it came out"));
  setObjectName(QStringLiteral("outcomeDialog"));
  auto* column = new QVBoxLayout(this);
  column->addWidget(make_label(QString::fromStdString(entry.job), "heading"));
  outcome_ = new QComboBox;
  outcome_->setObjectName(QStringLiteral("outcomeAnew"));
  outcome_->addItems({tr("not said yet"), tr("well"), tr("something went wrong")});
  outcome_->setCurrentIndex(entry.well ? Fine : entry.mishaps.empty() ? Nothing : Faulty);
  column->addWidget(make_row(tr("It came out"), outcome_));
  for (std::size_t i = 0; i < std::max(kRows, entry.mishaps.size()); ++i) {
    auto* row = new MishapRow;
    row->show_bits(entry.bits, lengths);
    if (i < entry.mishaps.size()) row->show_seen(entry.mishaps[i]);
    rows_.push_back(row);
    column->addWidget(row);
    connect(row, &MishapRow::changed, this, &OutcomeDialog::show_rows);
  }
  took_ = new QDoubleSpinBox;
  took_->setObjectName(QStringLiteral("tookAnew"));
  took_->setRange(0, 100'000);
  took_->setDecimals(1);
  took_->setSuffix(tr(" min"));
  took_->setSpecialValueText(tr("not said"));
  took_->setValue(entry.took / 60);
  shown_before_ = took_->value();
  column->addWidget(make_row(tr("The machine ran for"), took_));
  column->addStretch();
  auto* box = new QDialogButtonBox(QDialogButtonBox::Cancel);
  keep_ = box->addButton(tr("Keep it"), QDialogButtonBox::AcceptRole);
  keep_->setObjectName(QStringLiteral("keepOutcome"));
  column->addWidget(box);
  connect(box, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(box, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(outcome_, &QComboBox::currentIndexChanged, this, &OutcomeDialog::show_rows);
  resize(420, 260);
  show_rows();
}

bool OutcomeDialog::well() const { return outcome_->currentIndex() == Fine; }

std::vector<MishapSeen> OutcomeDialog::mishaps() const {
  return outcome_->currentIndex() == Faulty ? said_in(rows_) : std::vector<MishapSeen>{};
}

double OutcomeDialog::took() const { return took_->value() == shown_before_ ? took_before_ : took_->value() * 60; }

void OutcomeDialog::show_rows() {
  show_as_needed(rows_, outcome_->currentIndex() == Faulty);
  keep_->setEnabled(outcome_->currentIndex() != Faulty || !mishaps().empty());
}

}  // namespace doyen
