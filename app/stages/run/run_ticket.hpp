// Run: machine, zero, holding, the order of the bits, and the files.
#pragma once

#include "stages/run/after_run_section.hpp"
#include "stages/run/again_section.hpp"
#include "stages/run/inlay_run_section.hpp"
#include "stages/run/left_over_section.hpp"
#include "stages/run/next_board_section.hpp"
#include "stages/run/zero_section.hpp"

namespace doyen {

class RunTicket : public Ticket {
  Q_OBJECT
 public:
  explicit RunTicket(Workshop& shop);
  void refresh() override;
  // `folder`: where the files stand now; empty when none were written.
  void show_written(const QString& words, bool fine, const QString& folder = {});

 Q_SIGNALS:
  void rehearsal_wanted();
  void machines_wanted();
  void bed_wanted();
  void open_wanted(const QString& path);                        // a folder or a sheet, by the desktop's own programs
  void write_wanted(const QString& name, const QString& text);  // a file to go on with
  void came_out_well();                                         // the test cut that this job is
  void log_kept();                                              // the log is another now
  void log_wanted();
  void job_wanted(const Job& job);  // that mends a spoiled board

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void list_machines();
  enum class InWaste { Screws, Mark, Pins };
  void place_in_waste(const QString& what, InWaste which);
  void show_screws();
  void show_test();
  void list_order();
  void say_order();
  void take_order();
  QComboBox *machine_, *files_, *lies_;
  ZeroSection* zero_;
  Fold* held_;
  QLineEdit *holding_, *stops_;
  LengthField *least_, *waste_;
  QComboBox* turn_;
  QCheckBox *low_, *look_round_;
  QPushButton *screws_, *mark_, *describe_, *rehearse_, *bed_, *pins_;
  std::vector<MachineProfile> listed_;  // as the box has them
  QLabel *screws_say_, *pins_say_;
  InWaste refused_ = InWaste::Screws;  // what there was no place for
  QWidget* test_;
  QLabel* test_says_;
  QPushButton* came_out_;
  QString screws_problem_;  // why there are none, of that job
  std::optional<Job> screws_problem_of_;
  QListWidget* order_;
  QLabel *order_says_, *written_;
  QWidget* opens_;
  QString written_folder_;
  Job written_job_;  // whose files what was written speaks of
  QPushButton* own_order_;
  InlayRunSection* inlay_;
  AfterRunSection* after_;
  AgainSection* again_;
  LeftOverSection* left_over_;
  NextBoardSection* next_one_;
  bool filling_ = false;
};

}  // namespace doyen
