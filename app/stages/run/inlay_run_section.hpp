// The Run ticket's part for boards with inlays: two runs, how zero is found again, how plugs are levelled, and every
// step from two boards to one.
#pragma once

#include <QComboBox>

#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class InlayRunSection : public QWidget {
  Q_OBJECT
 public:
  explicit InlayRunSection(Workshop& shop);
  void refresh();

 private:
  Workshop& shop_;
  QComboBox *last_, *zero_;
  LengthField* mill_;
  QLabel* steps_;
};

}  // namespace doyen
