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

// What is likely at this machine for so many seconds that are told, in words; `besides`, s, is added as it is: the
// changes of bits.
QString likely_in_words(double told, const std::string& machine, double besides = 0);

}  // namespace doyen
