// The rehearsal: the job's files run through a simulated controller, the bit is seen over the board as it is carved,
// bits are changed when it asks for them, and something can be thrown in that goes wrong.
#pragma once

#include <QDialog>
#include <QElapsedTimer>
#include <QImage>
#include <QTimer>

#include "planning/drills.hpp"
#include "planning/outputs.hpp"
#include "stages/run/rehearsal_picture.hpp"
#include "work/controller_line.hpp"

class QButtonGroup;
class QComboBox;
class QLabel;
class QPushButton;
class QSlider;
class QVBoxLayout;

namespace doyen {

class Rehearsal : public QDialog {
  Q_OBJECT
 public:
  Rehearsal(std::shared_ptr<const Plan> plan, QWidget* parent);
  void show_plan(const std::shared_ptr<const Plan>& plan);  // another: the rehearsal of the old one ends
  enum class State { Before, Running, Held, Change, After };
  [[nodiscard]] State state() const { return state_; }
  [[nodiscard]] double ran_for() const { return now_ - began_; }                 // s, of the file that runs
  [[nodiscard]] double planned_seconds() const;                                  // for it
  [[nodiscard]] const std::vector<double>& seconds() const { return seconds_; }  // of each file that was run to its end

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void build(QVBoxLayout* column);
  void build_question(QVBoxLayout* column);
  void list_drills();
  void start();
  void begin_file();
  void take(const MachineReport& report);
  void carve_way(const std::vector<Point3>& way, int line);
  void file_ended();
  void ran_into(std::size_t metal, const Point& at);
  void stop(const QString& why);
  void finish();
  void answer();
  void light();
  void go_to(State state);
  [[nodiscard]] const BitRun* run() const;

  std::shared_ptr<const Plan> plan_;
  ControllerLine line_;
  Side side_ = Side::Front;                      // that is rehearsed
  std::vector<OutputFile> files_;                // of it
  std::vector<std::vector<std::size_t>> parts_;  // along them: the runs that each holds
  std::size_t file_ = 0, part_ = 0, next_part_ = 0;
  bool ending_ = false;         // the file's end was said; what is gone until then is still to be told
  bool waits_in_file_ = false;  // for a change of bit within one file
  int lines_ = 0;
  State state_ = State::Before;
  Drill drill_ = Drill::None;
  Thrown thrown_;
  std::vector<KeepOut> metal_;  // that stands there, and what was thrown in
  HeightField field_;
  std::optional<Point> hit_;
  Point3 last_;
  double began_ = 0, now_ = 0;  // the controller's seconds
  std::vector<double> seconds_;
  std::vector<Point> trail_;
  bool lit_ = true;
  QTimer light_;
  RehearsalPicture* picture_;
  QComboBox *which_, *what_, *pace_;
  QSlider* override_;
  QPushButton *start_, *hold_, *stop_, *changed_, *say_;
  QLabel *file_says_, *place_says_, *time_says_, *next_says_, *override_says_, *says_;
  QWidget* question_;
  QButtonGroup* answers_;
};

}  // namespace doyen
