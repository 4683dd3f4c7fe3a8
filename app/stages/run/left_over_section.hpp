// What is left of the board, under Run: each piece worth keeping goes among the off-cuts by one click.
#pragma once

#include <QLineEdit>
#include <QPushButton>

#include "parts/fold.hpp"
#include "parts/ticket.hpp"
#include "planning/left_over.hpp"
#include "work/behind.hpp"

namespace doyen {

class LeftOverSection : public Fold {
  Q_OBJECT
 public:
  explicit LeftOverSection(Workshop& shop);
  void refresh();  // after a plan
  [[nodiscard]] bool waiting() const { return waiting_; }
  [[nodiscard]] const std::vector<LeftOver>& found() const { return found_; }

 private:
  void show_found();
  void light();
  void keep(std::size_t i, QLineEdit* place, QPushButton* button);
  Workshop& shop_;
  QLabel* about_;
  QVBoxLayout* rows_;
  PlanPtr of_;
  std::vector<LeftOver> found_;
  Behind behind_;
  bool waiting_ = false;
};

}  // namespace doyen
