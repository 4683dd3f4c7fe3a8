// Run: machine, zero, holding, the order of the bits, and the files.
#pragma once

#include "stages/run/inlay_run_section.hpp"
#include "stages/run/timing_section.hpp"

namespace doyen {

class RunTicket : public Ticket {
  Q_OBJECT
 public:
  explicit RunTicket(Workshop& shop);
  void refresh() override;
  void show_written(const QString& words, bool fine);

 Q_SIGNALS:
  void came_out_well();  // the test cut that this job is

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void place_screws();
  void show_screws();
  void show_test();
  void list_order();
  void say_order();
  void take_order();
  QComboBox *machine_, *surface_, *place_, *files_;
  Fold* held_;
  QLineEdit* holding_;
  LengthField* least_;
  QComboBox* turn_;
  QCheckBox* low_;
  QPushButton* screws_;
  QLabel* screws_say_;
  QWidget* test_;
  QLabel* test_says_;
  QPushButton* came_out_;
  QString screws_problem_;  // why there are none, of that job
  std::optional<Job> screws_problem_of_;
  QListWidget* order_;
  QLabel *order_says_, *zero_, *written_;
  Job written_job_;  // whose files what was written speaks of
  QPushButton* own_order_;
  InlayRunSection* inlay_;
  TimingSection* timing_;
  bool filling_ = false;
};

}  // namespace doyen
