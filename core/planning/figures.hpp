// How sums write figures: bare ones, in the job's unit.
#pragma once

#include "planning/plan.hpp"

namespace doyen::sums {

inline std::string n(double v, int decimals = 3) { return format_number(v, decimals); }

// Bare figures in the job's unit, three decimals of an inch or two of a millimetre.
class Figures {
 public:
  explicit Figures(const LengthStyle& style) : inch_(style.unit == Unit::Inch) {}
  [[nodiscard]] std::string operator()(double mm) const { return inch_ ? n(mm / kMmPerInch, 4) : n(mm, 3); }
  [[nodiscard]] std::string with_unit(double mm) const { return (*this)(mm) + (inch_ ? " in" : " mm"); }

 private:
  bool inch_;
};

// The bit of this id as the plan uses it; null when it uses none.
const Bit* bit_of(const Plan& plan, const std::string& id);
// What depths count from: the face, or the back.
std::string side_of(const Item& item);

}  // namespace doyen::sums
