// A length between two points of a piece, to say what it really is.
#pragma once

#include "bench/hands/bench_hand.hpp"

namespace doyen {

class MeasureHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void set_active(bool active);
  [[nodiscard]] bool active() const { return active_; }
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF at) override;
  bool hovers(QPointF) const override { return active_; }
  bool key(int key, Qt::KeyboardModifiers keys) override;

 private:
  [[nodiscard]] Point caught(QPointF at) const;
  bool active_ = false, drawn_ = false;
  bool begun_ = false;  // by the keys: one end is set
  Point from_, to_;
};

}  // namespace doyen
