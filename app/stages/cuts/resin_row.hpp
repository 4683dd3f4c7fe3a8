// Resin in a carved shape: whether it is filled, and how much must be mixed.
#pragma once

#include <QCheckBox>
#include <QThreadPool>

#include "parts/ticket.hpp"
#include "treatments/look.hpp"

namespace doyen {

class ResinRow : public QWidget {
  Q_OBJECT
 public:
  explicit ResinRow(Workshop& shop);
  ~ResinRow() override;
  static bool fits(Treatment::Kind kind) { return look_of(kind).resin; }
  void refresh(const Item& item);
  [[nodiscard]] bool busy() const { return busy_; }

 private:
  Workshop& shop_;
  QCheckBox* filled_;
  NumberCard* volume_;
  QLabel* caution_;
  QThreadPool pool_;
  Cancel cancel_;
  PlanPtr measured_;  // the plan and piece that the volume is of
  std::string piece_;
  quint64 generation_ = 0;
  bool busy_ = false;
};

}  // namespace doyen
