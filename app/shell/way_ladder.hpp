// Ways to cut the chosen piece, or the whole job, as rungs on one time scale: each is planned for real, in the
// background, and one button takes it. What stands there of an earlier state is grey until the new is known.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <memory>
#include <optional>

#include "parts/fold.hpp"
#include "parts/ticket.hpp"
#include "planning/ways.hpp"
#include "work/behind.hpp"

namespace doyen {

class WayBar;

class WayLadder : public QWidget {
  Q_OBJECT
 public:
  explicit WayLadder(Workshop& shop);
  // After an edit, a plan, a judgement or another selection. `wanted`: the stage is one that ways belong to, and the
  // job could be planned.
  void refresh(bool wanted);
  [[nodiscard]] bool waiting() const { return waiting_; }
  [[nodiscard]] const std::vector<Way>& ways() const { return ways_; }
  void set_open(bool open) { fold_->set_open(open); }

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  struct Row {
    QWidget* line;
    QLabel* words;
    WayBar* bar;
    QLabel *time, *about;
    QPushButton *where, *take;
  };
  void begin();
  void show_ways(bool current);
  void show_summary();
  void make_rows(std::size_t count);
  void take(std::size_t i);
  // What way i leaves uncut, lit on the board; again, or another state of the job, puts it out.
  void light(std::size_t i);
  void put_out();
  [[nodiscard]] QString subject() const;  // what they are about
  [[nodiscard]] QString about(const Way& way) const;
  // As told; where this machine was timed, as it really takes: the changes of bits stay as they are.
  [[nodiscard]] QString time_of(const Way& way) const;

  Workshop& shop_;
  Fold* fold_;
  std::vector<Row> rows_;
  std::vector<Way> ways_;  // as they stand or are being worked out
  PlanPtr of_;             // the plan they belong to, and the piece; empty: the whole job
  QString piece_;
  QTimer soon_;
  std::shared_ptr<PlanCache> cache_ = std::make_shared<PlanCache>();
  Behind behind_;
  bool waiting_ = false;
  std::optional<std::size_t> lit_;
  std::optional<double> timed_;  // what the machine takes longer than it is told; none: never timed
};

}  // namespace doyen
