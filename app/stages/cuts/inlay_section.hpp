// The Cuts ticket's part for inlays: both halves' figures, each tied to its sum, and what a change moved.
#pragma once

#include <QDoubleSpinBox>
#include <QPushButton>

#include "stages/cuts/look_section.hpp"

namespace doyen {

class InlaySection : public LookSection {
  Q_OBJECT
 public:
  explicit InlaySection(Workshop& shop);
  [[nodiscard]] bool fits(const Treatment& cut) const override { return cut.kind == Treatment::Kind::Inlay; }
  void refresh(const Item& item, const PiecePlan* piece) override;
  // mm, of the piece as it was planned last; 0 where that is not known.
  static double widest_stroke(const Workshop& shop, const std::string& piece, const Bit& v);

 Q_SIGNALS:
  void proof_wanted();
  void answer_wanted(const doyen::Treatment& rung);

 private:
  void build_fields(QVBoxLayout* column);
  void connect_fields();
  void edit(const QString& name, const std::function<void(Treatment&)>& change) override;
  static QString upright(const Bit& bit);
  [[nodiscard]] Sum sum_of(const Item& item) const;
  Fold* plug_;
  QComboBox *flanks_, *wood_, *grain_;
  QCheckBox* v_alone_;
  BitBox* bit_;
  LengthField *pocket_, *contact_, *saw_, *allowance_, *ease_, *thickness_;
  QDoubleSpinBox* moisture_;
  NumberCard* gaps_;
  QPushButton *start_, *prove_, *keep_;
  QLabel *about_, *moved_, *rung_;
  QString moved_piece_;
};

}  // namespace doyen
