#include "holding/forces.hpp"

#include <numbers>

#include "stock/strength.hpp"

namespace doyen {
namespace {

constexpr double kWorst = 3;  // of the usual force

}  // namespace

double bit_pushes(const Bit& bit, const std::string& wood_class) {
  const Feeds feeds = bit.feeds_in(wood_class);
  if (!feeds.known()) return 0;
  const double across = bit.true_diameter();
  const double taken = bit.depth_per_pass(wood_class) * across * feeds.feed / 60;  // mm³/s
  const double speed = std::numbers::pi * across * feeds.rpm / 60;                 // mm/s, of the edge
  return kWorst * cutting_resistance(wood_class) * taken / speed;
}

std::string force_in_words(double newtons, const LengthStyle& style) {
  constexpr double kNewtonsAPound = 4.44822;
  if (style.unit == Unit::Millimetre) return format_number(newtons, 1) + " N";
  return format_number(newtons / kNewtonsAPound, 1) + " lbf";
}

double tab_stands(const Tabs& tabs, double thickness, const std::string& wood_class) {
  const TabShape shape = tab_shape(tabs, thickness);
  return (shape.length - shape.ramp) * shape.height * shear_strength(wood_class);
}

}  // namespace doyen
