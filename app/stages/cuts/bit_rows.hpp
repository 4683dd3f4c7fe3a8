// The rack's bits to clear floors with, a row each: ticked or not, and what it would do here if it alone cleared.
#pragma once

#include <QCheckBox>
#include <QTimer>

#include "stages/cuts/bit_trials.hpp"

namespace doyen {

class BitRows : public QWidget {
  Q_OBJECT
 public:
  explicit BitRows(Workshop& shop);
  void refresh(const Item& item, const PiecePlan* piece);
  [[nodiscard]] QString summary() const;  // the ticked ones by name, or what Doyen proposes
  [[nodiscard]] bool waiting() const { return trials_.waiting(); }

 Q_SIGNALS:
  void ticked(const QString& bit, const QString& name, bool on);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  struct Row {
    QString bit;
    QCheckBox* box;
    QLabel* says;
    QWidget* line;
  };
  void make_rows();
  void say(const Row& row, const QString& words);
  Workshop& shop_;
  QVBoxLayout* column_;
  QList<Row> rows_;
  QStringList proposed_;
  BitTrials trials_;
  QTimer soon_;
};

}  // namespace doyen
