// Where the wood that stays is weak: hatched on the board while this is open, the weakest places first.
#pragma once

#include <memory>

#include "parts/fold.hpp"
#include "parts/ticket.hpp"
#include "planning/weak_map.hpp"
#include "work/behind.hpp"

namespace doyen {

class WeakSection : public Fold {
  Q_OBJECT
 public:
  explicit WeakSection(Workshop& shop);
  void refresh();  // after a plan
  [[nodiscard]] bool waiting() const { return waiting_; }

 private:
  void begin();
  void show_found();
  Workshop& shop_;
  QLabel* about_;
  QVBoxLayout* places_;
  PlanPtr of_;  // the plan that was looked at
  std::shared_ptr<const WeakMap> found_;
  Behind behind_;
  bool waiting_ = false;
};

}  // namespace doyen
