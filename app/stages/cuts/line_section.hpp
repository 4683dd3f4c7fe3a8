// Lines that the bit follows: its depth, how wide a line it leaves, and hatching.
#pragma once

#include <QDoubleSpinBox>

#include "stages/cuts/look_section.hpp"

namespace doyen {

class LineSection : public LookSection {
  Q_OBJECT
 public:
  explicit LineSection(Workshop& shop);
  [[nodiscard]] bool fits(const Treatment& cut) const override { return cut.kind == Treatment::Kind::Line; }
  void refresh(const Item& item, const PiecePlan* piece) override;

 private:
  BitBox* line_bit_;
  LengthField *line_depth_, *hatch_;
  QDoubleSpinBox* hatch_angle_;
  QLabel* line_wide_;
};

}  // namespace doyen
