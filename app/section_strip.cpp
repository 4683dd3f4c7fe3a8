#include "section_strip.hpp"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "theme.hpp"

namespace doyen {

SectionStrip::SectionStrip(QWidget* parent) : QWidget(parent) {
  setFixedHeight(theme::kStripHeight);
  setAccessibleName(tr("Section through the board"));
  connect(&painter_, &ReliefPainter::section_cut, this,
          [this](const std::vector<float>& heights, const std::vector<float>& back) {
            heights_ = heights;
            back_ = back;
            update();
            Q_EMIT cut();
          });
}

void SectionStrip::show_plan(const PlanPtr& plan) {
  plan_ = plan;
  ask();
}

void SectionStrip::set_line(const SectionLine& line) {
  line_ = line;
  ask();
}

void SectionStrip::ask() {
  if (plan_) painter_.request_section(plan_, line_, static_cast<int>(width() * devicePixelRatioF() * 2));
  update();
}

void SectionStrip::resizeEvent(QResizeEvent*) { ask(); }

QRect SectionStrip::turn_rect() const { return {width() - 190, 6, 178, 22}; }

void SectionStrip::mousePressEvent(QMouseEvent* event) {
  if (!turn_rect().contains(event->position().toPoint()) || !plan_) return;
  const Blank& blank = plan_->job.blank;
  line_ = {!line_.along, line_.along ? blank.width / 2 : blank.height / 2};
  Q_EMIT line_changed(line_);
  ask();
}

void SectionStrip::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme::kChalk);
  p.setPen(theme::kHairline);
  p.drawLine(0, 0, width(), 0);
  if (!plan_) return;
  const Job& job = plan_->job;
  const Blank& blank = job.blank;
  const auto show = [&](double mm) { return QString::fromStdString(format_length(mm, job.lengths)); };
  p.setFont(theme::font(9, true));
  p.setPen(theme::kInk);
  p.drawText(QRect(16, 6, 400, 22), Qt::AlignVCenter,
             line_.along ? tr("Section at %1 from the front edge").arg(show(line_.at))
                         : tr("Section at %1 from the left edge").arg(show(line_.at)));
  p.setFont(theme::font(9));
  p.setPen(theme::kPlum);
  p.drawText(turn_rect(), Qt::AlignVCenter | Qt::AlignRight,
             line_.along ? tr("cut it the other way ↻") : tr("cut it lengthwise ↻"));

  const double whole = line_.along ? blank.width : blank.height;
  const double thick = blank.thickest();
  const double left = 62, right = width() - 34, top = 46, bottom = height() - 30;
  const double sx = (right - left) / whole;
  double times = (bottom - top) / (thick * sx);
  times = times >= 1 ? std::max(1.0, std::floor(times * 2) / 2) : times;
  const double sz = std::min((bottom - top) / thick, sx * times);
  p.setPen(theme::kFaded);
  if (times > 1.01)
    p.drawText(QRect(330, 6, 260, 22), Qt::AlignVCenter,
               tr("height drawn %1 times").arg(QString::fromStdString(format_number(sz / sx, 1))));

  // Bed, then the wood with its profile.
  const double bed = top + thick * sz;
  p.fillRect(QRectF(left - 6, bed, right - left + 28, 9), QColor(0xD2, 0xC3, 0xA8));
  p.setFont(theme::font(8));
  p.drawText(QPointF(right + 6, bed + 20), tr("bed"));
  if (heights_.empty()) return;
  const double step = (right - left) / static_cast<double>(heights_.size());
  double lowest = 0;
  std::size_t lowest_at = 0;
  QPolygonF surface;
  for (std::size_t i = 0; i < heights_.size(); ++i) {
    const double z = heights_[i];
    surface.append(QPointF(left + (static_cast<double>(i) + 0.5) * step, top - std::max(z, -thick - 2.0) * sz));
    // The deepest place that does not go through says more than a through cut, whose depth is known.
    const bool through = z <= -thick, only_through = lowest <= -thick;
    if (lowest == 0 || (through == only_through ? z < lowest : only_through && z < -0.05)) {
      lowest = z;
      lowest_at = i;
    }
  }
  const Look look = look_of(blank);
  QPainterPath wood;
  wood.moveTo(left, bed);
  wood.lineTo(left, surface.first().y());
  for (const QPointF& q : surface) wood.lineTo(q);
  wood.lineTo(right, surface.last().y());
  wood.lineTo(right, bed);
  for (std::size_t i = back_.size(); i-- > 0;) {  // what is cut from the back opens the underside
    const double z = std::max<double>(back_[i], -thick);
    wood.lineTo(left + (static_cast<double>(i) + 0.5) * step, bed + z * sz);
  }
  wood.closeSubpath();
  QPainterPath slab;
  slab.addRect(QRectF(left, top - 1, right - left, bed - top + 1));
  const QPainterPath body = wood.intersected(slab);
  const auto colour = [](const Colour& c, double k) {
    return QColor::fromRgbF(static_cast<float>(c.red * k), static_cast<float>(c.green * k),
                            static_cast<float>(c.blue * k));
  };
  QLinearGradient shade(0, top, 0, bed);
  shade.setColorAt(0, colour(look.species.light, 1.02));
  shade.setColorAt(1, colour(look.species.light, 0.86));
  p.fillPath(body, shade);
  p.save();
  p.setClipPath(body);
  QColor ring = colour(look.species.dark, 0.9);
  ring.setAlphaF(static_cast<float>(0.5 * look.species.figure));
  p.setPen(QPen(ring, 1));
  for (int k = 0; k < 14; ++k) {  // growth rings in the section: flat arcs
    QPainterPath arc;
    const double y = top + (k + 0.5) * (bed - top) / 11;
    arc.moveTo(left, y + 9);
    arc.cubicTo(left + (right - left) * 0.3, y - 8, left + (right - left) * 0.6, y - 5, right, y + 8);
    p.drawPath(arc);
  }
  p.restore();
  p.setPen(QPen(QColor(0x6B, 0x3F, 0x22), 1));
  p.setBrush(Qt::NoBrush);
  p.drawPath(body);
  p.setPen(QPen(theme::kFaded, 1, Qt::DotLine));
  p.drawLine(QPointF(left, top), QPointF(right, top));
  // Over-cut into the bed, where something goes through.
  p.setPen(QPen(theme::kBrick, 2));
  for (std::size_t i = 0; i + 1 < heights_.size(); ++i) {
    if (heights_[i] < -thick - 1e-3)
      p.drawLine(QPointF(left + static_cast<double>(i) * step, bed + 2),
                 QPointF(left + static_cast<double>(i + 1) * step, bed + 2));
  }
  // Depth ruler.
  const double unit = job.lengths.unit == Unit::Inch ? kMmPerInch / 4 : (thick > 30 ? 10 : 5);
  p.setFont(theme::font(8));
  for (int k = 0; k * unit <= thick + 1e-6; ++k) {
    const double y = top + k * unit * sz;
    p.setPen(theme::kFaded);
    p.drawLine(QPointF(left - 8, y), QPointF(left - 2, y));
    LengthStyle style = job.lengths;
    style.fractions = true;
    p.drawText(QRectF(left - 56, y - 8, 44, 16), Qt::AlignRight | Qt::AlignVCenter,
               QString::fromStdString(format_length(k * unit, style, false)));
  }
  p.drawText(QRectF(2, top - 22, 60, 14), Qt::AlignLeft, QString::fromLatin1(unit_name(job.lengths.unit)));
  if (lowest > -0.01) return;
  // The bit that works deepest here.
  const BitRun* run = nullptr;
  for (const BitRun& r : plan_->runs) {
    const bool fits = r.deepest >= -lowest - 0.02;
    if (fits && (run == nullptr || r.deepest < run->deepest)) run = &r;
  }
  if (run == nullptr) return;
  const double bx = left + (static_cast<double>(lowest_at) + 0.5) * step,
               tip_y = top - std::max(lowest, -thick - 2) * sz;
  QPainterPath bit;
  const double radius = run->bit.true_diameter() / 2;
  constexpr int kSteps = 24;
  QPolygonF edge;
  for (int k = -kSteps; k <= kSteps; ++k) {
    const double r = radius * k / kSteps;
    edge.append(QPointF(bx + r * sx, tip_y - run->bit.profile(std::abs(r) - 1e-9) * sz));
  }
  edge.append(QPointF(bx + radius * sx, std::min(edge.last().y(), 36.0)));
  edge.append(QPointF(bx - radius * sx, std::min(edge.first().y(), 36.0)));
  p.setClipRect(QRectF(0, 30, width(), height() - 30));
  p.setPen(QPen(QColor(0x5C, 0x66, 0x6C), 1));
  p.setBrush(QColor(150, 162, 170, 110));
  p.drawPolygon(edge);
  p.setClipping(false);
  const QString label = tr("%1: deepest here %2").arg(QString::fromStdString(run->bit.name), show(-lowest));
  p.setFont(theme::font(8.5));
  const double w = p.fontMetrics().horizontalAdvance(label);
  p.setPen(theme::kInk);
  p.drawText(QPointF(std::clamp(bx - w / 2, left, right - w), height() - 6), label);
}

}  // namespace doyen
