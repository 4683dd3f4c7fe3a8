#include "stages/cuts/bit_rows.hpp"

namespace doyen {

BitRows::BitRows(Workshop& shop) : shop_(shop), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(1);
  // Typing ahead of it does not make it begin again and again.
  soon_.setSingleShot(true);
  soon_.setInterval(250);
  connect(&soon_, &QTimer::timeout, this, &BitRows::ask);
  make_rows();
}

void BitRows::make_rows() {
  QStringList flats;
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.kind == BitKind::Flat)
      flats << QString::fromStdString(bit.id) + QChar(0x1f) + QString::fromStdString(bit.name);
  }
  QStringList shown;
  for (const Row& row : rows_) shown << row.bit + QChar(0x1f) + row.box->text();
  if (shown == flats && !rows_.isEmpty()) return;
  clear_layout(column_);
  rows_.clear();
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.kind != BitKind::Flat) continue;
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
    rows_ << Row{id, box, says};
    connect(box, &QCheckBox::clicked, this, [this, id, box](bool on) { Q_EMIT ticked(id, box->text(), on); });
  }
  shown_.reset();
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
  for (const Row& row : rows_)
    row.box->setChecked(std::find(chosen.begin(), chosen.end(), row.bit.toStdString()) != chosen.end());
  piece_ = item.piece.id;
  key_.reset();
  const Item* planned = shop_.plan ? shop_.plan->job.find(piece_) : nullptr;  // what is tried is the plan's piece
  if (piece != nullptr && piece->problem.empty() && planned != nullptr) {
    Treatment whatever = planned->cut;
    whatever.clearing.clear();
    const Job& job = shop_.plan->job;
    key_ = {key_of_cuts(piece_, piece->outlines, whatever, job.blank, piece->around), rack_for(job, shop_.rack),
            shop_.plan->machine};
  }
  if (key_ == shown_) return;
  behind_.stop();
  waiting_ = false;
  for (const Row& row : rows_) {
    row.says->clear();
    row.box->setAccessibleDescription({});
  }
  shown_.reset();
  if (isVisible()) soon_.start();
}

void BitRows::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  if (key_ && key_ != shown_) soon_.start();
}

void BitRows::ask() {
  if (!isVisible() || !key_ || key_ == shown_) return;
  shown_ = key_;
  waiting_ = true;
  behind_.start(
      [this, plan = shop_.plan, rack = shop_.rack, id = piece_](const Cancel& cancel, const Behind::Tell& tell) {
        try_clearing(*plan, rack, id, cancel, [&](const std::string& bit, const Trial& trial) {
          tell([this, bit = QString::fromStdString(bit), trial] { show_trial(bit, trial); });
        });
      },
      [this](bool) {
        waiting_ = false;
        for (const Row& row : rows_) {
          if (row.says->text().isEmpty()) row.says->setText(tr("cannot be used here"));
        }
      });
}

void BitRows::show_trial(const QString& bit, const Trial& trial) {
  const LengthStyle& lengths = shop_.document.job().lengths;
  for (const Row& row : rows_) {
    if (row.bit != bit) continue;
    const QString time = QString::fromStdString(format_duration(trial.seconds));
    row.says->setText(
        trial.unreached < 0.005
            ? tr("%1, reaches all").arg(time)
            : tr("%1, leaves %2").arg(time, QString::fromStdString(format_area(trial.unreached, lengths))));
    row.box->setAccessibleDescription(row.says->text());
    row.says->setToolTip(tr("If it alone cleared the floors, with whatever else cuts this piece"));
  }
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
