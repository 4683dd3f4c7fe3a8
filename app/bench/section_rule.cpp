#include "bench/section_rule.hpp"

#include <QCoreApplication>
#include <algorithm>
#include <cmath>

#include "parts/theme.hpp"

namespace doyen {
namespace {

constexpr double kBend = 25;        // degrees: from where on the surface counts as having a corner
constexpr std::ptrdiff_t kArm = 4;  // samples to either side that say how it bends

QPointF nearest_on(QPointF a, QPointF b, QPointF p) {
  const QPointF d = b - a;
  const double long2 = QPointF::dotProduct(d, d);
  return long2 <= 0 ? a : a + d * std::clamp(QPointF::dotProduct(p - a, d) / long2, 0.0, 1.0);
}

double length(QPointF v) { return std::hypot(v.x(), v.y()); }

// Degrees between the way in and the way out of the middle of three places.
double bend(QPointF a, QPointF b, QPointF c) {
  const QPointF in = b - a, out = c - b;
  if (length(in) <= 0 || length(out) <= 0) return 0;
  return std::abs(std::atan2(in.x() * out.y() - in.y() * out.x(), QPointF::dotProduct(in, out))) * 180 / M_PI;
}

}  // namespace

Point caught_on_section(QPointF px, const QTransform& to_px, const std::vector<float>& surface, double from,
                        double cell, double reach) {
  const auto n = static_cast<std::ptrdiff_t>(surface.size());
  const auto place = [&](std::ptrdiff_t i) {
    i = std::clamp<std::ptrdiff_t>(i, 0, n - 1);
    return to_px.map(QPointF(from + (static_cast<double>(i) + 0.5) * cell, surface[static_cast<std::size_t>(i)]));
  };
  QPointF best = px, corner = px;
  double least = reach, sharpest = kBend;
  const double per_px = cell * to_px.m11();
  const auto about = static_cast<std::ptrdiff_t>((px.x() - place(0).x()) / std::max(per_px, 1e-6));
  const auto wide = static_cast<std::ptrdiff_t>(reach / std::max(per_px, 1e-6)) + 2;
  for (std::ptrdiff_t i = std::max<std::ptrdiff_t>(0, about - wide); i + 1 < n && i <= about + wide; ++i) {
    const QPointF at = nearest_on(place(i), place(i + 1), px);
    if (const double far = length(at - px); far < least) {
      least = far;
      best = at;
    }
    if (length(place(i) - px) > reach) continue;
    // Over a few samples, since the wood is cut in steps; of those beside a wall the one at its very rim or foot.
    const double turns = bend(place(i - kArm), place(i), place(i + kArm));
    if (turns > kBend && turns + bend(place(i - 1), place(i), place(i + 1)) > sharpest) {
      sharpest = turns + bend(place(i - 1), place(i), place(i + 1));
      corner = place(i);
    }
  }
  const QPointF mm = to_px.inverted().map(corner == px ? best : corner);
  return {mm.x(), mm.y()};
}

QString SectionRule::words(const LengthStyle& lengths) const {
  if (!there()) return {};
  const double along = std::abs(to_.x - from_.x), down = std::abs(to_.y - from_.y);
  const auto show = [&](double mm) { return QString::fromStdString(depth_in_words(mm, lengths)); };
  constexpr double kNothing = 0.02;  // mm
  if (down < kNothing) return QCoreApplication::translate("doyen::SectionRule", "%1 across").arg(show(along));
  if (along < kNothing) return QCoreApplication::translate("doyen::SectionRule", "%1 deep").arg(show(down));
  return QCoreApplication::translate("doyen::SectionRule", "%1 across, %2 deep, %3° from level")
      .arg(show(along), show(down), QString::fromStdString(format_number(std::atan2(down, along) * 180 / M_PI, 0)));
}

void SectionRule::paint(QPainter& p, const QTransform& to_px, const QRectF& frame, const LengthStyle& lengths) const {
  if (!there_) return;
  const QPointF a = to_px.map(QPointF(from_.x, from_.y)), b = to_px.map(QPointF(to_.x, to_.y));
  p.setPen(QPen(theme::kPlum, 1, Qt::DotLine));
  p.setBrush(Qt::NoBrush);
  const QPointF corner(b.x(), a.y());
  p.drawLine(a, corner);
  p.drawLine(corner, b);
  p.setPen(QPen(theme::kPlum, 1.6));
  p.drawLine(a, b);
  p.setPen(QPen(Qt::white, 1));
  p.setBrush(theme::kPlum);
  p.drawEllipse(a, 4, 4);
  p.drawEllipse(b, 4, 4);
  const QString text = words(lengths);
  if (text.isEmpty()) return;
  p.setFont(theme::font(9));
  const double wide = p.fontMetrics().horizontalAdvance(text) + 16, tall = 20;
  const double x = std::clamp((a.x() + b.x() - wide) / 2, frame.left(), std::max(frame.left(), frame.right() - wide));
  const double under = std::max(a.y(), b.y()) + 8;
  const double y = under + tall > frame.bottom() ? std::max(frame.top(), std::min(a.y(), b.y()) - 8 - tall) : under;
  const QRectF tag(x, y, wide, tall);
  p.setPen(Qt::NoPen);
  p.setBrush(theme::kPlum);
  p.drawRoundedRect(tag, 4, 4);
  p.setPen(Qt::white);
  p.drawText(tag, Qt::AlignCenter, text);
}

}  // namespace doyen
