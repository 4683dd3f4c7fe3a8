#include <cmath>

#include "bench/bench_hand.hpp"
#include "parts/theme.hpp"
#include "problem.hpp"

namespace doyen {
namespace {

QString words(const char* text) { return QCoreApplication::translate("Bench", text); }

void dot(QPainter& p, QPointF at, double radius, bool full) {
  p.setPen(QPen(theme::kPlum, 1.2));
  p.setBrush(full ? theme::kPlum : Qt::white);
  p.drawEllipse(at, radius, radius);
}

}  // namespace

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

// Points.

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
  chosen_ = best->place;
  part_ = PointPart::Itself;
  bench_.update();
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
  chosen_ = made;
  edit_piece(words("add a point"), [to, reach](Piece& piece) { add_point(piece, to, reach); });
  return true;
}

bool PointHand::key(int key) {
  if (!active_) return false;
  if (key == Qt::Key_Escape) {
    set_active(false);
    return true;
  }
  if (!chosen_) return false;
  begin_drag();
  const PointPlace place = *chosen_;
  switch (key) {
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
      chosen_.reset();
      edit_piece(words("remove a point"), [place](Piece& piece) { remove_point(piece, place); });
      return true;
    case Qt::Key_S:
      edit_piece(words("make a point smooth"), [place](Piece& piece) { smooth_point(piece, place); });
      return true;
    case Qt::Key_C:
      edit_piece(words("make a corner"), [place](Piece& piece) { corner_point(piece, place); });
      return true;
    default:
      return false;
  }
}

bool PointHand::hovers(QPointF at) const {
  return active_ &&
         std::any_of(points_.begin(), points_.end(), [&](const BoardPoint& p) { return near(at, p.point.at); });
}

// Measuring.

void MeasureHand::set_active(bool active) {
  active_ = active;
  drawn_ = false;
  bench_.update();
}

Point MeasureHand::caught(QPointF at) const { return bench_.outline_point_near(at, 10).value_or(bench_.to_board(at)); }

void MeasureHand::paint(QPainter& p) {
  if (!active_ || !drawn_) return;
  const QPointF a = bench_.to_screen(from_), b = bench_.to_screen(to_);
  p.setPen(QPen(theme::kPlum, 1.6));
  p.drawLine(a, b);
  dot(p, a, 4, true);
  dot(p, b, 4, true);
  const QString text = QString::fromStdString(format_length(distance(from_, to_), bench_.job().lengths));
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

bool MeasureHand::key(int key) {
  if (!active_ || key != Qt::Key_Escape) return false;
  set_active(false);
  return true;
}

// Bridges.

void BridgeHand::job_changed() {
  bridges_.clear();
  const Item* item = this->item();
  const auto* made = item == nullptr ? nullptr : std::get_if<Derived>(&item->piece.what);
  if (made == nullptr || made->how != Derived::How::Link || bench_.stage() != Stage::Artwork) return;
  try {
    bridges_ = outlines_of(item->piece, bench_.job().source()).bridges;
  } catch (const Problem&) {
    // The verdict says why it cannot be set.
  }
}

void BridgeHand::paint(QPainter& p) {
  for (const Derived::Bridge& b : bridges_) {
    p.setPen(QPen(theme::kPlum, 1.6, Qt::DashLine));
    p.drawLine(bench_.to_screen(b.from), bench_.to_screen(b.to));
    dot(p, bench_.to_screen(b.from), 4, false);
    dot(p, bench_.to_screen(b.to), 4, false);
  }
}

std::optional<BridgeHand::Grip> BridgeHand::grip_at(QPointF at) const {
  for (std::size_t i = 0; i < bridges_.size(); ++i) {
    const Derived::Bridge& b = bridges_[i];
    // Where the ends lie close together on the screen, the whole bridge is taken.
    const QPointF d = bench_.to_screen(b.to) - bench_.to_screen(b.from);
    const bool tight = std::hypot(d.x(), d.y()) < 3 * bench_detail::kGrip;
    if (near(at, (b.from + b.to) * 0.5) || (tight && (near(at, b.from) || near(at, b.to)))) return Grip{i, 2};
    if (near(at, b.from)) return Grip{i, 0};
    if (near(at, b.to)) return Grip{i, 1};
  }
  return std::nullopt;
}

bool BridgeHand::press(QPointF at) {
  const auto grip = grip_at(at);
  if (!grip) return false;
  begin_drag();
  held_ = *grip;
  last_ = bench_.to_board(at);
  return true;
}

void BridgeHand::drag(QPointF at) {
  if (held_.bridge >= bridges_.size()) return;
  const Point now = bench_.to_board(at), by = now - last_;
  last_ = now;
  std::vector<Derived::Bridge> all = bridges_;
  Derived::Bridge& b = all[held_.bridge];
  if (held_.end != 1) b.from = b.from + by;
  if (held_.end != 0) b.to = b.to + by;
  edit(words("move a bridge"), [id = bench_.selected().toStdString(), all](Job& job) {
    if (Item* item = job.find(id)) set_bridges(item->piece, all, job.source());
  });
}

bool BridgeHand::hovers(QPointF at) const { return grip_at(at).has_value(); }

// Arcs.

std::optional<QPointF> ArcHand::grip() const {
  const Item* item = this->item();
  const auto* l = item == nullptr ? nullptr : std::get_if<Lettering>(&item->piece.what);
  if (l == nullptr || !l->along.empty() || !l->inside.empty() || bench_.stage() != Stage::Artwork) return std::nullopt;
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

// Places to stay clear of.

std::optional<std::size_t> KeepOutHand::at(QPointF px) const {
  if (bench_.stage() != Stage::Blank) return std::nullopt;
  const auto& all = bench_.job().blank.keep_outs;
  const double more = 3 / bench_.pixels_per_mm();
  for (std::size_t i = all.size(); i-- > 0;) {
    if (all[i].box().grown(more).contains(bench_.to_board(px))) return i;
  }
  return std::nullopt;
}

bool KeepOutHand::hovers(QPointF px) const { return at(px).has_value(); }

bool KeepOutHand::press(QPointF px) {
  const auto found = at(px);
  if (!found) return false;
  begin_drag();
  held_ = *found;
  last_ = bench_.to_board(px);
  Q_EMIT bench_.keep_out_chosen(static_cast<int>(held_));
  return true;
}

void KeepOutHand::drag(QPointF px) {
  const Point now = bench_.to_board(px), by = now - last_;
  last_ = now;
  edit(words("move what to stay clear of"), [which = held_, by](Job& job) {
    if (which >= job.blank.keep_outs.size()) return;
    KeepOut& place = job.blank.keep_outs[which];
    place.x = std::clamp(place.x + by.x, -500.0, job.blank.width + 500);
    place.y = std::clamp(place.y + by.y, -500.0, job.blank.height + 500);
  });
}

}  // namespace doyen
