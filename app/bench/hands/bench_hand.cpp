#include "bench/hands/bench_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"

namespace doyen {

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
