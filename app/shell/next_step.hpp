// One thing to do next, at the foot of every ticket.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>

#include "job/job.hpp"
#include "planning/plan.hpp"
#include "shell/stage_rail.hpp"

namespace doyen {

struct NextStep {
  enum class What { AddSomething, SayTheLook, Wait, MendStops, LookAtProof, GoToRun, WriteFiles };
  What what = What::AddSomething;
  std::string piece{};    // of SayTheLook
  QString words, button;  // no button: there is nothing to do but wait, or to read what is wrong
};
// `plan`: of the job as it stands, with what the judge found; null until that is known.
NextStep next_step(Stage stage, const Job& job, const Plan* plan);

class NextStepBar : public QFrame {
  Q_OBJECT
 public:
  explicit NextStepBar(QWidget* parent = nullptr);
  void show_step(const NextStep& step);

 Q_SIGNALS:
  void taken(const doyen::NextStep& step);

 private:
  NextStep step_;
  QLabel* words_;
  QPushButton* button_;
};

}  // namespace doyen
