// The section strip: the board sighted along a saw cut, to scale, with the bit's silhouette at the deepest place.
#pragma once

#include <QWidget>

#include "planner.hpp"

namespace doyen {

class SectionStrip : public QWidget {
  Q_OBJECT
 public:
  explicit SectionStrip(QWidget* parent = nullptr);
  void show_plan(const PlanPtr& plan);
  void set_line(const SectionLine& line);
  [[nodiscard]] const std::vector<float>& heights() const { return heights_; }

 Q_SIGNALS:
  void line_changed(const doyen::SectionLine& line);
  void cut();  // a fresh profile is shown

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;
  void mousePressEvent(QMouseEvent*) override;

 private:
  void ask();
  [[nodiscard]] QRect turn_rect() const;
  PlanPtr plan_;
  SectionLine line_;
  std::vector<float> heights_, back_;
  ReliefPainter painter_;
};

}  // namespace doyen
