// Everything on the board that the mouse can take hold of, by keys alone: G goes from one to the next, arrows move it.
#pragma once

#include "bench/hands/bench_hand.hpp"

namespace doyen {

class KeyHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter& p) override;
  bool press(QPointF) override;  // the mouse takes over
  void drag(QPointF) override {}
  void release(QPointF) override {}
  bool key(int key, Qt::KeyboardModifiers keys) override;
  void job_changed() override;
  [[nodiscard]] bool active() const { return held_.has_value(); }

 private:
  std::optional<std::size_t> held_;  // among the bench's grips
  QString of_;                       // the piece and the stage they belong to
};

}  // namespace doyen
