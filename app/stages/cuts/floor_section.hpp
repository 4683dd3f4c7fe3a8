// The Cuts ticket's part for everything that is asked a depth: raised, recessed, bevelled, drilled, planed.
#pragma once

#include <QSpinBox>

#include "stages/cuts/look_section.hpp"

namespace doyen {

class FloorSection : public LookSection {
  Q_OBJECT
 public:
  explicit FloorSection(Workshop& shop);
  [[nodiscard]] bool fits(const Treatment& cut) const override {
    const Treatment::Kind kind = cut.kind;
    return makes_ground(kind) || kind == Treatment::Kind::Bevel || kind == Treatment::Kind::Drill ||
           kind == Treatment::Kind::HangerSlot;
  }
  void refresh(const Item& item, const PiecePlan* piece) override;
  void open_sums(bool open) override;

 private:
  void build_choices(QVBoxLayout* column);
  void build_insert(QVBoxLayout* column);
  QLabel* about_;
  BitBox* bit_;
  QComboBox *flanks_, *panel_, *side_, *corners_, *sheet_;
  LengthField *depth_, *margin_, *thickness_, *clearance_, *cover_, *notch_, *peck_, *spacing_, *terrace_, *slot_;
  QCheckBox *screws_, *witness_;
  QSpinBox* steps_;
  QWidget* insert_;
  NumberCard *deep_, *floor_;
  QLabel* reach_;
};

}  // namespace doyen
