// Pulls straight words up into an arch or down into a bowl.
#pragma once

#include "bench/hands/bench_hand.hpp"

namespace doyen {

class ArcHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool hovers(QPointF at) const override;
  [[nodiscard]] std::optional<QPointF> grip() const;

 private:
  QPointF pressed_;
  double rise_ = 0, half_ = 0;  // mm: of the arc over the words' half width
  std::string piece_;
};

}  // namespace doyen
