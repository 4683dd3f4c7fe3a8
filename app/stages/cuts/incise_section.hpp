// Incised pieces: the V, the floor limit, and what the other V bits of the rack would do.
#pragma once

#include "stages/cuts/look_section.hpp"

namespace doyen {

class InciseSection : public LookSection {
  Q_OBJECT
 public:
  explicit InciseSection(Workshop& shop);
  [[nodiscard]] bool fits(const Treatment& cut) const override { return cut.kind == Treatment::Kind::Incise; }
  void refresh(const Item& item, const PiecePlan* piece) override;
  void open_sums(bool open) override { depth_->set_open(open); }

 private:
  // Each V of the rack is planned for the piece that is looked at, once that is opened.
  void show_angles(const Item& item);
  BitBox* v_bit_;
  LengthField* limit_;
  NumberCard *depth_, *angles_, *floor_, *limits_;
  QLabel* letters_;
};

}  // namespace doyen
