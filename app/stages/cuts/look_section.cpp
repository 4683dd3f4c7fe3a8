#include "stages/cuts/look_section.hpp"

namespace doyen {

LookSection::LookSection(Workshop& shop) : shop_(shop), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(7);
}

void LookSection::edit(const QString& name, const std::function<void(Treatment&)>& change) {
  if (!filling_) shop_.edit_cuts(name, [&](Item& item) { change(item.cut); });
}

void LookSection::fill_bits(QComboBox* box, std::optional<BitKind> kind, const std::string& chosen) {
  box->clear();
  for (const Bit& bit : shop_.rack.bits) {
    if (kind ? bit.kind == *kind : bit.kind != BitKind::Keyhole)
      box->addItem(QString::fromStdString(bit.name), QString::fromStdString(bit.id));
  }
  const int at = box->findData(QString::fromStdString(chosen));
  if (at < 0)
    box->addItem(tr("%1 (not in the rack)").arg(QString::fromStdString(chosen)), QString::fromStdString(chosen));
  box->setCurrentIndex(at < 0 ? box->count() - 1 : at);
}

void LookSection::connect_bits(QComboBox* box) {
  connect(box, &QComboBox::activated, this, [this, box] {
    edit(tr("take the %1").arg(box->currentText()),
         [&](Treatment& t) { t.bit = box->currentData().toString().toStdString(); });
  });
}

void LookSection::add_bit_rows() {
  clearing_ = new Fold(tr("Bits that clear the floors"), QStringLiteral("bitsOpen"));
  clearing_->body()->addWidget(make_label(tr("Large to small; with none ticked Doyen proposes"), "faded"));
  rows_ = new BitRows(shop_);
  clearing_->body()->addWidget(rows_);
  column_->addWidget(clearing_);
  connect(rows_, &BitRows::ticked, this, [this](const QString& bit, const QString& name, bool on) {
    edit(on ? tr("clear with the %1").arg(name) : tr("leave out the %1").arg(name), [&](Treatment& t) {
      const std::string id = bit.toStdString();
      std::erase(t.clearing, id);
      if (on) t.clearing.push_back(id);
    });
  });
}

void LookSection::refresh_bit_rows(const Item& item, const PiecePlan* piece) {
  rows_->refresh(item, piece);
  clearing_->set_summary(rows_->summary());
}

}  // namespace doyen
