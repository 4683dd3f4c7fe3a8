// The part of the Cuts ticket that belongs to some looks: their choices and their sums.
#pragma once

#include <QCheckBox>
#include <QComboBox>

#include "parts/fold.hpp"
#include "parts/length_field.hpp"
#include "parts/ticket.hpp"
#include "stages/cuts/bit_box.hpp"
#include "stages/cuts/bit_rows.hpp"
#include "treatments/look.hpp"

namespace doyen {

class LookSection : public QWidget {
  Q_OBJECT
 public:
  explicit LookSection(Workshop& shop);
  [[nodiscard]] virtual bool fits(const Treatment& cut) const = 0;
  // `piece`: what was planned for it last; null while it is not known.
  virtual void refresh(const Item& item, const PiecePlan* piece) = 0;
  virtual void open_sums(bool) {}

 protected:
  // While a refresh fills the fields nothing is an edit.
  virtual void edit(const QString& name, const std::function<void(Treatment&)>& change);
  void connect_bits(BitBox* box);
  // The rack's flat bits, ticked where they clear floors for the piece; folded away, with the ticked ones named.
  void add_bit_rows();
  void refresh_bit_rows(const Item& item, const PiecePlan* piece);

  Workshop& shop_;
  QVBoxLayout* column_;
  bool filling_ = false;
  Fold* clearing_ = nullptr;

 private:
  BitRows* rows_ = nullptr;
};

}  // namespace doyen
