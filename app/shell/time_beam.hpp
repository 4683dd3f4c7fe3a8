// The time beam: one bar, a stretch for every bit, marks for bit changes, and the total.
#pragma once

#include <QPushButton>
#include <QWidget>

#include "work/planner.hpp"

namespace doyen {

class TimeBeam : public QWidget {
  Q_OBJECT
 public:
  explicit TimeBeam(QWidget* parent = nullptr);
  void show_plan(const PlanPtr& plan);
  void show_pending(bool pending);         // the plan on show is of an earlier state
  void show_trouble(const QString& what);  // why there is no plan of the job as it stands
  void show_busy(bool busy, int done = 0, int of = 0);
  void show_easings(int tried);  // of a plug's corners, until one seats; 0: none are tried

 Q_SIGNALS:
  void write_wanted();
  void cancel_wanted();

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;

 private:
  [[nodiscard]] QString title() const;
  [[nodiscard]] QString likely() const;
  void say_likely(QPainter& p) const;
  PlanPtr plan_;
  QString trouble_;
  bool pending_ = false;
  bool busy_ = false;
  int done_ = 0, of_ = 0, easings_ = 0;
  QPushButton *write_, *cancel_;
};

}  // namespace doyen
