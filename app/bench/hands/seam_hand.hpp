// A large sign's seams: drawn with the panels' numbers and their edges' letters, moved while the blank is worked on.
// They snap to where they part nothing fine.
#pragma once

#include "bench/hands/bench_hand.hpp"
#include "panels/panels.hpp"
#include "panels/seams.hpp"

namespace doyen {

class SeamHand : public BenchHand {
 public:
  using BenchHand::BenchHand;
  void paint(QPainter& p) override;
  bool press(QPointF at) override;
  void drag(QPointF at) override;
  void release(QPointF at) override;
  bool hovers(QPointF at) const override;
  std::vector<HandGrip> grips() override;
  void job_changed() override;

 private:
  struct Held {
    bool upright = true;
    std::size_t index = 0;
  };
  [[nodiscard]] std::optional<Held> at(QPointF px) const;
  void put(const Held& seam, double place) const;  // between its neighbours
  void sign(QPainter& p, Point at, const QString& words, const QColor& colour, double size) const;
  std::optional<Held> held_;
  std::optional<SeamCosts> costs_;  // of the seam that is held
  // What is drawn, of these:
  PanelChoices of_;
  Blank wood_;
  std::vector<Panel> panels_;
  std::vector<MatingEdge> edges_;
  std::vector<Point> dowels_;
};

}  // namespace doyen
