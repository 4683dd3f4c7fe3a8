// The Run ticket's part for zero: on what and where it is taken, and with which touch plate.
#pragma once

#include <QComboBox>

#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class ZeroSection : public QWidget {
  Q_OBJECT
 public:
  explicit ZeroSection(Workshop& shop);
  void refresh();

 private:
  Workshop& shop_;
  QComboBox *surface_, *place_;
  LengthField *floor_, *plate_;
  QLabel* says_;
};

}  // namespace doyen
