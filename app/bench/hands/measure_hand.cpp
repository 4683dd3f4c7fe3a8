#include "bench/hands/measure_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {

void MeasureHand::set_active(bool active) {
  active_ = active;
  drawn_ = begun_ = false;
  cursor_.reset();
  bench_.update();
}

Point MeasureHand::caught(QPointF at) const { return bench_.outline_point_near(at, 10).value_or(bench_.to_board(at)); }

void MeasureHand::paint(QPainter& p) {
  if (active_) paint_cursor(p);
  if (!active_ || !drawn_) return;
  const QPointF a = bench_.to_screen(from_), b = bench_.to_screen(to_);
  p.setPen(QPen(theme::kPlum, 1.6));
  p.drawLine(a, b);
  dot(p, a, 4, true);
  dot(p, b, 4, true);
  const QString text = QString::fromStdString(size_in_words(distance(from_, to_), bench_.job().lengths));
  p.setFont(theme::font(9));
  const double w = p.fontMetrics().horizontalAdvance(text) + 16;
  const QRectF tag((a + b) / 2 + QPointF(-w / 2, 8), QSizeF(w, 20));
  p.setPen(Qt::NoPen);
  p.setBrush(theme::kPlum);
  p.drawRoundedRect(tag, 4, 4);
  p.setPen(Qt::white);
  p.drawText(tag, Qt::AlignCenter, text);
}

bool MeasureHand::press(QPointF at) {
  if (!active_) return false;
  from_ = to_ = caught(at);
  drawn_ = true;
  return true;
}

void MeasureHand::drag(QPointF at) {
  to_ = caught(at);
  bench_.update();
}

void MeasureHand::release(QPointF at) {
  to_ = caught(at);
  bench_.update();
  if (distance(from_, to_) > 0.05) Q_EMIT bench_.measured(from_, to_);
}

bool MeasureHand::key(int key, Qt::KeyboardModifiers keys) {
  if (!active_) return false;
  if (move_cursor(key, keys)) {
    if (begun_) drag(bench_.to_screen(*cursor_));
    return true;
  }
  if (key == Qt::Key_Space && cursor_) {  // one end, then the other
    const QPointF at = bench_.to_screen(*cursor_);
    begun_ ? release(at) : static_cast<void>(press(at));
    begun_ = !begun_;
    bench_.update();
    return true;
  }
  if (key != Qt::Key_Escape) return false;
  set_active(false);
  return true;
}

}  // namespace doyen
