// A measure laid to the section: from one end to the other, across, down and how steep.
#pragma once

#include <QPainter>
#include <QTransform>
#include <vector>

#include "geometry/region.hpp"
#include "measure/length.hpp"

namespace doyen {

class SectionRule {
 public:
  // Mm: x along the section, y the height, 0 at the board's face, down negative.
  void begin(Point at) { from_ = to_ = at, there_ = true; }
  void pull(Point to) { to_ = to; }
  void clear() { there_ = false; }
  [[nodiscard]] bool there() const { return there_ && !(from_ == to_); }
  [[nodiscard]] bool begun() const { return there_; }
  // What it reads; empty without any.
  [[nodiscard]] QString words(const LengthStyle& lengths) const;
  // `to_px`: from mm as above; `frame`: px, what the words stay in.
  void paint(QPainter& p, const QTransform& to_px, const QRectF& frame, const LengthStyle& lengths) const;

 private:
  Point from_, to_;
  bool there_ = false;
};

// The end of a measure near a place of the screen: on the surface where it passes within reach, else right there. At a
// corner, where the surface bends sharply, on the corner. `surface`: heights, mm, `cell` mm apart, the first half a
// cell from `from`.
Point caught_on_section(QPointF px, const QTransform& to_px, const std::vector<float>& surface, double from,
                        double cell, double reach);

}  // namespace doyen
