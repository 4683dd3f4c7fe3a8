// The machine's bed from above: the board as it lies there, what it lies against, how far the bits go.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>

#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "planning/plan_cache.hpp"
#include "stages/run/bed_picture.hpp"
#include "work/behind.hpp"

namespace doyen {

class BedView : public QDialog {
  Q_OBJECT
 public:
  BedView(Workshop& shop, QWidget* parent);
  void refresh();
  [[nodiscard]] bool ready() const { return ready_; }

 private:
  void carve();
  void place_it();
  void show_fixture(const Job& job);
  void say_place(const Job& job, const MachineProfile& machine);
  void say_troubles(const std::vector<Verdict>& verdicts);
  [[nodiscard]] Job lying() const;
  void edit(const QString& name, const std::function<void(Fixture&)>& change);
  Workshop& shop_;
  BedPicture* picture_;
  QComboBox *board_, *against_, *corner_, *lies_;
  Fold* stops_;
  LengthField *x_, *y_, *stands_, *long_, *wide_, *first_, *second_, *end_;
  QLabel *says_, *home_, *trouble_;
  QPushButton *middle_, *forget_, *mend_;
  std::optional<Remedy> mend_with_;  // the first that its troubles offer
  PlanPtr carved_;
  PlanPtr other_;                     // of the board that lies there, where the job itself does not
  std::shared_ptr<PlanCache> cache_;  // of those; work behind the window keeps it
  Behind behind_;
  bool ready_ = false;
};

}  // namespace doyen
