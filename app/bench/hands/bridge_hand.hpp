// The bridges of a linked word.
#pragma once

#include "bench/hands/bench_hand.hpp"

namespace doyen {

class BridgeHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool hovers(QPointF at) const override;
  std::vector<HandGrip> grips() override;
  void job_changed() override;
  [[nodiscard]] const std::vector<Derived::Bridge>& bridges() const { return bridges_; }

 private:
  struct Grip {
    std::size_t bridge = 0;
    int end = 0;  // 0 from, 1 to, 2 all of it
  };
  void move(const Grip& grip, Point by);
  [[nodiscard]] std::optional<Grip> grip_at(QPointF at) const;
  std::vector<Derived::Bridge> bridges_;
  Grip held_;
  Point last_;
};

}  // namespace doyen
