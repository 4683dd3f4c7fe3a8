// The Cuts ticket's part for everything that is asked a depth: raised, recessed, bevelled, drilled, planed.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QSpinBox>

#include "parts/length_field.hpp"
#include "parts/ticket.hpp"

namespace doyen {

class FloorSection : public QWidget {
  Q_OBJECT
 public:
  explicit FloorSection(Workshop& shop);
  static bool fits(Treatment::Kind kind) {
    return makes_ground(kind) || kind == Treatment::Kind::Bevel || kind == Treatment::Kind::Drill ||
           kind == Treatment::Kind::HangerSlot;
  }
  void refresh(const Item& item, const PiecePlan* piece);
  void open_sums(bool open);

 private:
  void build_choices(QVBoxLayout* column);
  void build_insert(QVBoxLayout* column);
  void build_bits(QVBoxLayout* column);
  void fill_bits(const Item& item);
  void edit(const QString& name, const std::function<void(Treatment&)>& change);
  Workshop& shop_;
  QLabel* about_;
  QComboBox *bit_, *flanks_, *panel_, *side_, *corners_, *sheet_;
  LengthField *depth_, *margin_, *thickness_, *clearance_, *cover_, *notch_, *peck_, *spacing_, *terrace_, *slot_;
  QSpinBox* steps_;
  QWidget *insert_, *bits_;
  QList<QCheckBox*> clearing_;
  NumberCard *deep_, *floor_;
  QLabel* reach_;
  bool filling_ = false;
};

}  // namespace doyen
