// What if: thickness, size, V, feed and floor limit on sliders; time and verdicts move along, and nothing of the job
// changes until it is taken.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QSlider>

#include "parts/ticket.hpp"
#include "planning/what_if.hpp"
#include "work/behind.hpp"

namespace doyen {

class WhatIfSection : public QWidget {
  Q_OBJECT
 public:
  explicit WhatIfSection(Workshop& shop);
  void refresh();
  [[nodiscard]] bool waiting() const { return waiting_; }

 private:
  struct Row {
    QWidget* whole;
    QSlider* slider;
    QLabel* says;
  };
  Row make_slider(const char* name, const QString& label);
  void reset();
  void fit_sliders();
  void rest_limit();
  void moved();
  void show_values();
  void begin();
  void show_about(double then, double now);  // s, until that is planned
  void show_then(const WhatChanges& then, const WhatChanges& now);
  void show_why_not(const QString& why);
  void take();
  [[nodiscard]] Supposed asked() const;
  [[nodiscard]] bool asks_anything() const;
  [[nodiscard]] double step() const;  // mm, of thickness and limit: what a shop counts in

  Workshop& shop_;
  Row thickness_, size_, feed_, limit_;
  QComboBox* v_;
  QWidget* v_row_;
  int full_ = 0;  // the floor limit's slider at full depth
  QLabel *about_, *then_, *verdicts_;
  QPushButton *take_, *back_;
  PlanPtr of_;  // the plan that it is set against
  QString piece_;
  std::shared_ptr<PlanCache> cache_ = std::make_shared<PlanCache>();
  Behind behind_;
  bool waiting_ = false, filling_ = false;
};

}  // namespace doyen
