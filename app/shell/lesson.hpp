// A first sign, step by step: what to do now, at what on the window, and why. It watches what is done and goes on by
// itself; nothing is done for the user, and nothing is in their way.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>
#include <functional>

#include "shell/stage_rail.hpp"
#include "work/planner.hpp"

namespace doyen {

// What of the window a lesson goes by.
struct LessonSeen {
  Job job;
  Stage stage = Stage::Blank;
  SectionLine section;
  PlanPtr judged;   // null until the files of the job as it stands have been looked at
  int written = 0;  // how often files were written
  int opened = 0;   // another number for every job that is opened
};

struct LessonStep {
  QString what, why;
  Stage stage = Stage::Blank;
  QString control;  // name of the widget that it is done at; empty: it is done by looking
  std::function<bool(const LessonSeen& now, const LessonSeen& then)> done;  // `then`: as the step began
};
QList<LessonStep> first_sign_steps();

class LessonBar : public QFrame {
  Q_OBJECT
 public:
  explicit LessonBar(QWidget* parent = nullptr);
  ~LessonBar() override;
  void begin(const LessonSeen& seen);
  void look_at(const LessonSeen& seen);  // something in the window is another
  [[nodiscard]] bool goes_on() const { return step_ >= 0; }
  [[nodiscard]] int step() const { return step_; }  // from 0; negative when there is none

 Q_SIGNALS:
  void stage_wanted(Stage stage);

 private:
  void go_to(int step);
  void show_me();  // where it is done
  void end();
  QList<LessonStep> steps_;
  int step_ = -1;
  bool passing_ = false;  // it was done, and the next one comes
  LessonSeen then_, now_;
  QLabel *count_, *what_, *why_;
  QPushButton *show_, *back_, *on_, *end_;
  class QWidget* ring_ = nullptr;  // round what is shown
};

}  // namespace doyen
