// What the bench shows: the carved board, what lies on it, and what is held.
#include <QPainter>
#include <cmath>

#include "bench/bench.hpp"
#include "bench/hands/all.hpp"
#include "bench/on_screen.hpp"
#include "bench/weak_paint.hpp"
#include "parts/theme.hpp"
#include "run/placement.hpp"

namespace doyen {

using bench_detail::handle_point;
using bench_detail::kRuler;

void Bench::paintEvent(QPaintEvent*) {
  if (const std::tuple view{scale_, origin_, side_}; view != seen_) {
    seen_ = view;
    Q_EMIT view_changed();
  }
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme::kBench);
  paint_board(p);
  paint_keep_outs(p);
  paint_outlines(p);
  paint_tabs(p);
  paint_zero(p);
  paint_section_line(p);
  if (weak_ != nullptr && stage_ == Stage::Proof) paint_weak(p, *weak_, board_to_px(), job_.lengths);
  paint_selection(p);
  for (const auto& hand : hands_) {
    p.save();
    hand->paint(p);
    p.restore();
  }
  if (points_->active())
    paint_hint(p, tr("Drag a point. A double click on the outline adds one, Delete removes it, R makes it round, P "
                     "pointed; arrows move it, Tab goes to the next; Esc ends."));
  if (draw_->active())
    paint_hint(p,
               tr("Click for straight sides, hold and draw for a curve. Back at the start it closes; Enter or a double "
                  "click ends, Backspace takes one back, Esc gives it up. By keys: arrows, Space."));
  if (measure_->active())
    paint_hint(
        p, tr("Draw the length you know from one point of the piece to another (by keys: arrows, Space); Esc ends."));
  for (const Point& mark : marks_) {
    p.setPen(QPen(theme::kAmber, 2));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(to_screen(mark), 7, 7);
  }
  if (marked_) {
    p.setPen(QPen(theme::kAmber, 2.5));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(to_screen(mark_), 15, 15);
    p.setPen(QPen(Qt::white, 1));
    p.drawEllipse(to_screen(mark_), 17, 17);
  }
  paint_rulers(p);
  if (hasFocus() && by_keys_) {  // where the keys go
    p.setPen(QPen(theme::kPlum, 1.2, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(rect()).adjusted(kRuler + 2.5, kRuler + 2.5, -3.5, -3.5));
  }
}

// One line at the bench's foot that says what the hand at work can do.
void Bench::paint_hint(QPainter& p, const QString& text) {
  p.setFont(theme::font(9));
  const QRectF line(kRuler, height() - 26, width() - kRuler, 26);
  p.fillRect(line, theme::kPlum);
  p.setPen(Qt::white);
  p.drawText(line.adjusted(12, 0, -12, 0), Qt::AlignVCenter, text);
}

void Bench::paint_board(QPainter& p) {
  const QRectF board = px_rect(job_.blank.box());
  const QTransform to_px = board_to_px();
  const bool square = job_.blank.form == BlankForm::Rectangle;
  const QPainterPath edge = square ? QPainterPath() : to_px.map(board_);
  const auto fill = [&](const QColor& colour) { square ? p.fillRect(board, colour) : p.fillPath(edge, colour); };
  for (int i = 5; i > 0; --i) {  // a soft shadow to the lower right
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(60, 40, 20, 11));
    square ? p.drawRoundedRect(board.adjusted(-1, -1, 1, 1).translated(1.3 * i, 1.6 * i), 3, 3)
           : p.drawPath(edge.translated(1.3 * i, 1.6 * i));
  }
  if (image_.isNull()) {
    fill(QColor(0xC5, 0xA5, 0x82));
    p.setPen(theme::kInk);
    p.drawText(board, Qt::AlignCenter, tr("Working it out…"));
    return;
  }
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  // The picture lies in the coordinates of the side that is up.
  const QRectF where(to_screen(flipped({image_area_.left, image_area_.top})),
                     to_screen(flipped({image_area_.right, image_area_.bottom})));
  if (!where.contains(board.intersected(QRectF(rect())).adjusted(1, 1, -1, -1))) fill(QColor(0xB9, 0x86, 0x5C));
  p.save();
  square ? p.setClipRect(board) : p.setClipPath(edge);
  p.drawImage(where, image_);
  if (!overlay_.isNull() && side_ == Side::Front) {
    const QRectF to = px_rect(overlay_box_);
    const QSize px = (to.size() * devicePixelRatioF()).toSize();
    // Many cells to a pixel are averaged; a thin line would come and go otherwise.
    if (px.width() < overlay_.width() && px != overlay_scaled_.size())
      overlay_scaled_ = overlay_.scaled(px, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    p.drawImage(to, px.width() < overlay_.width() ? overlay_scaled_ : overlay_);
  }
  p.restore();
  // What falls away outside a cut-out is waste: it fades back.
  if (!waste_.isEmpty()) p.fillPath(to_px.map(waste_), QColor(228, 220, 203, 150));
}

// Clamps and screws as metal, the wood's own faults as what they look like, to scale.
void Bench::paint_keep_outs(QPainter& p) {
  for (const KeepOut& place : job_.blank.keep_outs) {
    const Box b = place.box();
    const QRectF r = px_rect(b);
    using K = KeepOut::Kind;
    const bool there = place.stands_while(side_ == Side::Back);
    if (!there && stage_ != Stage::Blank) continue;
    p.setOpacity(there ? 1 : 0.35);  // it stands there while the other side is up
    if (place.metal()) {
      p.setPen(QPen(QColor(0x5A, 0x58, 0x52), 1));
      p.setBrush(QColor(0x8E, 0x8B, 0x82, 230));
      place.round() ? p.drawEllipse(r) : p.drawRoundedRect(r, 4, 4);
      p.setBrush(QColor(0x5A, 0x58, 0x52));
      const double dot = std::min(r.width(), r.height()) * 0.16;
      p.drawEllipse(r.center(), dot, dot);
    } else {
      p.setPen(QPen(QColor(0x4A, 0x2F, 0x1C, 180), 1, place.kind == K::Knot ? Qt::SolidLine : Qt::DashLine));
      p.setBrush(place.kind == K::Knot      ? QColor(0x4A, 0x2F, 0x1C, 150)
                 : place.kind == K::Sapwood ? QColor(0xF4, 0xE6, 0xC4, 120)
                                            : QColor(0x4A, 0x2F, 0x1C, 60));
      place.round() ? p.drawEllipse(r) : p.drawRect(r);
    }
  }
  p.setOpacity(1);
}

// Whether the outlines drawn before are those of `key` where they would be drawn now, or moved with the hand.
bool Bench::layer_stays(const QStringList& key, bool moves) const {
  return (moves || layer_origin_ == origin_) && layer_key_ == key && layer_scale_ == scale_ &&
         layer_.size() == size() * devicePixelRatioF();
}

// What no chosen bit reaches.
void Bench::paint_unreached(QPainter& p) {
  const QTransform to_px = board_to_px();
  // A ghost over the face, from the cells that stay in the carved wood.
  if (judgement_ != nullptr && (stage_ == Stage::Proof || !selected_.isEmpty())) {
    const PieceShape* chosen = shape(selected_);
    QPainterPath ghost;
    const double cell = judgement_->cell;
    for (const Judgement::LeftRun& run : judgement_->left_runs) {
      const QRectF cells(run.x0, run.y - cell / 2, run.x1 - run.x0, cell);
      if (stage_ != Stage::Proof &&
          (chosen == nullptr || !chosen->path.boundingRect().adjusted(-1, -1, 1, 1).intersects(cells)))
        continue;
      ghost.addRect(cells);
    }
    p.setPen(Qt::NoPen);
    p.setBrush(theme::kBrick);
    p.drawPath(to_px.map(ghost));
  }
  for (const PieceShape& s : shapes_) {
    if (judgement_ != nullptr) break;
    if (s.lost.isEmpty() || !(s.id == selected_ || stage_ == Stage::Proof)) continue;
    p.setPen(QPen(theme::kBrick, 1.4));
    p.setBrush(theme::kBrick);
    p.drawPath(to_px.map(s.lost));
  }
}

// Outlines that stay as they are while something is dragged or the board is pushed about are painted once, on a layer
// of their own: a board with tens of thousands of points moves as lightly as an empty one.
void Bench::paint_outlines(QPainter& p) {
  const QTransform to_px = board_to_px();
  const QRectF seen = QRectF(rect()).adjusted(-8, -8, 8, 8);
  const auto drawn = [&](const QPainterPath& path) { return on_screen(path, to_px, seen); };
  const bool dragging = hand_ == Hand::Move || hand_ == Hand::Size || hand_ == Hand::Turn;
  const auto held = [&](const PieceShape& s) { return dragging && (s.id == selected_ || also_.contains(s.id)); };
  const auto wanted = [&](const PieceShape& s) {
    const bool chosen = s.id == selected_ || also_.contains(s.id);
    const bool stale = plan_ == nullptr || plan_->piece(s.id.toStdString()) == nullptr;
    return !held(s) && ((stage_ == Stage::Artwork && chosen) || stale || s.kind == Treatment::Kind::None);
  };
  QStringList key;
  for (const PieceShape& s : shapes_) {
    if (wanted(s)) key << s.id;
  }
  const bool kept = layer_stays(key, hand_ == Hand::Pan || dragging);
  if (!kept && !key.isEmpty()) {
    layer_ = QPixmap(size() * devicePixelRatioF());
    layer_.setDevicePixelRatio(devicePixelRatioF());
    layer_.fill(Qt::transparent);
    QPainter on_layer(&layer_);
    on_layer.setRenderHint(QPainter::Antialiasing);
    std::vector<QPainterPath> outlines;  // each for itself: Qt's painting of all in one path takes five times as long
    for (const PieceShape& s : shapes_) {
      if (!wanted(s)) continue;
      outlines.push_back(drawn(s.path));
      outlines.push_back(drawn(s.lines));
    }
    // A dark edge and a white line on it: outlines are seen on any wood, and in a groove.
    for (const QPen& pen : {QPen(theme::kMarkEdge, 2), QPen(theme::kMark, 0.9)}) {
      for (const QPainterPath& outline : outlines) on_layer.strokePath(outline, pen);
    }
    layer_key_ = key;
    layer_scale_ = scale_;
    layer_origin_ = origin_;
  }
  if (!key.isEmpty()) p.drawPixmap(origin_ - layer_origin_, layer_);
  for (const PieceShape& s : shapes_) {
    if (!held(s)) continue;
    p.setPen(QPen(theme::kPlum, 1.4));
    p.setBrush(QColor(91, 74, 111, 40));
    p.drawPath(on_screen(s.path, drag_transform() * to_px, seen));
    p.setBrush(Qt::NoBrush);
    p.drawPath(on_screen(s.lines, drag_transform() * to_px, seen));
  }
  // What is cut from the side that lies down: dashed, as if seen through the wood.
  for (const PieceShape& s : shapes_) {
    if (s.back != (side_ == Side::Front) || s.kind == Treatment::Kind::None || held(s)) continue;
    if (side_ == Side::Back && s.id != selected_) continue;
    p.setPen(QPen(theme::kPlum, s.id == selected_ ? 1.6 : 1, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawPath(drawn(s.path));
    p.drawPath(drawn(s.lines));
  }
  paint_unreached(p);
  if (!highlight_.isEmpty()) {
    p.setPen(QPen(theme::kAmber, 1.4));
    p.setBrush(QColor(183, 121, 31, 90));
    p.drawPath(to_px.map(highlight_));
  }
  if (stage_ == Stage::Artwork && job_.blank.margin > 0) {
    const double m = job_.blank.margin;
    p.setPen(QPen(QColor(91, 74, 111, 110), 1, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(px_rect(job_.blank.box().grown(-m)));
  }
}

namespace {

// Draws twice: the dark edge, then the white line on it.
template <typename Draw>
void marked(QPainter& p, double wide, Qt::PenStyle style, Draw draw) {
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(theme::kMarkEdge, wide + 1.8, Qt::SolidLine, Qt::FlatCap));
  draw();
  p.setPen(QPen(theme::kMark, wide, style, Qt::FlatCap));
  draw();
}

}  // namespace

void Bench::paint_selection(QPainter& p) {
  Box box = chosen_box();
  if (box.empty()) return;
  QRectF r = selection_rect();
  QString note;
  const bool dragging = hand_ == Hand::Move || hand_ == Hand::Size;
  if (dragging) {
    const QRectF b = drag_transform().mapRect(QRectF(box.left, box.bottom, box.width(), box.height()));
    box = {b.left(), b.top(), b.right(), b.bottom()};
    r = px_rect(box).adjusted(-5, -5, 5, 5);
  }
  marked(p, 1.2, Qt::SolidLine, [&] { p.drawRect(r); });
  // Of several, each has a thin frame of its own in the one that all share.
  if (!also_.isEmpty()) {
    for (const QString& id : chosen()) {
      const PieceShape* s = shape(id);
      if (s == nullptr || s->box.empty()) continue;
      const QRectF own = QRectF(s->box.left, s->box.bottom, s->box.width(), s->box.height());
      const QRectF now = dragging ? drag_transform().mapRect(own) : own;
      const Box at{now.left(), now.top(), now.right(), now.bottom()};
      marked(p, 0.8, Qt::DotLine, [&] { p.drawRect(px_rect(at).adjusted(-2, -2, 2, 2)); });
    }
  }
  if (stage_ == Stage::Artwork && !points_->active()) {
    marked(p, 1.2, Qt::SolidLine, [&] { p.drawLine(handle_point(r, 1), handle_point(r, 8)); });
    p.setPen(QPen(theme::kMarkEdge, 1.2));
    p.setBrush(theme::kMark);
    for (int i = 0; i < 8; ++i) p.drawRect(QRectF(handle_point(r, i) - QPointF(3.5, 3.5), QSizeF(7, 7)));
    p.drawEllipse(handle_point(r, 8), 4.5, 4.5);
  }
  const auto show = [&](double mm) { return QString::fromStdString(size_in_words(mm, job_.lengths, false)); };
  const QString unit = QString::fromLatin1(unit_name(job_.lengths.unit));
  if (dragging) {  // at rest the bar beside the frame says it
    note = show(box.width()) + QStringLiteral(" × ") + show(box.height()) + QLatin1Char(' ') + unit;
    if (hand_ == Hand::Move) {
      Snap snap;
      (void)snapped(to_board(now_) - to_board(pressed_), &snap);
      note = tr("%1 from left, %2 from front, %3").arg(show(box.left), show(box.bottom), unit);
      if (!snap.why.isEmpty()) note += tr(" · drawn to %1").arg(snap.why);
      marked(p, 1, Qt::DashDotLine, [&] {
        if (snap.guide_x)
          p.drawLine(QPointF(to_screen({*snap.guide_x, 0}).x(), kRuler),
                     QPointF(to_screen({*snap.guide_x, 0}).x(), height()));
        if (snap.guide_y)
          p.drawLine(QPointF(kRuler, to_screen({0, *snap.guide_y}).y()),
                     QPointF(width(), to_screen({0, *snap.guide_y}).y()));
      });
    }
    if (hand_ == Hand::Turn) note.clear();
  }
  if (hand_ == Hand::Turn) {
    const QTransform t = drag_transform();
    note = tr("turn %1°").arg(std::atan2(t.m12(), t.m11()) * 180 / M_PI, 0, 'f', 1);
  }
  if (note.isEmpty()) return;
  p.setFont(theme::font(9));
  const double w = p.fontMetrics().horizontalAdvance(note) + 18;
  // Beside the handle that is held, never over the lettering: above the frame, or below it at the top of the bench.
  QRectF tag(r.right() - w, r.top() - 27, w, 21);
  if (tag.top() < kRuler + 2) tag.moveTop(r.bottom() + 7);
  tag.moveLeft(std::clamp(tag.left(), kRuler + 2.0, std::max(kRuler + 2.0, width() - w - 4)));
  p.setPen(Qt::NoPen);
  p.setBrush(theme::kPlum);
  p.drawRoundedRect(tag, 4, 4);
  p.setPen(Qt::white);
  p.drawText(tag, Qt::AlignCenter, note);
}

QPointF Bench::section_handle() const {
  if (section_.along) return {to_screen({job_.blank.width, 0}).x() + 22, to_screen({0, section_.at}).y()};
  return {to_screen({section_.at, 0}).x(), to_screen({0, job_.blank.height}).y() - 20};
}

void Bench::paint_section_line(QPainter& p) {
  const QPointF h = section_handle();
  const QPointF end =
      section_.along ? QPointF(to_screen({0, 0}).x() - 14, h.y()) : QPointF(h.x(), to_screen({0, 0}).y() + 14);
  marked(p, 1.3, Qt::DashLine, [&] { p.drawLine(end, h); });
  p.setPen(QPen(theme::kMark, 1));
  p.setBrush(theme::kPlum);
  if (section_.along)
    p.drawPolygon(QPolygonF{h, h + QPointF(-11, -7), h + QPointF(-11, 7)});
  else
    p.drawPolygon(QPolygonF{h, h + QPointF(-7, 11), h + QPointF(7, 11)});
}

void Bench::paint_tabs(QPainter& p) {
  for (const PieceShape& s : shapes_) {
    const Item* item = job_.find(s.id.toStdString());
    if (item == nullptr) continue;
    for (std::size_t i = 0; i < s.tabs.size(); ++i) {
      const PlacedTab& tab = s.tabs[i];
      Point at = tab.at;
      if (hand_ == Hand::Tab && s.id == selected_ && dragged_tab_ == static_cast<int>(i)) at = to_board(now_);
      const Point half = tab.along * (item->cut.through.tabs.length / 2), out = Point{tab.along.y, -tab.along.x};
      const QPointF a = to_screen(at - half + out * (4 / scale_)), b = to_screen(at + half + out * (4 / scale_));
      p.setPen(QPen(theme::kMarkEdge, 6, Qt::SolidLine, Qt::RoundCap));
      p.drawLine(a, b);
      p.setPen(QPen(s.id == selected_ ? theme::kMark : theme::kHairline, 3, Qt::SolidLine, Qt::RoundCap));
      p.drawLine(a, b);
    }
  }
}

namespace {

QString zero_place_in_words(const RunSettings& run) {
  const bool drawn = run.on_bed == OnBed::AsDrawn;
  switch (run.zero_place) {
    case ZeroPlace::Centre:
      return Bench::tr(", middle of the board");
    case ZeroPlace::LeftFront:
      return drawn ? Bench::tr(", left front corner of the board") : Bench::tr(", left front as it lies on the bed");
    case ZeroPlace::RightFront:
      return drawn ? Bench::tr(", right front corner of the board") : Bench::tr(", right front as it lies on the bed");
    case ZeroPlace::LeftBack:
      return drawn ? Bench::tr(", left back corner of the board") : Bench::tr(", left back as it lies on the bed");
    case ZeroPlace::RightBack:
      return drawn ? Bench::tr(", right back corner of the board") : Bench::tr(", right back as it lies on the bed");
    case ZeroPlace::MiddleFront:
      return Bench::tr(", middle of the edge that lies in front");
    case ZeroPlace::MiddleLeft:
      return Bench::tr(", middle of the edge that lies left");
    case ZeroPlace::MiddleRight:
      return Bench::tr(", middle of the edge that lies right");
    case ZeroPlace::MiddleBack:
      return Bench::tr(", middle of the edge that lies behind");
    case ZeroPlace::Pin:
      return Bench::tr(", the turning pin");
  }
  return {};
}

}  // namespace

void Bench::paint_zero(QPainter& p) {
  if (job_.panels.there() && !job_.plates.there()) return;  // each panel has its own
  const Placement lies = placement_of(job_, machine_for(job_), side_);
  // Each side has its own: at the place that lies there with that side up.
  const QPointF z = to_screen(flipped(lies.on_board(Point{0, 0})));
  if (job_.run.zero_place == ZeroPlace::Centre && stage_ != Stage::Run) return;
  p.setPen(QPen(theme::kPlum, 1.6));
  p.setBrush(Qt::NoBrush);
  p.drawEllipse(z, 7, 7);
  p.drawLine(z - QPointF(11, 0), z + QPointF(11, 0));
  p.drawLine(z - QPointF(0, 11), z + QPointF(0, 11));
  p.setFont(theme::font(8.5));
  if (stage_ == Stage::Run) {  // which way the machine's axes run, as the board lies
    constexpr double kLong = 34;
    for (const auto& [axis, name] : {std::pair{Point{1, 0}, "x"}, std::pair{Point{0, 1}, "y"}}) {
      const Point origin = flipped(lies.on_board(Point{0, 0})), end = flipped(lies.on_board(axis));
      const QPointF along(end.x - origin.x, origin.y - end.y);
      p.drawLine(z, z + along * kLong);
      p.drawText(QRectF(-8, -8, 16, 16).translated(z + along * (kLong + 9)), Qt::AlignCenter,
                 QString::fromLatin1(name));
    }
  }
  const QString surface = job_.run.zero_surface == ZeroSurface::Bed ? tr("zero: the bed")
                          : side_ == Side::Back                     ? tr("zero: the back")
                          : job_.run.zero_floor > 0                 ? tr("zero: the sunk floor")
                                                                    : tr("zero: the face");
  const QString words = surface + zero_place_in_words(job_.run);
  const QRectF room = QFontMetricsF(p.font()).boundingRect(words);
  // Beside the mark, inside the view.
  const double x = std::clamp(z.x() - 2, kRuler + 4.0, std::max(kRuler + 4.0, width() - room.width() - 8));
  p.drawText(QPointF(x, z.y() + (stage_ == Stage::Run ? 40 : 27)), words);
  if (side_ == Side::Back)
    p.drawText(px_rect(job_.blank.box()).translated(0, -24), Qt::AlignLeft | Qt::AlignTop,
               job_.run.turn == TurnOver::LeftEdge ? tr("The back, turned over about the left edge")
                                                   : tr("The back, turned over about the front edge"));
}

void Bench::paint_rulers(QPainter& p) {
  p.fillRect(QRect(0, 0, width(), kRuler), theme::kChalk);
  p.fillRect(QRect(0, 0, kRuler, height()), theme::kChalk);
  p.setFont(theme::font(7.5));
  p.setPen(theme::kFaded);
  const double unit = job_.lengths.unit == Unit::Inch ? kMmPerInch : 10;
  double step = unit;
  while (step * scale_ < 9) step *= step / unit >= 5 ? 2 : 5;
  const int every = step * scale_ > 60 ? 1 : step * scale_ > 24 ? 3 : 6;
  const auto number = [&](int k) {
    return QString::number(k * step / (job_.lengths.unit == Unit::Inch ? kMmPerInch : 1), 'g', 5);
  };
  for (int k = 0; k * step <= job_.blank.width + 0.01; ++k) {
    const double x = to_screen({k * step, 0}).x();
    if (x < kRuler) continue;
    const bool major = k % every == 0;
    p.drawLine(QPointF(x, kRuler - (major ? 9 : 4)), QPointF(x, kRuler - 1));
    if (major) p.drawText(QPointF(x + 3, 11), number(k));
  }
  for (int k = 0; k * step <= job_.blank.height + 0.01; ++k) {
    const double y = to_screen({0, k * step}).y();
    if (y < kRuler) continue;
    const bool major = k % std::min(every, 3) == 0;
    p.drawLine(QPointF(kRuler - (major ? 9 : 4), y), QPointF(kRuler - 1, y));
    if (major) p.drawText(QPointF(2, y - 2), number(k));
  }
  p.fillRect(QRect(0, 0, kRuler, kRuler), theme::kChalk);
  p.drawText(QRect(0, 0, kRuler, kRuler), Qt::AlignCenter, QString::fromLatin1(unit_name(job_.lengths.unit)));
}

}  // namespace doyen
