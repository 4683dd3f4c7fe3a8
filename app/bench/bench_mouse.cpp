// Mouse and keys on the bench: choosing, moving, sizing, turning, panning.
#include <QMouseEvent>
#include <cmath>

#include "bench/bench.hpp"
#include "bench/hands/all.hpp"

namespace doyen {

using bench_detail::handle_point;
using bench_detail::kGrip;

// The smallest piece under the mouse: what lies inside a frame can be taken without moving the frame away.
QString Bench::piece_at(QPointF p) const {
  const Point b = to_board(p);
  const double near = 5 / scale_;
  const PieceShape* best = nullptr;
  for (const PieceShape& s : shapes_) {
    if (!s.box.grown(near).contains(b)) continue;
    const bool outline_only = s.kind == Treatment::Kind::CutOut || s.kind == Treatment::Kind::Bevel ||
                              (job_.find(s.id.toStdString()) != nullptr &&
                               std::holds_alternative<PlainShape>(job_.find(s.id.toStdString())->piece.what));
    if (outline_only && !s.path.intersects(QRectF(b.x - near, b.y - near, 2 * near, 2 * near))) continue;
    if (s.kind == Treatment::Kind::CutOut && s.path.contains(QRectF(b.x - near, b.y - near, 2 * near, 2 * near)))
      continue;
    if (best == nullptr || s.box.width() * s.box.height() < best->box.width() * best->box.height()) best = &s;
  }
  return best == nullptr ? QString() : best->id;
}

int Bench::handle_at(QPointF p) const {
  const QRectF r = selection_rect();
  if (r.isNull() || stage_ != Stage::Artwork || points_->active()) return -1;
  for (int i = 0; i < 9; ++i) {
    const QPointF d = handle_point(r, i) - p;
    if (std::hypot(d.x(), d.y()) <= kGrip) return i;
  }
  return -1;
}

// How the board's outline of the selected piece is changed by the drag under way, in board coordinates.
QTransform Bench::drag_transform() const {
  QTransform t;
  const Box box = chosen_box();
  if (box.empty()) return t;
  const Point from = to_board(pressed_), to = to_board(now_);
  if (hand_ == Hand::Move) {
    const Point by = snapped(to - from, nullptr);
    t.translate(by.x, by.y);
  } else if (hand_ == Hand::Size) {
    const Point c = box.centre();
    const QPointF unit = handle_point(QRectF(0, 0, 1, 1), handle_);
    const Point fixed{unit.x() == 0.5 ? c.x
                      : unit.x() == 0 ? box.right
                                      : box.left,
                      unit.y() == 0.5 ? c.y
                      : unit.y() == 0 ? box.bottom
                                      : box.top};
    double fx = unit.x() == 0.5 ? 1 : (to.x - fixed.x) / (from.x - fixed.x);
    double fy = unit.y() == 0.5 ? 1 : (to.y - fixed.y) / (from.y - fixed.y);
    const Item* item = job_.find(selected_.toStdString());
    const bool free = item != nullptr && also_.isEmpty() && std::holds_alternative<PlainShape>(item->piece.what) &&
                      std::abs(std::fmod(item->piece.turn, 90)) < 1e-9;
    if (!free) fx = fy = unit.x() == 0.5 ? fy : unit.y() == 0.5 ? fx : std::max(fx, fy);
    fx = std::clamp(fx, 0.02, 50.0);
    fy = std::clamp(fy, 0.02, 50.0);
    t.translate(fixed.x, fixed.y);
    t.scale(fx, fy);
    t.translate(-fixed.x, -fixed.y);
  } else if (hand_ == Hand::Turn) {
    const Point c = box.centre();
    double degrees = (std::atan2(to.y - c.y, to.x - c.x) - std::atan2(from.y - c.y, from.x - c.x)) * 180 / M_PI;
    if (!(modifiers_ & Qt::AltModifier)) degrees = std::round(degrees / 5) * 5;
    t.translate(c.x, c.y);
    t.rotate(degrees);
    t.translate(-c.x, -c.y);
  }
  return t;
}

// Snaps a move to the board's middle and margins and to other pieces' middles, within six pixels; Alt moves freely.
Point Bench::snapped(Point by, Snap* to) const {
  const Box box = chosen_box();
  if (box.empty() || (modifiers_ & Qt::AltModifier)) return by;
  const double near = 6 / scale_;
  const Blank& blank = job_.blank;
  struct Target {
    double off;
    QString what;
    double line;  // mm, where it lies
  };
  const auto best = [&](double low, double middle, double high, double size, bool across) {
    std::vector<Target> targets{{size / 2 - middle, tr("the middle of the board"), size / 2},
                                {blank.margin - low, tr("the margin"), blank.margin},
                                {size - blank.margin - high, tr("the margin"), size - blank.margin}};
    for (const PieceShape& o : shapes_) {
      if (o.id == selected_ || o.box.empty() || also_.contains(o.id)) continue;
      const double line = across ? o.box.centre().x : o.box.centre().y;
      targets.push_back({line - middle, tr("the middle of “%1”").arg(o.name), line});
    }
    Target found{1e300, {}, 0};
    for (const Target& t : targets) {
      if (std::abs(t.off) < near && std::abs(t.off) < std::abs(found.off)) found = t;
    }
    return found;
  };
  const Target x = best(box.left + by.x, box.centre().x + by.x, box.right + by.x, blank.width, true);
  const Target y = best(box.bottom + by.y, box.centre().y + by.y, box.top + by.y, blank.height, false);
  if (!x.what.isEmpty()) by.x += x.off;
  if (!y.what.isEmpty()) by.y += y.off;
  if (to != nullptr) {
    const auto say = [&](const Target& t) {
      return t.what + QStringLiteral(" (") + QString::fromStdString(size_in_words(std::abs(t.off), job_.lengths)) +
             QLatin1Char(')');
    };
    if (!x.what.isEmpty()) to->guide_x = x.line;
    if (!y.what.isEmpty()) to->guide_y = y.line;
    to->why = x.what.isEmpty() ? QString() : say(x);
    if (!y.what.isEmpty()) to->why += (to->why.isEmpty() ? QString() : tr(" and ")) + say(y);
  }
  return by;
}

void Bench::mousePressEvent(QMouseEvent* event) {
  by_keys_ = false;
  setFocus(Qt::MouseFocusReason);
  pressed_ = now_ = event->position();
  modifiers_ = event->modifiers();
  marked_ = false;
  const QPointF d = section_handle() - pressed_;
  held_ = nullptr;
  if (event->button() == Qt::LeftButton && !(modifiers_ & Qt::ShiftModifier)) {
    for (const auto& hand : hands_) {
      if (!hand->press(pressed_)) continue;
      held_ = hand.get();
      hand_ = Hand::Other;
      return update();
    }
  }
  if (event->button() == Qt::MiddleButton) {
    hand_ = Hand::Pan;
  } else if (event->button() != Qt::LeftButton) {
    return;
  } else if (std::hypot(d.x(), d.y()) < 16) {
    hand_ = Hand::Section;
  } else if ((handle_ = handle_at(pressed_)) >= 0) {
    hand_ = handle_ == 8 ? Hand::Turn : Hand::Size;
  } else {
    for (const PieceShape& s : shapes_) {
      for (std::size_t i = 0; i < s.tabs.size(); ++i) {
        const QPointF t = to_screen(s.tabs[i].at) - pressed_;
        if (std::hypot(t.x(), t.y()) > 10) continue;
        select(s.id);
        dragged_tab_ = static_cast<int>(i);
        hand_ = Hand::Tab;
        return update();
      }
    }
    const QString hit = piece_at(pressed_);
    if ((modifiers_ & Qt::ShiftModifier) && !hit.isEmpty() && !selected_.isEmpty() && hit != selected_) {
      const bool out = also_.contains(hit);
      for (const QString& one : QStringList(hit) + group_of(hit)) {
        also_.removeAll(one);
        if (!out && one != selected_) also_.append(one);
      }
      Q_EMIT chosen_changed();
      return update();
    }
    if (!also_.isEmpty() && chosen().contains(hit)) {  // all that are chosen move together
      hand_ = Hand::Move;
      return update();
    }
    if (!selected_.isEmpty() && hit.isEmpty() && selection_rect().contains(pressed_) &&
        shape(selected_)->kind != Treatment::Kind::CutOut &&
        !std::holds_alternative<PlainShape>(job_.find(selected_.toStdString())->piece.what)) {
      hand_ = Hand::Move;
    } else {
      select(hit);
      hand_ = hit.isEmpty() ? Hand::Pan : Hand::Move;
    }
  }
  update();
}

void Bench::mouseMoveEvent(QMouseEvent* event) {
  modifiers_ = event->modifiers();
  const QPointF was = now_;
  now_ = event->position();
  switch (hand_) {
    case Hand::None: {
      const QPointF d = section_handle() - now_;
      const bool section = std::hypot(d.x(), d.y()) < 16;
      const bool hand = std::any_of(hands_.begin(), hands_.end(), [&](const auto& h) { return h->hovers(now_); });
      setCursor(section                    ? (section_.along ? Qt::SizeVerCursor : Qt::SizeHorCursor)
                : hand                     ? Qt::PointingHandCursor
                : handle_at(now_) >= 0     ? Qt::CrossCursor
                : piece_at(now_).isEmpty() ? Qt::ArrowCursor
                                           : Qt::SizeAllCursor);
      return;
    }
    case Hand::Pan:
      origin_ += now_ - was;
      fitted_ = false;
      break;
    case Hand::Section: {
      const Point b = to_board(now_);
      section_.at = section_.along ? std::clamp(b.y, 0.0, job_.blank.height) : std::clamp(b.x, 0.0, job_.blank.width);
      Q_EMIT section_moved(section_);
      break;
    }
    case Hand::Other:
      if (held_ != nullptr) held_->drag(now_);
      break;
    default:
      break;
  }
  update();
}

void Bench::mouseReleaseEvent(QMouseEvent* event) {
  now_ = event->position();
  const Hand was = hand_;
  const QTransform t = drag_transform();
  const Point from = to_board(pressed_), to = to_board(now_);
  const bool dragged = std::hypot((now_ - pressed_).x(), (now_ - pressed_).y()) > 3;
  const Point by = was == Hand::Move ? snapped(to - from, nullptr) : Point{};
  hand_ = Hand::None;
  if (was == Hand::Other && held_ != nullptr) held_->release(now_);
  held_ = nullptr;
  if (!dragged && was == Hand::Move) Q_EMIT clicked(selected_, to);
  if (was == Hand::Pan && dragged) ask_for_picture();
  if (dragged && was == Hand::Move) Q_EMIT moved(selected_, by);
  if (dragged && was == Hand::Turn) Q_EMIT turned(selected_, std::atan2(t.m12(), t.m11()) * 180 / M_PI);
  if (dragged && was == Hand::Tab) Q_EMIT tab_moved(selected_, dragged_tab_, to);
  if (dragged && was == Hand::Size) {
    const double fx = t.m11(), fy = t.m22();
    const Point fixed{fx == 1 ? 0 : t.dx() / (1 - fx), fy == 1 ? 0 : t.dy() / (1 - fy)};
    Q_EMIT resized(selected_, fx, fy, fixed);
  }
  update();
}

void Bench::mouseDoubleClickEvent(QMouseEvent* event) {
  for (const auto& hand : hands_) {
    if (hand->double_click(event->position())) return update();
  }
  const QString hit = piece_at(event->position());
  if (hit.isEmpty()) return fit();
  select(hit);
  Q_EMIT words_wanted(hit);
}

void Bench::wheelEvent(QWheelEvent* event) {
  const double factor = std::pow(1.0015, event->angleDelta().y());
  const Point under = to_board(event->position());
  scale_ = std::clamp(scale_ * factor, 0.02, 200.0);
  origin_ += event->position() - to_screen(under);
  fitted_ = false;
  ask_for_picture();
  update();
}

bool Bench::focusNextPrevChild(bool next) {
  for (const auto& hand : hands_) {
    if (!hand->key(next ? Qt::Key_Tab : Qt::Key_Backtab, Qt::NoModifier)) continue;
    update();
    return true;
  }
  return QWidget::focusNextPrevChild(next);
}

void Bench::focusInEvent(QFocusEvent* event) {
  const Qt::FocusReason why = event->reason();
  if (why != Qt::ActiveWindowFocusReason && why != Qt::PopupFocusReason)
    by_keys_ = why == Qt::TabFocusReason || why == Qt::BacktabFocusReason || why == Qt::ShortcutFocusReason;
  QWidget::focusInEvent(event);
  update();
}

void Bench::keyPressEvent(QKeyEvent* event) {
  for (const auto& hand : hands_) {
    if (hand->key(event->key(), event->modifiers())) return update();
  }
  if (const Point by = nudge(event->key(), event->modifiers(), job_.lengths); length(by) > 0) {
    if (selected_.isEmpty()) return QWidget::keyPressEvent(event);
    Q_EMIT moved(selected_, by);
    return;
  }
  switch (event->key()) {
    case Qt::Key_Escape:
      return select({});
    case Qt::Key_Home:
      return fit();
    case Qt::Key_Plus:
    case Qt::Key_Equal:
    case Qt::Key_Minus: {
      const Point middle = to_board(QPointF(rect().center()));
      scale_ *= event->key() == Qt::Key_Minus ? 0.8 : 1.25;
      origin_ += QPointF(rect().center()) - to_screen(middle);
      fitted_ = false;
      ask_for_picture();
      return update();
    }
    case Qt::Key_N:
    case Qt::Key_P: {  // next and previous piece
      if (shapes_.empty()) return;
      int at = -1;
      for (std::size_t i = 0; i < shapes_.size(); ++i) {
        if (shapes_[i].id == selected_) at = static_cast<int>(i);
      }
      const int n = static_cast<int>(shapes_.size());
      // With Shift it is chosen along with the others, going on from the one that was added last.
      const bool also = event->modifiers() & Qt::ShiftModifier && !selected_.isEmpty();
      if (also && !also_.isEmpty()) {
        for (std::size_t i = 0; i < shapes_.size(); ++i) {
          if (shapes_[i].id == also_.last()) at = static_cast<int>(i);
        }
      }
      at = event->key() == Qt::Key_N ? (at + 1) % n : (at + n - 1 + (at < 0)) % n;
      const QString id = shapes_[static_cast<std::size_t>(at)].id;
      return also ? choose(chosen() + QStringList(id)) : select(id);
    }
    case Qt::Key_T:  // the section turns
      section_ = section_.turned(job_.blank);
      Q_EMIT section_moved(section_);
      return update();
    case Qt::Key_PageUp:
    case Qt::Key_PageDown: {
      const double by =
          nudge(event->key() == Qt::Key_PageUp ? Qt::Key_Up : Qt::Key_Down, event->modifiers(), job_.lengths).y;
      section_ = section_.moved(by, job_.blank);
      Q_EMIT section_moved(section_);
      return update();
    }
    default:
      return QWidget::keyPressEvent(event);
  }
}

Point nudge(int key, Qt::KeyboardModifiers keys, const LengthStyle& lengths) {
  const double step = lengths.unit == Unit::Inch ? kMmPerInch / 16 : 1;
  const double by = keys & Qt::ShiftModifier ? 10 * step : keys & Qt::AltModifier ? step / 10 : step;
  switch (key) {
    case Qt::Key_Left:
      return {-by, 0};
    case Qt::Key_Right:
      return {by, 0};
    case Qt::Key_Up:
      return {0, by};
    case Qt::Key_Down:
      return {0, -by};
    default:
      return {};
  }
}

}  // namespace doyen
