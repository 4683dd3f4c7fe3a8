#include "stages/run/machine_places.hpp"

#include <QFormLayout>

#include "parts/cards.hpp"
#include "rack/own_rack.hpp"

namespace doyen {

MachinePlaces::MachinePlaces(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("machinePlaces"));
  auto* form = new QFormLayout(this);
  form->setContentsMargins(0, 0, 0, 0);
  form->setLabelAlignment(Qt::AlignLeft);
  form->addRow(
      make_label(tr("The place of each bit in the changer, 0 where it has none: T in the files calls it."), "faded"));
  for (const Bit& bit : load_rack().bits) {
    auto* field = new FigureField({0, kMostPlaces}, 0);
    field->setObjectName(QStringLiteral("place-") + QString::fromStdString(bit.id));
    field->setFixedWidth(96);
    form->addRow(QString::fromStdString(bit.name), field);
    connect(field, &FigureField::entered, this,
            [this, id = bit.id](double place) { Q_EMIT entered(QString::fromStdString(id), static_cast<int>(place)); });
    fields_.emplace_back(bit.id, field);
  }
}

void MachinePlaces::show_machine(const MachineProfile& machine) {
  setVisible(machine.bit_change == BitChange::ToolNumber);
  for (const auto& [bit, field] : fields_) field->show_figure(machine.tool_of(bit, 0));
}

}  // namespace doyen
