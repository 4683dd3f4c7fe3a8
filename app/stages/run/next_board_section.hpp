// The Run ticket's part for the next board of the same kind: only what may be another is asked, its thickness and
// size, and how many were made is counted.
#pragma once

#include <QPushButton>

#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/readings_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class NextBoardSection : public QWidget {
  Q_OBJECT
 public:
  explicit NextBoardSection(Workshop& shop);
  void refresh();

 private:
  Workshop& shop_;
  Fold* fold_;
  ReadingsField* readings_;
  LengthField *width_, *height_;
  QLabel* says_;
};

}  // namespace doyen
