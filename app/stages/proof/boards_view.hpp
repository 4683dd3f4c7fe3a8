// The further boards of a job, each carved as it will be: plugs, inserts, the board milled level.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QThreadPool>
#include <QVBoxLayout>

#include "planning/further_boards.hpp"
#include "planning/plan.hpp"
#include "planning/plan_cache.hpp"
#include "stages/proof/boards_overview.hpp"

namespace doyen {

class BoardsView : public QDialog {
  Q_OBJECT
 public:
  BoardsView(const Job& job, const Rack& rack, QWidget* parent);
  ~BoardsView() override;
  static QString name_of(const FurtherBoard& board);  // such as “Sheet 2”
  [[nodiscard]] bool finished() const { return waiting_ == 0; }

 Q_SIGNALS:
  void board_wanted(const doyen::Job& job);  // as a job of its own, to be rehearsed, laid on the bed, cut again

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  struct Seen {
    FurtherBoard board;
    std::shared_ptr<const Plan> plan;
    QImage picture;
    QString problem;
    QString off_cut{};  // that it could be cut from
  };
  void take(std::vector<FurtherBoard> boards, const QString& problem, const Rack& rack);
  void work_out(std::size_t which, const Rack& rack);
  void offer_off_cuts();
  void show_chosen();
  void show_all(bool all);
  void fill_overview();
  void say_all();
  [[nodiscard]] Seen& seen(std::size_t which) { return which < boards_.size() ? boards_[which] : own_; }

  std::vector<Seen> boards_;
  Seen own_;  // the job itself, as it is drawn
  QListWidget* list_;
  QLabel *picture_, *title_, *about_;
  QVBoxLayout* facts_;
  BoardsOverview* overview_;
  QPushButton* all_;
  PlanCache cache_;  // what several boards have alike is worked out once
  QThreadPool pool_;
  Cancel cancel_;
  int waiting_ = 0;
};

}  // namespace doyen
