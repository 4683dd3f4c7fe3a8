// The points of a drawing's outlines.
#pragma once

#include "bench/hands/bench_hand.hpp"

namespace doyen {

class PointHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void set_active(bool active);
  [[nodiscard]] bool active() const { return active_; }
  [[nodiscard]] const std::vector<BoardPoint>& points() const { return points_; }
  [[nodiscard]] const BoardPoint* chosen() const;  // null when none is
  void move_chosen(Point to);                      // the chosen point to just there, mm on the board
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF) override {}
  bool double_click(QPointF at) override;
  bool key(int key, Qt::KeyboardModifiers keys = Qt::NoModifier) override;
  bool hovers(QPointF at) const override;
  void job_changed() override;

 private:
  void choose(std::optional<PointPlace> place);
  bool active_ = false;
  std::vector<BoardPoint> points_;
  std::optional<PointPlace> chosen_;
  PointPart part_ = PointPart::Itself;
};

}  // namespace doyen
