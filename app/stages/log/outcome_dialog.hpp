// How a run of the log came out, said anew: well or what went wrong, and how long the machine ran.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QPushButton>

#include "stages/run/mishap_row.hpp"

namespace doyen {

class OutcomeDialog : public QDialog {
  Q_OBJECT
 public:
  OutcomeDialog(const LogEntry& entry, const LengthStyle& lengths, QWidget* parent);
  [[nodiscard]] bool well() const;
  [[nodiscard]] std::vector<MishapSeen> mishaps() const;
  [[nodiscard]] double took() const;  // s; 0: not said

 private:
  void show_rows();
  QComboBox* outcome_;
  std::vector<MishapRow*> rows_;
  QDoubleSpinBox* took_;
  double took_before_, shown_before_;  // s as it was kept, and minutes as they were shown
  QPushButton* keep_;
};

}  // namespace doyen
