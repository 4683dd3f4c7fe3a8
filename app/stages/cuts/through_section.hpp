// What goes right through: cut-outs and pierced openings, with tabs, skin and over-cut.
#pragma once

#include <QPushButton>
#include <QSpinBox>

#include "stages/cuts/look_section.hpp"
#include "stages/cuts/tab_picture.hpp"

namespace doyen {

class ThroughSection : public LookSection {
  Q_OBJECT
 public:
  explicit ThroughSection(Workshop& shop);
  [[nodiscard]] bool fits(const Treatment& cut) const override { return goes_through(cut.kind); }
  void refresh(const Item& item, const PiecePlan* piece) override;
  void open_sums(bool open) override { through_->set_open(open); }

 private:
  Fold* down_;
  TabPicture* tab_picture_;
  BitBox* flat_bit_;
  LengthField *over_, *skin_, *tab_length_, *tab_height_, *bevel_depth_;
  QCheckBox *taped_, *slug_, *tabs_, *bevel_;
  QWidget* bevel_row_;
  QSpinBox* tab_count_;
  QPushButton* place_tabs_;
  NumberCard *through_, *bed_;
};

}  // namespace doyen
