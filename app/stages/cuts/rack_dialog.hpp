// The rack: bits as they are named and as they were measured, with feeds for each class of wood.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QTableWidget>

#include "measure/length.hpp"
#include "rack/bit.hpp"

namespace doyen {

class RackDialog : public QDialog {
  Q_OBJECT
 public:
  RackDialog(const Rack& rack, const LengthStyle& lengths, QWidget* parent);
  [[nodiscard]] const Rack& rack() const { return rack_; }

 private:
  void fill();
  void take(int row, int column);
  void add_copy();
  void remove_bit();
  Rack rack_;
  LengthStyle lengths_;
  QTableWidget* table_;
  QComboBox* wood_;
  QLabel* say_;
  bool filling_ = false;
};

}  // namespace doyen
