#include "stages/run/bed_picture.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "parts/theme.hpp"

namespace doyen {
namespace {

constexpr double kAround = 46;  // px round the bed

Box moved(const Box& box, Point by) { return {box.left + by.x, box.bottom + by.y, box.right + by.x, box.top + by.y}; }

}  // namespace

BedPicture::BedPicture(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("bedPicture"));
  setAccessibleName(tr("The bed from above; arrows push the board, with Shift by less"));
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::OpenHandCursor);
  setMinimumSize(200, 160);
}

void BedPicture::show_job(const Job& job, const MachineProfile& machine, const std::optional<Box>& reach) {
  job_ = job;
  machine_ = machine;
  reach_ = reach;
  update();
}

void BedPicture::show_board(const QImage& board) {
  board_ = board;
  update();
}

double BedPicture::scale() const {
  const Box all = around();
  return std::max(0.01, std::min((width() - 2 * kAround) / all.width(), (height() - 2 * kAround) / all.height()));
}

QPointF BedPicture::to_screen(Point p) const {
  const double k = scale();
  const Point middle = around().centre();
  return {width() / 2.0 + (p.x - middle.x) * k, height() / 2.0 - (p.y - middle.y) * k};
}

Box BedPicture::around() const {
  Box all = bed_box(machine_);
  all.add(travel_box(machine_));
  return all;
}

QRectF BedPicture::rect_of(const Box& box) const {
  return QRectF(to_screen({box.left, box.top}), to_screen({box.right, box.bottom}));
}

Point BedPicture::origin() const {
  return left_front_on_bed(job_).value_or(middle_of_travel(job_, machine_)) + dragged_;
}

void BedPicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  p.fillRect(rect(), theme::kBench);
  paint_bed(p);
  paint_board(p);
  paint_fixture(p);
  paint_marks(p);
  if (hasFocus()) {
    p.setPen(QPen(theme::kPlum, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

// What the machine travels over, its holes, and where it homes.
void BedPicture::paint_bed(QPainter& p) const {
  const QRectF bed = rect_of(travel_box(machine_));
  const Box lies_on = bed_box(machine_);
  p.setPen(QPen(theme::kStone, 1));
  p.setBrush(QColor(0xD2, 0xC6, 0xAE));
  p.drawRect(rect_of(lies_on));
  p.setBrush(Qt::NoBrush);
  p.drawRect(bed);
  if (machine_.hole_pitch * scale() >= 5) {
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(0x8A, 0x7D, 0x66));
    const double pitch = machine_.hole_pitch, r = std::max(1.0, machine_.hole_wide / 2 * scale());
    const auto first = [pitch](double hole, double end) { return hole - std::floor((hole - end) / pitch) * pitch; };
    for (double x = first(machine_.hole_x, lies_on.left); x <= lies_on.right; x += pitch) {
      for (double y = first(machine_.hole_y, lies_on.bottom); y <= lies_on.top; y += pitch)
        p.drawEllipse(to_screen({x, y}), r, r);
    }
  }
  p.setFont(theme::font(8.5));
  p.setPen(theme::kFaded);
  const auto show = [&](double mm) { return QString::fromStdString(depth_in_words(mm, job_.lengths)); };
  p.drawText(QRectF(bed.left(), bed.bottom() + 6, bed.width(), 18), Qt::AlignCenter,
             tr("%1 of travel; you stand here").arg(show(machine_.travel[0])));
  p.save();
  p.translate(bed.left() - 8, bed.center().y());
  p.rotate(-90);
  p.drawText(QRectF(-150, -18, 300, 18), Qt::AlignCenter, tr("%1 of travel").arg(show(machine_.travel[1])));
  p.restore();
  if (machine_.home == HomeCorner::Unknown) return;
  const bool right = machine_.home == HomeCorner::RightFront || machine_.home == HomeCorner::RightBack;
  const bool back = machine_.home == HomeCorner::LeftBack || machine_.home == HomeCorner::RightBack;
  const QPointF home(right ? bed.right() : bed.left(), back ? bed.top() : bed.bottom());
  p.setBrush(theme::kFern);
  p.setPen(Qt::NoPen);
  p.drawRect(QRectF(-5, -5, 10, 10).translated(home));
  p.setPen(theme::kFern);
  const QRectF words(right ? home.x() - 206 : home.x() - 4, back ? home.y() - 24 : home.y() + 20, 210, 18);
  p.drawText(words, right ? Qt::AlignRight : Qt::AlignLeft, tr("home"));
}

void BedPicture::paint_board(QPainter& p) const {
  const Box lying = moved(lying_box(job_.blank, job_.run.on_bed), origin());
  const QRectF place = rect_of(lying);
  p.fillRect(place.translated(3, 3), QColor(0, 0, 0, 60));
  const double w = job_.blank.width * scale(), h = job_.blank.height * scale();
  p.save();
  p.translate(place.center());
  p.rotate(-degrees_of(job_.run.on_bed));
  if (!left_front_on_bed(job_)) p.setOpacity(0.6);
  if (board_.isNull())
    p.fillRect(QRectF(-w / 2, -h / 2, w, h), QColor(0xC9, 0x9B, 0x6D));
  else
    p.drawImage(QRectF(-w / 2, -h / 2, w, h), board_);
  p.restore();
  const Placement lies = lying_placement(job_);
  for (const KeepOut& place_of : job_.blank.keep_outs) {
    if (!place_of.metal() || !place_of.stands_while(false)) continue;
    Box box;
    box.add(lies.at_machine(Point{place_of.box().left, place_of.box().bottom}));
    box.add(lies.at_machine(Point{place_of.box().right, place_of.box().top}));
    p.setPen(QPen(theme::kInk, 1));
    p.setBrush(QColor(0x6F, 0x76, 0x7D));
    if (place_of.round())
      p.drawEllipse(rect_of(moved(box, origin())));
    else
      p.drawRoundedRect(rect_of(moved(box, origin())), 2, 2);
  }
}

void BedPicture::paint_fixture(QPainter& p) const {
  Job there = job_;  // with what is being dragged, so that dowels are seen to find their holes
  if (left_front_on_bed(there)) move_on_bed(there, dragged_);
  for (const FixturePart& part : fixture_parts(there, machine_)) {
    const QRectF place = rect_of(moved(part.box, origin()));
    p.setPen(QPen(theme::kInk, 1));
    p.setBrush(QColor(0x8C, 0x6B, 0x48));
    switch (part.what) {
      case FixturePart::What::Dowel:
        p.setBrush(QColor(0xE8, 0xD9, 0xB8));
        p.drawEllipse(place);
        break;
      case FixturePart::What::Wedge: {
        const bool upright = place.height() > place.width();
        p.drawPolygon(upright ? QPolygonF{place.topLeft(), place.topRight(), place.bottomRight(),
                                          place.bottomLeft() + QPointF(place.width() / 2, 0)}
                              : QPolygonF{place.topLeft(), place.topRight(), place.bottomRight(),
                                          place.bottomLeft() - QPointF(0, place.height() / 2)});
        break;
      }
      case FixturePart::What::Stop:
      case FixturePart::What::Fence:
        p.drawRect(place);
    }
  }
}

// How far the bits' middles go, and zero.
void BedPicture::paint_marks(QPainter& p) const {
  const Box bed = travel_box(machine_);
  if (reach_) {
    const Box reach = moved(*reach_, origin());
    const bool inside = bed.contains({reach.left, reach.bottom}) && bed.contains({reach.right, reach.top});
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(theme::kMarkEdge, 3));
    p.drawRect(rect_of(reach));
    p.setPen(QPen(inside ? theme::kMark : theme::kBrick, 1.4, Qt::DashLine));
    p.drawRect(rect_of(reach));
  }
  const QPointF zero = to_screen(origin() + zero_lying(job_));
  const double right = machine_.x_left ? -1 : 1, up = machine_.y_near ? -1 : 1;  // which way the machine counts
  p.setBrush(Qt::NoBrush);
  for (const QPen& pen : {QPen(theme::kMark, 4.5), QPen(theme::kPlum, 1.8)}) {
    p.setPen(pen);
    p.drawEllipse(zero, 7, 7);
    p.drawLine(zero - QPointF(11 * right, 0), zero + QPointF(26 * right, 0));
    p.drawLine(zero + QPointF(0, 11 * up), zero - QPointF(0, 26 * up));
  }
  p.setFont(theme::font(8.5, true));
  for (const QPointF& off : {QPointF(-1, 0), QPointF(1, 0), QPointF(0, -1), QPointF(0, 1), QPointF()}) {
    p.setPen(off.isNull() ? theme::kPlum : theme::kMark);
    const QPointF at = zero + off;
    p.drawText(QRectF(-7, -9, 14, 18).translated(at + QPointF(34 * right, 0)), Qt::AlignCenter, QStringLiteral("x"));
    p.drawText(QRectF(-7, -9, 14, 18).translated(at - QPointF(0, 34 * up)), Qt::AlignCenter, QStringLiteral("y"));
  }
}

void BedPicture::mousePressEvent(QMouseEvent* event) {
  const QRectF board = rect_of(moved(lying_box(job_.blank, job_.run.on_bed), origin()));
  if (event->button() != Qt::LeftButton || !board.contains(event->position())) return;
  from_ = event->position();
  setCursor(Qt::ClosedHandCursor);
}

void BedPicture::mouseMoveEvent(QMouseEvent* event) {
  if (!from_) return;
  const QPointF by = event->position() - *from_;
  const double step = job_.lengths.unit == Unit::Inch ? kMmPerInch / 8 : 1;  // round figures
  dragged_ = {std::round(by.x() / scale() / step) * step, std::round(-by.y() / scale() / step) * step};
  update();
}

void BedPicture::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || !from_) return;
  from_.reset();
  setCursor(Qt::OpenHandCursor);
  const Point by = dragged_;
  dragged_ = {};
  update();
  if (by.x != 0 || by.y != 0) Q_EMIT pushed(by);
}

void BedPicture::keyPressEvent(QKeyEvent* event) {
  const bool inch = job_.lengths.unit == Unit::Inch, fine = event->modifiers().testFlag(Qt::ShiftModifier);
  const double step = inch ? kMmPerInch / (fine ? 8 : 1) : fine ? 1 : 10;
  if (event->key() == Qt::Key_Escape && from_) {
    from_.reset();
    dragged_ = {};
    setCursor(Qt::OpenHandCursor);
    return update();
  }
  switch (event->key()) {
    case Qt::Key_Left:
      return Q_EMIT pushed({-step, 0});
    case Qt::Key_Right:
      return Q_EMIT pushed({step, 0});
    case Qt::Key_Up:
      return Q_EMIT pushed({0, step});
    case Qt::Key_Down:
      return Q_EMIT pushed({0, -step});
    default:
      return QWidget::keyPressEvent(event);
  }
}

}  // namespace doyen
