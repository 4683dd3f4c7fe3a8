// Which bit sits in which numbered place of a machine's changer: asked for every bit of the rack.
#pragma once

#include <QWidget>
#include <utility>
#include <vector>

#include "machine/profile.hpp"
#include "parts/figure_field.hpp"

namespace doyen {

class MachinePlaces : public QWidget {
  Q_OBJECT
 public:
  explicit MachinePlaces(QWidget* parent = nullptr);
  void show_machine(const MachineProfile& machine);

 Q_SIGNALS:
  void entered(const QString& bit, int place);  // 0: none

 private:
  std::vector<std::pair<std::string, FigureField*>> fields_;  // by bit id
};

}  // namespace doyen
