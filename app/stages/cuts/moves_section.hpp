// The Cuts ticket's part for how the bits move and how fast: folded away until it is asked for.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QPushButton>

#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class MovesSection : public QWidget {
  Q_OBJECT
 public:
  explicit MovesSection(Workshop& shop);
  void refresh(const Item& item, const PiecePlan* piece);

 Q_SIGNALS:
  void rack_wanted(const QString& bit, const doyen::Feeds& feeds);  // these feeds shall be kept in the rack

 private:
  void build_moves();
  void build_feeds();
  void show_ramp(double slope);
  void edit(const QString& name, const std::function<void(Moves&)>& change);
  void edit_feeds(const QString& name, const std::function<void(Feeds&)>& change);
  void refresh_feeds(const Item& item, const PiecePlan* piece);
  [[nodiscard]] const Bit* bit() const;  // whose feeds are shown
  Workshop& shop_;
  Fold *moves_, *feeds_;
  QComboBox *way_, *entry_, *turn_, *ramp_, *v_floor_, *which_;
  QDoubleSpinBox *step_, *feed_, *plunge_, *rpm_;
  LengthField *leave_on_, *pass_;
  QLabel *direction_, *chip_;
  QPushButton *as_rack_, *keep_;
  bool filling_ = false;
};

}  // namespace doyen
