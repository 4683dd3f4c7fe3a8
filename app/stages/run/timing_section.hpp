// The Run ticket's part for after the run: how long the machine really took, and what is likely from then on.
#pragma once

#include <QDoubleSpinBox>
#include <QPushButton>

#include "parts/fold.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class TimingSection : public QWidget {
  Q_OBJECT
 public:
  explicit TimingSection(Workshop& shop);
  void refresh();

 private:
  [[nodiscard]] double told() const;  // s, of the plan's files without bit changes
  void keep();
  void change(const std::function<void()>& work);  // a failure is said
  Workshop& shop_;
  Fold* fold_;
  QDoubleSpinBox* took_;  // minutes
  QPushButton *keep_, *forget_;
  QLabel* says_;
};

}  // namespace doyen
