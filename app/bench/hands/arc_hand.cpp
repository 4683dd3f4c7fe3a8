#include "bench/hands/arc_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {

std::optional<QPointF> ArcHand::grip() const {
  const Item* item = this->item();
  const auto* l = item == nullptr ? nullptr : std::get_if<Lettering>(&item->piece.what);
  if (l == nullptr || !l->along.empty() || !l->inside.empty() || bench_.stage() != Stage::Artwork) return std::nullopt;
  if (bench_.chosen().size() > 1) return std::nullopt;
  const QRectF r = bench_.selection_rect();
  if (r.isNull()) return std::nullopt;
  return QPointF(r.center().x() + 36, r.top() - 20);  // beside the handle that turns
}

void ArcHand::paint(QPainter& p) {
  const auto at = grip();
  if (!at) return;
  p.setPen(QPen(theme::kPlum, 1.2));
  p.setBrush(Qt::NoBrush);
  QPainterPath bow(*at + QPointF(-13, 3));
  bow.quadTo(*at + QPointF(0, -9), *at + QPointF(13, 3));
  p.drawPath(bow);
  dot(p, *at + QPointF(0, -3), 4.5, false);
}

bool ArcHand::hovers(QPointF at) const {
  const auto g = grip();
  return g && std::hypot(g->x() - at.x(), g->y() - at.y()) <= bench_detail::kGrip + 3;
}

bool ArcHand::press(QPointF at) {
  if (!hovers(at)) return false;
  begin_drag();
  const Item* item = this->item();
  Piece straight = item->piece;
  auto& l = std::get<Lettering>(straight.what);
  const double radius = l.arc_radius;
  const bool below = l.arc_below;
  l.arc_radius = 0;
  straight.turn = 0;
  try {
    half_ = bounds(outlines_of(straight)).width() / 2;
  } catch (const Problem&) {
    return false;
  }
  if (half_ < 0.5) return false;
  // The arc stands over the words' own width; wound further than half round it starts from the half circle.
  rise_ = radius <= 0 ? 0 : radius <= half_ ? half_ : radius - std::sqrt(radius * radius - half_ * half_);
  if (below) rise_ = -rise_;
  piece_ = item->piece.id;
  pressed_ = at;
  return true;
}

void ArcHand::drag(QPointF at) {
  const double rise = std::clamp(rise_ + (pressed_.y() - at.y()) / bench_.pixels_per_mm(), -half_, half_);
  const bool straight = std::abs(rise) < 0.01 * half_;
  const double radius = straight ? 0 : (half_ * half_ + rise * rise) / (2 * std::abs(rise));
  edit(words("pull the words into an arc"), [id = piece_, radius, below = rise < 0](Job& job) {
    Item* item = job.find(id);
    auto* l = item == nullptr ? nullptr : std::get_if<Lettering>(&item->piece.what);
    if (l == nullptr) return;
    l->arc_radius = radius;
    l->arc_below = radius > 0 && below;
  });
}

}  // namespace doyen
