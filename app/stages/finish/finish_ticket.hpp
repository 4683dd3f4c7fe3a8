// The Finish ticket: how it is coated and when, how it hangs, what it costs.
#pragma once

#include <QCheckBox>
#include <QPushButton>

#include "finish/finish_plan.hpp"
#include "finish/hanging.hpp"
#include "finish/price.hpp"
#include "parts/entry_field.hpp"
#include "parts/fold.hpp"
#include "parts/ticket.hpp"
#include "stages/finish/price_section.hpp"
#include "stages/finish/products_section.hpp"
#include "work/behind.hpp"

namespace doyen {

// What was worked out of one plan.
struct Finished {
  PlanPtr plan;
  FinishFigures figures;
  FinishPlan steps;
  std::optional<Hanging> hanging;
  QString no_hanging;  // why there is none
};

class FinishTicket : public Ticket {
  Q_OBJECT
 public:
  explicit FinishTicket(Workshop& shop);
  void refresh() override;
  [[nodiscard]] bool ready() const;  // all is worked out of the job as it stands
  // What stands in the files that are saved from here.
  [[nodiscard]] QString text() const;
  [[nodiscard]] QString calendar() const;

 Q_SIGNALS:
  void quote_wanted();
  void save_wanted(const QString& name, const QString& kinds, const QByteArray& bytes);

 private:
  void build_coats();
  void build_when();
  void build_shop_day();
  void keep_day();
  void build_hanging();
  void work_out();
  void show_finished();
  void show_steps();
  void show_hanging();
  void show_float();
  [[nodiscard]] std::vector<Appointment> when() const;

  QComboBox *school_, *begins_, *days_;
  QCheckBox* outdoors_;
  TextField *colour_, *own_colour_, *time_, *hours_, *closed_;
  LengthField* round_over_;
  ShopDay day_;
  QLabel *day_problem_, *says_, *steps_, *needs_, *hangs_, *ready_, *float_says_;
  QPushButton *calendar_, *text_, *template_, *level_, *float_;
  Fold *steps_fold_, *needs_fold_, *hanging_fold_;
  PriceSection* price_;
  ProductsSection* products_;
  std::optional<Finished> finished_;
  PlanPtr asked_of_;  // the newest that was asked for
  ShopTime asked_time_{};
  Behind behind_;
  bool filling_ = false;
};

}  // namespace doyen
