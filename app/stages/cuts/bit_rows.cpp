#include "stages/cuts/bit_rows.hpp"

#include "treatments/suits.hpp"

namespace doyen {

BitRows::BitRows(Workshop& shop) : shop_(shop), column_(new QVBoxLayout(this)), trials_(shop) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(1);
  // Typing ahead of it does not make it begin again and again.
  soon_.setSingleShot(true);
  soon_.setInterval(250);
  connect(&soon_, &QTimer::timeout, this, [this] {
    if (isVisible()) trials_.ask();
  });
  connect(&trials_, &BitTrials::told, this, [this](const QString& bit, const Trial& trial) {
    for (const Row& row : rows_) {
      if (row.bit != bit) continue;
      say(row, trials_.in_words(bit, trial));
      row.says->setToolTip(tr("If it alone cleared the floors, with whatever else cuts this piece"));
    }
  });
  connect(&trials_, &BitTrials::ended, this, [this] {
    for (const Row& row : rows_) {
      if (row.says->text().isEmpty() && row.line->isVisibleTo(this)) say(row, tr("cannot be used here"));
    }
  });
  make_rows();
}

void BitRows::say(const Row& row, const QString& words) {
  row.says->setText(words);
  row.box->setAccessibleDescription(words);
}

void BitRows::make_rows() {
  QStringList flats;
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.levels() >= kLeastTip)
      flats << QString::fromStdString(bit.id) + QChar(0x1f) + QString::fromStdString(bit.name);
  }
  QStringList shown;
  for (const Row& row : rows_) shown << row.bit + QChar(0x1f) + row.box->text();
  if (shown == flats && !rows_.isEmpty()) return;
  clear_layout(column_);
  rows_.clear();
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.levels() < kLeastTip) continue;
    auto* line = new QWidget;
    auto* row = new QHBoxLayout(line);
    row->setContentsMargins(0, 0, 0, 0);
    auto* box = new QCheckBox(QString::fromStdString(bit.name));
    const QString id = QString::fromStdString(bit.id);
    box->setProperty("bit", id);
    auto* says = new QLabel;
    says->setProperty("role", QStringLiteral("faded"));
    says->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row->addWidget(box);
    row->addWidget(says, 1);
    column_->addWidget(line);
    rows_ << Row{id, box, says, line};
    connect(box, &QCheckBox::clicked, this, [this, id, box](bool on) { Q_EMIT ticked(id, box->text(), on); });
  }
  trials_.forget();
}

void BitRows::refresh(const Item& item, const PiecePlan* piece) {
  make_rows();
  proposed_.clear();
  if (piece != nullptr) {
    for (const std::string& id : piece->cuts.bits) {
      const Bit* bit = shop_.rack.find(id);
      proposed_ << QString::fromStdString(bit == nullptr ? id : bit->name);
    }
  }
  const std::vector<BitId>& chosen = item.cut.clearing;
  const Bit* own = shop_.rack.find(item.cut.bit);
  for (const Row& row : rows_) {
    const std::string id = row.bit.toStdString();
    const bool on = std::find(chosen.begin(), chosen.end(), id) != chosen.end();
    const Bit* bit = shop_.rack.find(id);
    row.box->setChecked(on);
    row.line->setVisible(on || (bit != nullptr && clears(*bit, item.cut, own)));  // cones only where walls slope
  }
  if (trials_.look_at(BitChoice::clearing_alone(), item, piece)) return;
  for (const Row& row : rows_) say(row, {});
  if (isVisible()) soon_.start();
}

void BitRows::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (!trials_.known()) soon_.start();
}

QString BitRows::summary() const {
  QStringList names;
  for (const Row& row : rows_) {
    if (row.box->isChecked()) names << row.box->text();
  }
  if (!names.isEmpty()) return names.join(QStringLiteral(", "));
  return proposed_.isEmpty() ? tr("none") : tr("proposed: %1").arg(proposed_.join(QStringLiteral(", ")));
}

}  // namespace doyen
