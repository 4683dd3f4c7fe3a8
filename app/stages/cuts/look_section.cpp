#include "stages/cuts/look_section.hpp"

namespace doyen {

LookSection::LookSection(Workshop& shop) : shop_(shop), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(7);
}

void LookSection::edit(const QString& name, const std::function<void(Treatment&)>& change) {
  if (!filling_) shop_.edit_cuts(name, [&](Item& item) { change(item.cut); });
}

void LookSection::connect_bits(BitBox* box) {
  connect(box, &BitBox::taken, this, [this](const QString& bit, const QString& name) {
    edit(tr("take the %1").arg(name), [&](Treatment& t) { t.bit = bit.toStdString(); });
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
