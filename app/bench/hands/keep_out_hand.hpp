// Clamps, screws and the wood's faults, while the blank is worked on.
#pragma once

#include "bench/hands/bench_hand.hpp"

namespace doyen {

class KeepOutHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter&) override {}
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool hovers(QPointF at) const override;
  std::vector<HandGrip> grips() override;

 private:
  void move(std::size_t which, Point by);
  [[nodiscard]] std::optional<std::size_t> at(QPointF px) const;
  std::size_t held_ = 0;
  Point last_;
};

}  // namespace doyen
