// The further boards of a job, each carved as it will be: plugs, inserts, the board milled level.
#pragma once

#include <QDialog>
#include <QLabel>
#include <QListWidget>
#include <QThreadPool>
#include <QVBoxLayout>

#include "planning/further_boards.hpp"
#include "planning/plan.hpp"
#include "planning/plan_cache.hpp"

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

  std::vector<Seen> boards_;
  QListWidget* list_;
  QLabel *picture_, *title_, *about_;
  QVBoxLayout* facts_;
  PlanCache cache_;  // what several boards have alike is worked out once
  QThreadPool pool_;
  Cancel cancel_;
  int waiting_ = 0;
};

}  // namespace doyen
