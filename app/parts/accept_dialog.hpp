// Asks why a verdict is accepted: once, in full words.
#pragma once

#include <QDialog>
#include <QLineEdit>

#include "verdicts/verdict.hpp"

namespace doyen {

class AcceptDialog : public QDialog {
  Q_OBJECT
 public:
  explicit AcceptDialog(const Verdict& verdict, QWidget* parent = nullptr);
  [[nodiscard]] QString reason() const { return reason_->text().trimmed(); }

 private:
  QLineEdit* reason_;
};

}  // namespace doyen
