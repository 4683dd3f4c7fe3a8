#include "stages/artwork/trace_preview.hpp"

#include <QKeyEvent>
#include <QPainter>
#include <QWheelEvent>
#include <cmath>

#include "parts/theme.hpp"

namespace doyen {
namespace {

constexpr double kGripReach = 9, kMostZoom = 40, kLeastLeft = 0.05;

// The frame's grips as shares of it: corners and middles of sides, round from the upper left.
constexpr QPointF kGrips[] = {{0, 0}, {0.5, 0}, {1, 0}, {1, 0.5}, {1, 1}, {0.5, 1}, {0, 1}, {0, 0.5}};

QPointF grip_point(const QRectF& r, QPointF share) {
  return {r.left() + r.width() * share.x(), r.top() + r.height() * share.y()};
}

}  // namespace

TracePreview::TracePreview(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("tracePreview"));
  setMinimumSize(420, 320);
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("The picture, with what will be traced laid over it"));
}

void TracePreview::show_picture(const QImage& picture) {
  picture_ = picture;
  update();
}

void TracePreview::show_crop(const Crop& crop) {
  crop_ = crop;
  update();
}

void TracePreview::show_traced(const QImage& ink, const QImage& cleaned, const QPainterPath& lost) {
  ink_ = ink;
  cleaned_ = cleaned;
  lost_ = lost;
  update();
}

QRectF TracePreview::whole() const {
  const QSizeF fitted = QSizeF(picture_.size()).scaled(rect().size() - QSize(48, 48), Qt::KeepAspectRatio) * zoom_;
  const QPointF middle = QPointF(rect().center()) + shift_;
  return {middle.x() - fitted.width() / 2, middle.y() - fitted.height() / 2, fitted.width(), fitted.height()};
}

QRectF TracePreview::frame() const {
  const QRectF all = whole();
  return {QPointF(all.left() + all.width() * crop_.left, all.top() + all.height() * crop_.top),
          QPointF(all.right() - all.width() * crop_.right, all.bottom() - all.height() * crop_.bottom)};
}

QPointF TracePreview::to_screen(QPointF shares) const { return grip_point(whole(), shares); }

QPointF TracePreview::to_shares(QPointF px) const {
  const QRectF all = whole();
  return {(px.x() - all.left()) / all.width(), (px.y() - all.top()) / all.height()};
}

int TracePreview::grip_at(QPointF px) const {
  const QRectF r = frame();
  for (int i = 0; i < 8; i += 2) {
    const QPointF d = grip_point(r, kGrips[i]) - px;
    if (std::hypot(d.x(), d.y()) <= kGripReach) return i;
  }
  const bool beside = px.y() > r.top() - kGripReach && px.y() < r.bottom() + kGripReach;
  const bool above = px.x() > r.left() - kGripReach && px.x() < r.right() + kGripReach;
  if (above && std::abs(px.y() - r.top()) <= 6) return 1;
  if (beside && std::abs(px.x() - r.right()) <= 6) return 3;
  if (above && std::abs(px.y() - r.bottom()) <= 6) return 5;
  if (beside && std::abs(px.x() - r.left()) <= 6) return 7;
  return -1;
}

void TracePreview::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.fillRect(rect(), theme::kBench);
  if (picture_.isNull()) return;
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  const QRectF all = whole(), left = frame();
  p.drawImage(all, picture_);
  p.fillRect(all, QColor(255, 255, 255, 110));  // the picture steps back behind what is traced
  if (!ink_.isNull()) p.drawImage(left, ink_);
  if (!cleaned_.isNull()) p.drawImage(left, cleaned_);
  if (!lost_.isEmpty() && !ink_.isNull()) {
    const double k = left.width() / ink_.width();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(theme::kBrick, 1.6));
    p.setBrush(theme::kBrick);
    p.drawPath(QTransform(k, 0, 0, k, left.left(), left.top()).map(lost_));
  }
  // What is cropped away lies in the shade.
  QPainterPath shade;
  shade.addRect(all);
  shade.addRect(left);
  p.fillPath(shade, QColor(60, 52, 44, 150));
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(theme::kMarkEdge, 3));
  p.setBrush(Qt::NoBrush);
  p.drawRect(left);
  p.setPen(QPen(theme::kMark, 1.2));
  p.drawRect(left);
  p.setPen(QPen(theme::kMarkEdge, 1.2));
  p.setBrush(theme::kMark);
  for (const QPointF& share : kGrips) p.drawRect(QRectF(grip_point(left, share) - QPointF(4, 4), QSizeF(8, 8)));
  if (hasFocus()) {
    p.setPen(QPen(theme::kPlum, 1, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(2, 2, -3, -3));
  }
}

void TracePreview::zoom_at(QPointF px, double times) {
  const double before = zoom_;
  zoom_ = std::clamp(zoom_ * times, 1.0, kMostZoom);
  const QPointF from_middle = px - QPointF(rect().center());
  shift_ = zoom_ <= 1 ? QPointF() : from_middle - (from_middle - shift_) * (zoom_ / before);
  update();
}

void TracePreview::move_by(QPointF px) {
  const QSizeF half = whole().size() / 2;
  shift_ += px;
  shift_ = {std::clamp(shift_.x(), -half.width(), half.width()), std::clamp(shift_.y(), -half.height(), half.height())};
  update();
}

void TracePreview::wheelEvent(QWheelEvent* event) {
  zoom_at(event->position(), std::pow(1.0015, event->angleDelta().y()));
  event->accept();
}

void TracePreview::keyPressEvent(QKeyEvent* event) {
  const QPointF middle(rect().center());
  const double step = event->modifiers() & Qt::ShiftModifier ? 120 : 30;
  switch (event->key()) {
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return zoom_at(middle, 1.25);
    case Qt::Key_Minus:
      return zoom_at(middle, 0.8);
    case Qt::Key_Left:
      return move_by({step, 0});
    case Qt::Key_Right:
      return move_by({-step, 0});
    case Qt::Key_Up:
      return move_by({0, step});
    case Qt::Key_Down:
      return move_by({0, -step});
    case Qt::Key_Home:  // all of it
      return zoom_at(middle, 1 / zoom_);
    default:
      return QWidget::keyPressEvent(event);
  }
}

void TracePreview::mousePressEvent(QMouseEvent* event) {
  pressed_ = last_ = event->position();
  held_ = true;
  moved_ = false;
  grip_ = event->button() == Qt::LeftButton ? grip_at(pressed_) : -1;
}

void TracePreview::mouseMoveEvent(QMouseEvent* event) {
  const QPointF now = event->position();
  if (!held_) {
    const int grip = grip_at(now);
    setCursor(grip < 0                 ? Qt::ArrowCursor
              : grip == 1 || grip == 5 ? Qt::SizeVerCursor
              : grip == 3 || grip == 7 ? Qt::SizeHorCursor
              : grip == 0 || grip == 4 ? Qt::SizeFDiagCursor
                                       : Qt::SizeBDiagCursor);
    return;
  }
  const QPointF along = now - pressed_;
  moved_ = moved_ || std::hypot(along.x(), along.y()) > 3;
  if (!moved_) return;
  if (grip_ < 0) {
    move_by(now - last_);
  } else {
    const QPointF at = to_shares(now), share = kGrips[grip_];
    if (share.x() == 0) crop_.left = std::clamp(at.x(), 0.0, 1 - crop_.right - kLeastLeft);
    if (share.x() == 1) crop_.right = std::clamp(1 - at.x(), 0.0, 1 - crop_.left - kLeastLeft);
    if (share.y() == 0) crop_.top = std::clamp(at.y(), 0.0, 1 - crop_.bottom - kLeastLeft);
    if (share.y() == 1) crop_.bottom = std::clamp(1 - at.y(), 0.0, 1 - crop_.top - kLeastLeft);
    // What was traced belongs to the frame as it was.
    ink_ = cleaned_ = {};
    lost_.clear();
  }
  last_ = now;
  update();
}

void TracePreview::mouseReleaseEvent(QMouseEvent* event) {
  if (!held_) return;
  held_ = false;
  if (moved_ && grip_ >= 0) Q_EMIT cropped(crop_);
  const QPointF at = event->position();
  if (!moved_ && grip_ < 0 && event->button() == Qt::LeftButton && frame().contains(at)) Q_EMIT tapped(to_shares(at));
  grip_ = -1;
}

// Two quick taps are two taps.
void TracePreview::mouseDoubleClickEvent(QMouseEvent* event) { mousePressEvent(event); }

}  // namespace doyen
