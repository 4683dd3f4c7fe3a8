// The Run ticket's part for when a run is over: how it came out and how long it took, into the log. Two questions; the
// rest is known.
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QPushButton>

#include "log/entry.hpp"
#include "parts/fold.hpp"
#include "parts/ticket.hpp"
#include "stages/run/mishap_row.hpp"
#include "stages/run/rescue_section.hpp"

namespace doyen {

class AfterRunSection : public QWidget {
  Q_OBJECT
 public:
  explicit AfterRunSection(Workshop& shop);
  void refresh();
  void ask();  // files were written: what is asked after the run stands open
  // When this job's files were written, where nothing was said of how they came out; empty else.
  [[nodiscard]] static QString unsaid_since(const Job& job);

 Q_SIGNALS:
  void kept();  // the log is another now
  void log_wanted();
  void rest_wanted();               // of a file that was stopped
  void job_wanted(const Job& job);  // that mends a spoiled board

 private:
  void build_questions();
  bool keep();  // false: it could not be, and it was said why
  void take_back();
  void show_rows();
  void say(const QString& more = {});
  void forget_answers();
  [[nodiscard]] double told() const;  // s
  [[nodiscard]] LogEntry entry() const;
  [[nodiscard]] std::vector<std::string> pictures() const;
  void look();                                            // at the plan and the log, where either is another
  [[nodiscard]] std::vector<MishapSeen> mishaps() const;  // as they are said now
  Workshop& shop_;
  Fold* fold_;
  QComboBox* outcome_;
  std::vector<MishapRow*> rows_;
  QDoubleSpinBox* took_;
  QLineEdit *words_, *why_;
  RescueSection* rescue_;
  QLabel *says_, *changed_;
  QPushButton *keep_, *back_, *not_run_;
  std::int64_t kept_ = 0;  // what was kept last here; 0: nothing of this job
  int of_ = 0;             // the job that is asked about
  // What is known of the plan that is there, by the log as it is.
  PlanPtr seen_;
  std::shared_ptr<const std::vector<LogEntry>> log_;
  LogEntry now_;
};

}  // namespace doyen
