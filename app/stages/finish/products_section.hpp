// The Finish ticket's part for the products of the shop: how many coats, how long they dry, how far a litre goes. The
// user's, kept for every job.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QPushButton>

#include "finish/products.hpp"
#include "parts/figure_field.hpp"
#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class ProductsSection : public Fold {
  Q_OBJECT
 public:
  explicit ProductsSection(Workshop& shop);
  void refresh();
  void show_units();  // after the job, or its unit, is another

 Q_SIGNALS:
  void changed();  // what a product does

 private:
  FigureField* figure(const QString& label, const char* key, const char* name, const QString& unit, int decimals,
                      const std::function<void(Product&, double)>& set, double in_unit = 1);
  void choose();
  void keep();
  void say(const QString& problem);
  Workshop& shop_;
  QComboBox* kind_;
  FigureField *coats_, *recoat_, *cure_, *covers_, *covers_inch_, *thinned_;
  LengthField* pour_;
  QCheckBox* outdoors_;
  QPushButton* again_;
  QLabel* problem_;
  ProductTable table_;
  Product shown_;
  Unit unit_ = Unit::Millimetre;  // that it is shown in
};

}  // namespace doyen
