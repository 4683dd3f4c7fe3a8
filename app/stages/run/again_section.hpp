// The Run ticket's part for when a run was stopped: the rest of a file as one of its own, and what did not come through
// cut out once more, deeper.
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QPushButton>
#include <QSlider>

#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "planning/again.hpp"

namespace doyen {

class AgainSection : public QWidget {
  Q_OBJECT
 public:
  explicit AgainSection(Workshop& shop);
  void refresh();
  void unfold();  // its first field has the keys then

 Q_SIGNALS:
  void write_wanted(const QString& name, const QString& text);

 private:
  [[nodiscard]] const BitRun* run() const;
  void list_files();
  void say_place();
  void take_minutes();
  void write(const std::function<OutputFile(const Plan&, std::size_t)>& make);
  Workshop& shop_;
  Fold* fold_;
  QComboBox* file_;
  QSlider* place_;
  QDoubleSpinBox* ran_;  // minutes
  QPushButton *rest_, *deeper_;
  LengthField* more_;
  QWidget* through_;
  QLabel* says_;
  PlanPtr of_;  // whose files are listed
  bool filling_ = false;
};

}  // namespace doyen
