#include "bench/hands/point_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {

void PointHand::set_active(bool active) {
  active_ = active;
  chosen_.reset();
  job_changed();
  Q_EMIT bench_.hand_changed();
  bench_.update();
}

void PointHand::job_changed() {
  points_.clear();
  const Item* item = this->item();
  const bool fits =
      item != nullptr && std::holds_alternative<Drawing>(item->piece.what) && bench_.stage() == Stage::Artwork;
  if (active_ && !fits) {
    active_ = false;
    Q_EMIT bench_.hand_changed();
  }
  if (!active_) return;
  try {
    points_ = points_on_board(item->piece);
  } catch (const Problem&) {
    active_ = false;
  }
  if (chosen_) Q_EMIT bench_.hand_changed();  // it may lie elsewhere now
}

void PointHand::choose(std::optional<PointPlace> place) {
  chosen_ = place;
  part_ = PointPart::Itself;
  Q_EMIT bench_.hand_changed();
  bench_.update();
}

void PointHand::move_chosen(Point to) {
  if (!chosen_) return;
  begin_drag();
  edit_piece(words("move a point"),
             [place = *chosen_, to](Piece& piece) { move_point(piece, place, PointPart::Itself, to); });
}

const BoardPoint* PointHand::chosen() const {
  if (!chosen_) return nullptr;
  for (const BoardPoint& p : points_) {
    if (p.place == *chosen_) return &p;
  }
  return nullptr;
}

void PointHand::paint(QPainter& p) {
  if (!active_) return;
  const QRectF seen = QRectF(bench_.rect()).adjusted(-6, -6, 6, 6);
  const BoardPoint* own = chosen();
  if (own != nullptr) {
    for (const auto& control : {own->point.in, own->point.out}) {
      if (!control) continue;
      p.setPen(QPen(theme::kPlum, 1));
      p.drawLine(bench_.to_screen(own->point.at), bench_.to_screen(*control));
      dot(p, bench_.to_screen(*control), 3.5, false);
    }
  }
  for (const BoardPoint& point : points_) {
    const QPointF at = bench_.to_screen(point.point.at);
    if (!seen.contains(at)) continue;
    if (&point == own || point.point.smooth()) {
      dot(p, at, &point == own ? 5 : 3.5, &point == own);
      continue;
    }
    p.setPen(QPen(theme::kPlum, 1.2));
    p.setBrush(Qt::white);
    p.drawRect(QRectF(at - QPointF(3, 3), QSizeF(6, 6)));
  }
}

bool PointHand::press(QPointF at) {
  if (!active_) return false;
  begin_drag();
  if (const BoardPoint* own = chosen()) {
    for (const PointPart part : {PointPart::In, PointPart::Out}) {
      const auto& control = part == PointPart::In ? own->point.in : own->point.out;
      if (!control || !near(at, *control) || near(at, own->point.at)) continue;
      part_ = part;
      return true;
    }
  }
  const BoardPoint* best = nullptr;
  double least = bench_detail::kGrip;
  for (const BoardPoint& point : points_) {
    const QPointF d = bench_.to_screen(point.point.at) - at;
    if (std::hypot(d.x(), d.y()) > least) continue;
    least = std::hypot(d.x(), d.y());
    best = &point;
  }
  if (best == nullptr) return false;
  choose(best->place);
  return true;
}

void PointHand::drag(QPointF at) {
  if (!chosen_) return;
  const Point to = bench_.to_board(at);
  edit_piece(words("move a point"),
             [place = *chosen_, part = part_, to](Piece& piece) { move_point(piece, place, part, to); });
}

bool PointHand::double_click(QPointF at) {
  if (!active_) return false;
  begin_drag();
  const Point to = bench_.to_board(at);
  const double reach = bench_detail::kGrip / bench_.pixels_per_mm();
  Piece trial = item()->piece;
  const std::optional<PointPlace> made = add_point(trial, to, reach);
  if (!made) return true;
  choose(made);
  edit_piece(words("add a point"), [to, reach](Piece& piece) { add_point(piece, to, reach); });
  return true;
}

bool PointHand::key(int key, Qt::KeyboardModifiers keys) {
  if (!active_) return false;
  if (key == Qt::Key_Escape) {
    set_active(false);
    return true;
  }
  // From point to point, all round and through every outline.
  if ((key == Qt::Key_Tab || key == Qt::Key_Backtab) && !points_.empty()) {
    const auto count = static_cast<std::ptrdiff_t>(points_.size());
    const auto now = std::find_if(points_.begin(), points_.end(),
                                  [&](const BoardPoint& p) { return chosen_ && p.place == *chosen_; });
    const std::ptrdiff_t at = now == points_.end() ? (key == Qt::Key_Tab ? -1 : 0) : now - points_.begin();
    choose(points_[static_cast<std::size_t>((at + (key == Qt::Key_Tab ? 1 : count - 1)) % count)].place);
    return true;
  }
  if (!chosen_) return false;
  if (const Point by = nudge(key, keys, bench_.job().lengths); length(by) > 0) {
    const auto at =
        std::find_if(points_.begin(), points_.end(), [&](const BoardPoint& p) { return p.place == *chosen_; });
    if (at != points_.end()) move_chosen(at->point.at + by);
    return true;
  }
  begin_drag();
  const PointPlace place = *chosen_;
  switch (key) {
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
      choose({});
      edit_piece(words("remove a point"), [place](Piece& piece) { remove_point(piece, place); });
      return true;
    case Qt::Key_R:
      edit_piece(words("make it round here"), [place](Piece& piece) { smooth_point(piece, place); });
      return true;
    case Qt::Key_P:
      edit_piece(words("make it pointed here"), [place](Piece& piece) { corner_point(piece, place); });
      return true;
    default:
      return false;
  }
}

bool PointHand::hovers(QPointF at) const {
  return active_ &&
         std::any_of(points_.begin(), points_.end(), [&](const BoardPoint& p) { return near(at, p.point.at); });
}

}  // namespace doyen
