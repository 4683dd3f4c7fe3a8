// Lines and curves drawn by hand: a click goes straight to there, a held mouse draws along its way.
#pragma once

#include "artwork/made/by_hand.hpp"
#include "bench/hands/bench_hand.hpp"

namespace doyen {

class DrawHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void set_active(bool active);
  [[nodiscard]] bool active() const { return active_; }
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF at) override;
  bool double_click(QPointF at) override;
  bool key(int key, Qt::KeyboardModifiers keys) override;
  bool hovers(QPointF) const override { return active_; }
  void job_changed() override;

 private:
  [[nodiscard]] bool at_start(QPointF at) const;  // there is something to close
  void finish(bool closed);
  bool active_ = false, held_ = false;
  std::optional<Point> start_;
  std::vector<HandStroke> strokes_;
  std::vector<Point> trail_;  // of the stroke that is being drawn
};

}  // namespace doyen
