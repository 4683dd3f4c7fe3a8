// The first question of a new job: what board is it for, and in which unit is it measured? What was answered last is
// offered.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLineEdit>

#include "job/job.hpp"
#include "parts/length_field.hpp"

namespace doyen {

class NewBoard : public QDialog {
  Q_OBJECT
 public:
  explicit NewBoard(QWidget* parent);
  // An empty job on that board.
  [[nodiscard]] Job job() const;
  void accept() override;  // and remembers it for the next

 private:
  [[nodiscard]] LengthStyle style() const;
  void show_lengths();
  Job asked_;
  QLineEdit* name_;
  QComboBox *unit_, *wood_;
  LengthField *width_, *height_, *thick_, *margin_;
};

}  // namespace doyen
