// One thing to do next, at the foot of every ticket.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>
#include <functional>

#include "job/job.hpp"
#include "planning/plan.hpp"
#include "shell/stage_rail.hpp"

namespace doyen {

struct NextStep {
  enum class What { AddSomething, SayTheLook, MendStops, LookAtProof, GoToRun, WriteFiles } what = What::AddSomething;
  std::string piece{};  // of SayTheLook
  QString words, button;
};
// `plan`: what is known of the job as it stands; null while it is being worked out.
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
