#include "bench.hpp"

#include <QMouseEvent>
#include <QPainter>
#include <QTimer>
#include <cmath>

#include "planning/outputs.hpp"
#include "problem.hpp"
#include "theme.hpp"

namespace doyen {
namespace {

constexpr int kRuler = 22;
constexpr double kGrip = 8;  // px, how near a handle counts

QPainterPath path_of(const Region& region) {
  QPainterPath path;
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      QPolygonF polygon;
      polygon.reserve(static_cast<qsizetype>(ring.size()));
      for (const Point& p : ring) polygon.append(QPointF(p.x, p.y));
      path.addPolygon(polygon);
      path.closeSubpath();
    }
  }
  return path;
}

}  // namespace

Bench::Bench(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(420, 260);
  setAccessibleName(tr("The board. Tab chooses the next piece, arrows move it."));
  connect(&painter_, &ReliefPainter::painted, this, [this](const QImage& image, const Box& area, bool fine) {
    image_ = image;
    image_area_ = area;
    fine_ = fine;
    update();
    Q_EMIT picture_changed();
  });
}

QPointF Bench::to_screen(Point p) const { return {origin_.x() + p.x * scale_, origin_.y() - p.y * scale_}; }
Point Bench::to_board(QPointF p) const { return {(p.x() - origin_.x()) / scale_, (origin_.y() - p.y()) / scale_}; }

void Bench::fit() {
  const double room_w = width() - kRuler - 70, room_h = height() - kRuler - 76;
  scale_ = std::max(0.02, std::min(room_w / job_.blank.width, room_h / job_.blank.height));
  const double left = kRuler + (width() - kRuler - job_.blank.width * scale_) / 2;
  const double bottom = kRuler + (height() - kRuler + job_.blank.height * scale_) / 2;
  origin_ = {left, bottom};
  fitted_ = true;
  ask_for_picture();
  update();
}

void Bench::show_job(const Job& job) {
  const bool other_board = job.blank.width != job_.blank.width || job.blank.height != job_.blank.height;
  job_ = job;
  shapes_.clear();
  decltype(known_) kept;
  for (const Item& item : job.items) {
    auto it = known_.find(item.piece.id);
    PieceShape s;
    std::vector<Piece> made_of;
    for (const Piece* piece : job.with_sources(item.piece)) made_of.push_back(*piece);
    if (it != known_.end() && it->second.first == made_of) {
      s = it->second.second;
    } else {
      s.id = QString::fromStdString(item.piece.id);
      try {
        const Outlines outlines = outlines_of(item.piece, job.source());
        s.path = path_of(outlines.region);
        s.box = bounds(outlines.region);
        for (const Line2& line : outlines.lines) {
          QPolygonF polygon;
          for (const Point& p : line) {
            polygon.append(QPointF(p.x, p.y));
            s.box.add(p);
          }
          s.lines.addPolygon(polygon);
        }
      } catch (const Problem&) {
        // The verdict says why it cannot be set.
      }
    }
    s.name = QString::fromStdString(item.piece.name);
    s.kind = item.cut.kind;
    kept[item.piece.id] = {std::move(made_of), s};
    shapes_.push_back(std::move(s));
  }
  known_ = std::move(kept);
  if (shape(selected_) == nullptr && !selected_.isEmpty()) select({});
  if (other_board || fitted_) fit();
  update();
}

void Bench::show_plan(const PlanPtr& plan) {
  plan_ = plan;
  for (PieceShape& s : shapes_) {
    const PiecePlan* piece = plan->piece(s.id.toStdString());
    s.tabs = piece != nullptr && piece->cuts.cut_out ? piece->cuts.cut_out->tabs : std::vector<PlacedTab>{};
  }
  ask_for_picture();
  update();
}

void Bench::show_stage(Stage stage) {
  stage_ = stage;
  update();
}

void Bench::select(const QString& piece) {
  if (selected_ == piece) return;
  selected_ = piece;
  marked_ = false;
  update();
  Q_EMIT selection_changed(piece);
}

void Bench::set_section(const SectionLine& line) {
  section_ = line;
  update();
}

void Bench::go_to(Point at) {
  marked_ = true;
  mark_ = at;
  const QPointF s = to_screen(at);
  if (!rect().adjusted(kRuler + 20, kRuler + 20, -20, -20).contains(s.toPoint())) {
    origin_ += QPointF(rect().center()) - s;
    fitted_ = false;
    ask_for_picture();
  }
  update();
}

void Bench::clear_mark() {
  marked_ = false;
  update();
}

void Bench::ask_for_picture() {
  if (!plan_ || width() < 10 || scale_ <= 0) return;
  const Point a = to_board({kRuler, static_cast<double>(height())}),
              b = to_board({static_cast<double>(width()), kRuler});
  Box area{std::max(0.0, a.x), std::max(0.0, a.y), std::min(plan_->job.blank.width, b.x),
           std::min(plan_->job.blank.height, b.y)};
  if (area.left >= area.right || area.bottom >= area.top) return;
  fine_ = false;
  painter_.request(plan_, {area, 1 / (scale_ * devicePixelRatioF())});
}

const Bench::PieceShape* Bench::shape(const QString& id) const {
  for (const PieceShape& s : shapes_) {
    if (s.id == id) return &s;
  }
  return nullptr;
}

// The smallest piece under the mouse: what lies inside a frame can be taken without moving the frame away.
QString Bench::piece_at(QPointF p) const {
  const Point b = to_board(p);
  const double near = 5 / scale_;
  const PieceShape* best = nullptr;
  for (const PieceShape& s : shapes_) {
    if (!s.box.grown(near).contains(b)) continue;
    const bool outline_only = s.kind == Treatment::Kind::CutOut ||
                              (job_.find(s.id.toStdString()) != nullptr &&
                               std::holds_alternative<PlainShape>(job_.find(s.id.toStdString())->piece.what));
    if (outline_only && !s.path.intersects(QRectF(b.x - near, b.y - near, 2 * near, 2 * near))) continue;
    if (s.kind == Treatment::Kind::CutOut && s.path.contains(QRectF(b.x - near, b.y - near, 2 * near, 2 * near)))
      continue;
    if (best == nullptr || s.box.width() * s.box.height() < best->box.width() * best->box.height()) best = &s;
  }
  return best == nullptr ? QString() : best->id;
}

QRectF Bench::selection_rect() const {
  const PieceShape* s = shape(selected_);
  if (s == nullptr || s->box.empty()) return {};
  return QRectF(to_screen({s->box.left, s->box.top}), to_screen({s->box.right, s->box.bottom})).adjusted(-5, -5, 5, 5);
}

namespace {
QPointF handle_point(const QRectF& r, int i) {
  static constexpr double kX[] = {0, 0.5, 1, 1, 1, 0.5, 0, 0}, kY[] = {0, 0, 0, 0.5, 1, 1, 1, 0.5};
  if (i == 8) return {r.center().x(), r.top() - 22};
  return {r.left() + r.width() * kX[i], r.top() + r.height() * kY[i]};
}
}  // namespace

int Bench::handle_at(QPointF p) const {
  const QRectF r = selection_rect();
  if (r.isNull() || stage_ != Stage::Artwork) return -1;
  for (int i = 0; i < 9; ++i) {
    const QPointF d = handle_point(r, i) - p;
    if (std::hypot(d.x(), d.y()) <= kGrip) return i;
  }
  return -1;
}

// How the board's outline of the selected piece is changed by the drag under way, in board coordinates.
QTransform Bench::drag_transform() const {
  QTransform t;
  const PieceShape* s = shape(selected_);
  if (s == nullptr) return t;
  const Point from = to_board(pressed_), to = to_board(now_);
  if (hand_ == Hand::Move) {
    const Point by = snapped(to - from, nullptr);
    t.translate(by.x, by.y);
  } else if (hand_ == Hand::Size) {
    const Point c = s->box.centre();
    const QPointF unit = handle_point(QRectF(0, 0, 1, 1), handle_);
    const Point fixed{unit.x() == 0.5 ? c.x
                      : unit.x() == 0 ? s->box.right
                                      : s->box.left,
                      unit.y() == 0.5 ? c.y
                      : unit.y() == 0 ? s->box.bottom
                                      : s->box.top};
    double fx = unit.x() == 0.5 ? 1 : (to.x - fixed.x) / (from.x - fixed.x);
    double fy = unit.y() == 0.5 ? 1 : (to.y - fixed.y) / (from.y - fixed.y);
    const Item* item = job_.find(selected_.toStdString());
    const bool free = item != nullptr && std::holds_alternative<PlainShape>(item->piece.what) &&
                      std::abs(std::fmod(item->piece.turn, 90)) < 1e-9;
    if (!free) fx = fy = unit.x() == 0.5 ? fy : unit.y() == 0.5 ? fx : std::max(fx, fy);
    fx = std::clamp(fx, 0.02, 50.0);
    fy = std::clamp(fy, 0.02, 50.0);
    t.translate(fixed.x, fixed.y);
    t.scale(fx, fy);
    t.translate(-fixed.x, -fixed.y);
  } else if (hand_ == Hand::Turn) {
    const Point c = s->box.centre();
    double degrees = (std::atan2(to.y - c.y, to.x - c.x) - std::atan2(from.y - c.y, from.x - c.x)) * 180 / M_PI;
    if (!(modifiers_ & Qt::AltModifier)) degrees = std::round(degrees / 5) * 5;
    t.translate(c.x, c.y);
    t.rotate(degrees);
    t.translate(-c.x, -c.y);
  }
  return t;
}

// Snaps a move to the board's middle and margins and to other pieces' middles, within six pixels; Alt moves freely.
Point Bench::snapped(Point by, QString* why) const {
  const PieceShape* s = shape(selected_);
  if (s == nullptr || (modifiers_ & Qt::AltModifier)) return by;
  const double near = 6 / scale_;
  const Blank& blank = job_.blank;
  struct Target {
    double off;
    QString what;
  };
  const auto best = [&](double low, double middle, double high, double size, bool across) {
    std::vector<Target> targets{{size / 2 - middle, tr("the middle of the board")},
                                {blank.margin - low, tr("the margin")},
                                {size - blank.margin - high, tr("the margin")}};
    for (const PieceShape& o : shapes_) {
      if (o.id == s->id || o.box.empty()) continue;
      targets.push_back(
          {(across ? o.box.centre().x : o.box.centre().y) - middle, tr("the middle of “%1”").arg(o.name)});
    }
    Target found{1e300, {}};
    for (const Target& t : targets) {
      if (std::abs(t.off) < near && std::abs(t.off) < std::abs(found.off)) found = t;
    }
    return found;
  };
  const Target x = best(s->box.left + by.x, s->box.centre().x + by.x, s->box.right + by.x, blank.width, true);
  const Target y = best(s->box.bottom + by.y, s->box.centre().y + by.y, s->box.top + by.y, blank.height, false);
  if (!x.what.isEmpty()) by.x += x.off;
  if (!y.what.isEmpty()) by.y += y.off;
  if (why != nullptr)
    *why = x.what.isEmpty() ? y.what : y.what.isEmpty() || y.what == x.what ? x.what : x.what + tr(" and ") + y.what;
  return by;
}

void Bench::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme::kBench);
  paint_board(p);
  paint_keep_outs(p);
  paint_outlines(p);
  paint_tabs(p);
  paint_zero(p);
  paint_section_line(p);
  paint_selection(p);
  if (marked_) {
    p.setPen(QPen(theme::kAmber, 2.5));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(to_screen(mark_), 15, 15);
    p.setPen(QPen(Qt::white, 1));
    p.drawEllipse(to_screen(mark_), 17, 17);
  }
  paint_rulers(p);
}

void Bench::paint_board(QPainter& p) {
  const QRectF board(to_screen({0, job_.blank.height}), to_screen({job_.blank.width, 0}));
  for (int i = 5; i > 0; --i) {  // a soft shadow to the lower right
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(60, 40, 20, 11));
    p.drawRoundedRect(board.adjusted(-1, -1, 1, 1).translated(1.3 * i, 1.6 * i), 3, 3);
  }
  if (image_.isNull()) {
    p.fillRect(board, QColor(0xC5, 0xA5, 0x82));
    p.setPen(theme::kInk);
    p.drawText(board, Qt::AlignCenter, tr("Working it out…"));
    return;
  }
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  const QRectF where(to_screen({image_area_.left, image_area_.top}),
                     to_screen({image_area_.right, image_area_.bottom}));
  if (!where.contains(board.intersected(QRectF(rect())).adjusted(1, 1, -1, -1)))
    p.fillRect(board, QColor(0xB9, 0x86, 0x5C));
  p.save();
  p.setClipRect(board);
  p.drawImage(where, image_);
  p.restore();
  // What falls away outside a cut-out is waste: it fades back.
  QPainterPath waste;
  waste.addRect(QRectF(0, 0, job_.blank.width, job_.blank.height));
  bool any = false;
  for (const PieceShape& s : shapes_) {
    if (s.kind != Treatment::Kind::CutOut || s.path.isEmpty()) continue;
    waste = waste.subtracted(s.path);
    any = true;
  }
  if (any) {
    QTransform t(scale_, 0, 0, -scale_, origin_.x(), origin_.y());
    p.fillPath(t.map(waste), QColor(228, 220, 203, 150));
  }
}

// Clamps and screws as metal, the wood's own faults as what they look like, to scale.
void Bench::paint_keep_outs(QPainter& p) {
  for (const KeepOut& place : job_.blank.keep_outs) {
    const Box b = place.box();
    const QRectF r(to_screen({b.left, b.top}), to_screen({b.right, b.bottom}));
    using K = KeepOut::Kind;
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
}

void Bench::paint_outlines(QPainter& p) {
  const QTransform to_px(scale_, 0, 0, -scale_, origin_.x(), origin_.y());
  const bool dragging = hand_ == Hand::Move || hand_ == Hand::Size || hand_ == Hand::Turn;
  for (const PieceShape& s : shapes_) {
    const bool chosen = s.id == selected_;
    const bool stale = plan_ == nullptr || plan_->piece(s.id.toStdString()) == nullptr;
    if (chosen && dragging) {
      p.setPen(QPen(theme::kPlum, 1.4));
      p.setBrush(QColor(91, 74, 111, 40));
      p.drawPath(to_px.map(drag_transform().map(s.path)));
      p.setBrush(Qt::NoBrush);
      p.drawPath(to_px.map(drag_transform().map(s.lines)));
    } else if ((stage_ == Stage::Artwork && chosen) || stale || s.kind == Treatment::Kind::None) {
      p.setPen(QPen(theme::kPlum, 1));
      p.setBrush(Qt::NoBrush);
      p.drawPath(to_px.map(s.path));
      p.drawPath(to_px.map(s.lines));
    }
  }
  if (stage_ == Stage::Artwork && job_.blank.margin > 0) {
    const double m = job_.blank.margin;
    p.setPen(QPen(QColor(91, 74, 111, 110), 1, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(QRectF(to_screen({m, job_.blank.height - m}), to_screen({job_.blank.width - m, m})));
  }
}

void Bench::paint_selection(QPainter& p) {
  const PieceShape* s = shape(selected_);
  if (s == nullptr || s->box.empty()) return;
  QRectF r = selection_rect();
  Box box = s->box;
  QString note;
  const bool dragging = hand_ == Hand::Move || hand_ == Hand::Size;
  if (dragging) {
    const QRectF b = drag_transform().mapRect(QRectF(box.left, box.bottom, box.width(), box.height()));
    box = {b.left(), b.top(), b.right(), b.bottom()};
    r = QRectF(to_screen({box.left, box.top}), to_screen({box.right, box.bottom})).adjusted(-5, -5, 5, 5);
  }
  p.setPen(QPen(theme::kPlum, 1));
  p.setBrush(Qt::NoBrush);
  p.drawRect(r);
  if (stage_ == Stage::Artwork) {
    p.setBrush(Qt::white);
    p.drawLine(handle_point(r, 1), handle_point(r, 8));
    for (int i = 0; i < 8; ++i) p.drawRect(QRectF(handle_point(r, i) - QPointF(3.5, 3.5), QSizeF(7, 7)));
    p.drawEllipse(handle_point(r, 8), 4.5, 4.5);
  }
  const auto show = [&](double mm) { return QString::fromStdString(format_length(mm, job_.lengths, false)); };
  const QString unit = QString::fromLatin1(unit_name(job_.lengths.unit));
  if (stage_ == Stage::Artwork || dragging) {
    note = show(box.width()) + QStringLiteral(" × ") + show(box.height()) + QLatin1Char(' ') + unit;
    if (hand_ == Hand::Move) {
      QString why;
      (void)snapped(to_board(now_) - to_board(pressed_), &why);
      note = tr("%1 from left, %2 from front, %3").arg(show(box.left), show(box.bottom), unit);
      if (!why.isEmpty()) note += tr(" · at %1").arg(why);
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
  p.setPen(QPen(theme::kPlum, 1.1, Qt::DashLine));
  const QPointF h = section_handle();
  const QPointF end =
      section_.along ? QPointF(to_screen({0, 0}).x() - 14, h.y()) : QPointF(h.x(), to_screen({0, 0}).y() + 14);
  p.drawLine(end, h);
  p.setPen(Qt::NoPen);
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
      const Point half = tab.along * (item->cut.tabs.length / 2), out = Point{tab.along.y, -tab.along.x};
      const QPointF a = to_screen(at - half + out * (4 / scale_)), b = to_screen(at + half + out * (4 / scale_));
      p.setPen(QPen(s.id == selected_ ? theme::kPlum : theme::kFaded, 5, Qt::SolidLine, Qt::RoundCap));
      p.drawLine(a, b);
    }
  }
}

void Bench::paint_zero(QPainter& p) {
  const bool centre = job_.run.zero_place == ZeroPlace::Centre;
  const QPointF z = to_screen(centre ? Point{job_.blank.width / 2, job_.blank.height / 2} : Point{0, 0});
  if (centre && stage_ != Stage::Run) return;
  p.setPen(QPen(theme::kPlum, 1.6));
  p.setBrush(Qt::NoBrush);
  p.drawEllipse(z, 7, 7);
  p.drawLine(z - QPointF(11, 0), z + QPointF(11, 0));
  p.drawLine(z - QPointF(0, 11), z + QPointF(0, 11));
  p.setFont(theme::font(8.5));
  const QString surface = job_.run.zero_surface == ZeroSurface::Bed ? tr("zero: the bed") : tr("zero: the face");
  p.drawText(z + QPointF(-2, 27),
             centre ? surface + tr(", middle of the board") : surface + tr(", left front corner of the board"));
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

void Bench::resizeEvent(QResizeEvent*) {
  if (fitted_)
    fit();
  else
    ask_for_picture();
}

void Bench::mousePressEvent(QMouseEvent* event) {
  setFocus();
  pressed_ = now_ = event->position();
  modifiers_ = event->modifiers();
  marked_ = false;
  const QPointF d = section_handle() - pressed_;
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
      setCursor(section                    ? (section_.along ? Qt::SizeVerCursor : Qt::SizeHorCursor)
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

void Bench::keyPressEvent(QKeyEvent* event) {
  const double step = job_.lengths.unit == Unit::Inch ? kMmPerInch / 16 : 1;
  const double by = event->modifiers() & Qt::ShiftModifier ? 10 * step
                    : event->modifiers() & Qt::AltModifier ? step / 10
                                                           : step;
  Point move;
  switch (event->key()) {
    case Qt::Key_Left:
      move = {-by, 0};
      break;
    case Qt::Key_Right:
      move = {by, 0};
      break;
    case Qt::Key_Up:
      move = {0, by};
      break;
    case Qt::Key_Down:
      move = {0, -by};
      break;
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
      at = event->key() == Qt::Key_N ? (at + 1) % n : (at + n - 1 + (at < 0)) % n;
      return select(shapes_[static_cast<std::size_t>(at)].id);
    }
    case Qt::Key_PageUp:
    case Qt::Key_PageDown: {
      const double most = section_.along ? job_.blank.height : job_.blank.width;
      section_.at = std::clamp(section_.at + (event->key() == Qt::Key_PageUp ? by : -by), 0.0, most);
      Q_EMIT section_moved(section_);
      return update();
    }
    default:
      return QWidget::keyPressEvent(event);
  }
  if (selected_.isEmpty()) return QWidget::keyPressEvent(event);
  Q_EMIT moved(selected_, move);
}

}  // namespace doyen
