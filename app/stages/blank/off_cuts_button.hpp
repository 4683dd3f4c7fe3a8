// A button that takes the off-cuts kept of a board's wood, and says so where there are none.
#pragma once

#include <QPushButton>

#include "job/off_cuts.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class OffCutsButton : public QWidget {
  Q_OBJECT
 public:
  // An off-cut's sides as it would lie with its grain as the board's: left to right, front to back, mm.
  struct Sides {
    double width = 0, height = 0;
  };
  using Take = std::function<void(const std::vector<Sides>&)>;
  // `takes` is handed those that are of the board's wood, as thick, and at least `narrowest()` mm from front to back.
  OffCutsButton(Workshop& shop, const char* name, std::function<double()> narrowest, Take takes);
  void forget() { says_->hide(); }  // what it said last

 private:
  void take();
  Workshop& shop_;
  std::function<double()> narrowest_;
  Take takes_;
  QLabel* says_;
};

}  // namespace doyen
