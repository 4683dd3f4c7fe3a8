#include "measure/length.hpp"

#include <cmath>

#include "fuzz_target.hpp"
#include "problem.hpp"

using namespace doyen;

FUZZ_TARGET(length) {
  for (const Unit unit : {Unit::Millimetre, Unit::Inch}) {
    try {
      const double mm = parse_length(bytes, unit);
      if (!std::isfinite(mm)) fuzz::broken("a length is a finite number");
      const LengthStyle style{unit, false, 64};
      const double again = parse_length(format_length(mm, style), unit);
      constexpr double kShown = 0.13;  // mm: hundredths of an inch at most
      if (std::abs(again - mm) > kShown) fuzz::broken("a length that is shown is read as itself");
    } catch (const Problem&) {
    }
  }
}
