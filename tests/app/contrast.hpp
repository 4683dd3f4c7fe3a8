// Relative luminance and contrast of the Web Content Accessibility Guidelines 2.1, 1.4.3.
#pragma once

#include <QColor>
#include <algorithm>
#include <cmath>

inline double luminance(const QColor& c) {
  const auto linear = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}
inline double contrast(const QColor& a, const QColor& b) {
  const double one = luminance(a), two = luminance(b);
  return (std::max(one, two) + 0.05) / (std::min(one, two) + 0.05);
}
