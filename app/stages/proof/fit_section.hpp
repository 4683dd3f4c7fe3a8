// The Proof ticket's part for inlays: how both halves close, what the joint forgives, and the ways to make it.
#pragma once

#include <QButtonGroup>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QPushButton>

#include "parts/ticket.hpp"
#include "work/fit_keeper.hpp"

namespace doyen {

class FitSection : public QWidget {
  Q_OBJECT
 public:
  FitSection(Workshop& shop, FitKeeper& keeper);
  void refresh();  // after a plan, another selection or another stage

 Q_SIGNALS:
  void ladder_wanted(const doyen::Treatment& cut);
  void boards_wanted();  // every further board of the job shall be looked at

 private:
  void build_figures(QVBoxLayout* column);
  void build_what_if(QVBoxLayout* column);
  [[nodiscard]] const Item* inlay() const;
  void show_found();
  void show_choices();
  void show_figures(const Item& item);
  void show_places();
  void show_forgiven();
  void show_ways();
  void show_easing();
  Workshop& shop_;
  FitKeeper& keeper_;
  QLabel *title_, *about_, *legend_;
  QButtonGroup* views_;
  QComboBox* sanded_;
  NumberCard *glue_, *line_, *binds_, *saw_;
  QVBoxLayout *places_, *rows_, *ways_;
  QLabel *easing_, *trying_, *problem_;
  std::vector<QPushButton*> faults_;
  int rows_shown_ = -1, ways_shown_ = -1;  // of the keeper's, which the rows are made for
  QPushButton *find_ease_, *show_ease_, *take_ease_;
  QDoubleSpinBox *pocket_zero_, *plug_zero_, *angle_, *tip_, *tilt_;
  bool filling_ = false;
};

}  // namespace doyen
