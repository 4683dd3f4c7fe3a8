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

QList<QCheckBox*> LookSection::add_clearing_boxes(QVBoxLayout* column) {
  QList<QCheckBox*> all;
  auto* boxes = new QWidget;
  auto* grid = new QGridLayout(boxes);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(2);
  for (const Bit& bit : shop_.rack.bits) {
    if (bit.kind != BitKind::Flat) continue;
    auto* box = new QCheckBox(QString::fromStdString(bit.name));
    box->setProperty("bit", QString::fromStdString(bit.id));
    grid->addWidget(box, static_cast<int>(all.size()) / 2, static_cast<int>(all.size()) % 2);
    all << box;
    connect(box, &QCheckBox::clicked, this, [this, box](bool on) {
      const std::string id = box->property("bit").toString().toStdString();
      edit(on ? tr("clear with the %1").arg(box->text()) : tr("leave out the %1").arg(box->text()), [&](Treatment& t) {
        std::erase(t.clearing, id);
        if (on) t.clearing.push_back(id);
      });
    });
  }
  column->addWidget(boxes);
  return all;
}

void LookSection::tick_clearing(const QList<QCheckBox*>& boxes, const Treatment& cut) {
  for (QCheckBox* box : boxes) {
    const std::string id = box->property("bit").toString().toStdString();
    box->setChecked(std::find(cut.clearing.begin(), cut.clearing.end(), id) != cut.clearing.end());
  }
}

}  // namespace doyen
