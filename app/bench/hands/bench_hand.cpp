#include "bench/hands/bench_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"

namespace doyen {

bool BenchHand::move_cursor(int key, Qt::KeyboardModifiers keys) {
  const Point by = nudge(key, keys, bench_.job().lengths);
  if (length(by) <= 0) return false;
  const Point from = cursor_.value_or(bench_.to_board(QPointF(bench_.rect().center())));
  cursor_ = from + by;
  bench_.update();
  return true;
}

void BenchHand::paint_cursor(QPainter& p) const {
  if (!cursor_) return;
  const QPointF at = bench_.to_screen(*cursor_);
  for (const auto& [colour, width] : {std::pair{theme::kMarkEdge, 3.0}, std::pair{theme::kMark, 1.4}}) {
    p.setPen(QPen(colour, width));
    p.drawLine(at - QPointF(9, 0), at + QPointF(9, 0));
    p.drawLine(at - QPointF(0, 9), at + QPointF(0, 9));
  }
}

QString BenchHand::words(const char* text) { return QCoreApplication::translate("Bench", text); }

void BenchHand::dot(QPainter& p, QPointF at, double radius, bool full) {
  p.setPen(QPen(theme::kPlum, 1.2));
  p.setBrush(full ? theme::kPlum : Qt::white);
  p.drawEllipse(at, radius, radius);
}

bool BenchHand::near(QPointF px, Point board) const {
  const QPointF d = bench_.to_screen(board) - px;
  return std::hypot(d.x(), d.y()) <= bench_detail::kGrip;
}

void BenchHand::edit(const QString& name, const std::function<void(Job&)>& change) const {
  Q_EMIT bench_.edit_wanted(name, change, QStringLiteral("hand %1").arg(drags_));
}

void BenchHand::edit_piece(const QString& name, const std::function<void(Piece&)>& change) const {
  edit(name, [id = bench_.selected().toStdString(), change](Job& job) {
    if (Item* item = job.find(id)) change(item->piece);
  });
}

}  // namespace doyen
