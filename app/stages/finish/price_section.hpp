// The Finish ticket's part for the price: the user's rates, kept for every job, and what comes of them.
#pragma once

#include <QComboBox>
#include <QPushButton>

#include "finish/price.hpp"
#include "job/ranges.hpp"
#include "parts/entry_field.hpp"
#include "parts/figure_field.hpp"
#include "parts/fold.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class PriceSection : public QWidget {
  Q_OBJECT
 public:
  explicit PriceSection(Workshop& shop);
  // Of what was worked out; nothing while it is not.
  void show_price(const Plan* plan, const FinishPlan& steps);
  [[nodiscard]] const Rates& rates() const { return rates_; }
  [[nodiscard]] const std::optional<Price>& price() const { return price_; }

 Q_SIGNALS:
  void changed();  // the rates
  void quote_wanted();

 private:
  // `unit` with a “%1” where the currency stands.
  void add_rate(const QString& label, const char* name, const QString& unit, Range range, int decimals,
                double Rates::*member);
  void show_currency();
  void keep();
  Workshop& shop_;
  Fold* fold_;
  Fold* rates_fold_;
  QLabel *says_, *lines_, *problem_;
  FigureField *design_, *copies_;
  QPushButton* quote_;
  std::vector<std::pair<QLabel*, QString>> money_;  // the units that begin with the currency
  Rates rates_;
  std::optional<Price> price_;
};

}  // namespace doyen
