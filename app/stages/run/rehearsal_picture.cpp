#include "stages/run/rehearsal_picture.hpp"

#include <QPainter>

#include "parts/theme.hpp"

namespace doyen {

RehearsalPicture::RehearsalPicture(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("rehearsalPicture"));
  setMinimumSize(300, 200);
  setAccessibleName(tr("The board as far as it is carved, and the bit over it"));
}

void RehearsalPicture::show_board(const QImage& image, const Box& board) {
  image_ = image;
  board_ = board;
  update();
}

void RehearsalPicture::show_bit(const Point3& at, double radius, const std::vector<Point>& trail) {
  bit_ = at;
  radius_ = radius;
  trail_ = trail;
  update();
}

void RehearsalPicture::show_metal(const std::vector<KeepOut>& metal, std::optional<std::size_t> hit) {
  metal_ = metal;
  hit_ = hit;
  update();
}

void RehearsalPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme::kBench);
  if (board_.empty()) return;
  constexpr double kEdge = 50;
  const double scale = std::min((width() - 2 * kEdge) / board_.width(), (height() - 2 * kEdge) / board_.height());
  const QPointF corner((width() - board_.width() * scale) / 2, (height() + board_.height() * scale) / 2);
  const auto place = [&](Point at) {
    return corner + QPointF((at.x - board_.left) * scale, -(at.y - board_.bottom) * scale);
  };
  const QRectF board(place({board_.left, board_.top}), place({board_.right, board_.bottom}));
  p.drawImage(board, image_);
  for (std::size_t i = 0; i < metal_.size(); ++i) {
    const Box box = metal_[i].box();
    p.setBrush(theme::kFaded);
    p.setPen(QPen(hit_ == i ? theme::kBrick : theme::kInk, 1.5));
    p.drawRoundedRect(QRectF(place({box.left, box.top}), place({box.right, box.bottom})), 3, 3);
  }
  QPolygonF trail;
  for (const Point& at : trail_) trail << place(at);
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(theme::kPlum, 1.2));
  p.drawPolyline(trail);
  if (radius_ <= 0) return;
  // In the wood it is filled, above it an open ring.
  p.setPen(QPen(hit_ ? theme::kBrick : theme::kPlum, 2));
  QColor inside = hit_ ? theme::kBrick : theme::kPlum;
  inside.setAlpha(bit_.z < 0 ? 150 : 0);
  p.setBrush(inside);
  p.drawEllipse(place(bit_.flat()), std::max(4.0, radius_ * scale), std::max(4.0, radius_ * scale));
}

}  // namespace doyen
