// Where the wood that stays is weak: hatched on the board while this is open, the weakest places first.
#pragma once

#include <memory>

#include "parts/fold.hpp"
#include "parts/ticket.hpp"
#include "planning/weak_remedies.hpp"
#include "work/behind.hpp"

namespace doyen {

class WeakSection : public Fold {
  Q_OBJECT
 public:
  explicit WeakSection(Workshop& shop);
  void refresh();  // after a plan
  [[nodiscard]] bool waiting() const { return waiting_; }
  [[nodiscard]] bool trying() const { return is_trying_; }

 private:
  void begin();
  void show_found();
  void look_for_remedies(std::size_t place);  // tries them behind the window, and shows those that mend
  void show_remedy(const Remedy& remedy, const Mended& mended);
  Workshop& shop_;
  QLabel* about_;
  QVBoxLayout *places_, *remedies_;
  QLabel* trying_;
  PlanPtr of_;  // the plan that was looked at
  std::shared_ptr<const WeakMap> found_;
  Behind behind_, tries_;
  bool waiting_ = false, is_trying_ = false;
  int mending_ = 0;  // remedies that were found for the place that was asked
};

}  // namespace doyen
