// The picture of the section: the board's wood with its bit, or both halves of an inlay.
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "bench/section_strip.hpp"
#include "parts/theme.hpp"

namespace doyen {

using section_detail::kRulerEnd;

void SectionStrip::paint_measure(QPainter& p) const {
  const QTransform to_px = drawn().to_px();
  rule_.paint(p, to_px, QRectF(rect()).adjusted(8, 30, -8, -4), plan_->job.lengths);
  if (!cursor_) return;
  const QPointF at = to_px.map(QPointF(cursor_->x, cursor_->y));
  p.setPen(QPen(theme::kPlum, 1.6));
  p.drawLine(at - QPointF(9, 0), at + QPointF(9, 0));
  p.drawLine(at - QPointF(0, 9), at + QPointF(0, 9));
}

// The wood under the surface, in as many parts as what goes through it leaves: straight from the samples, since
// clipping a path of thousands of points costs more than all else here.
QPainterPath SectionStrip::body_of(const QPolygonF& surface, const Box& slab, double per_mm) const {
  const double thick = plan_->job.blank.thickest(), face = slab.bottom, bed = slab.top;
  const auto under = [&](qsizetype i) {  // what is cut from the back opens the underside
    const auto k = static_cast<std::size_t>(i);
    return k < back_.size() ? bed + std::max<double>(back_[k], -thick) * per_mm : bed;
  };
  QPainterPath body;
  const qsizetype n = surface.size();
  for (qsizetype i = 0; i < n; ++i) {
    const qsizetype first = i;
    while (i < n && surface[i].y() < under(i)) ++i;
    if (i == first) continue;
    QPolygonF part;
    const double half = n > 1 ? (surface[1].x() - surface[0].x()) / 2 : 0;
    const double left = first == 0 ? slab.left : surface[first].x() - half;
    const double right = i == n ? slab.right : surface[i - 1].x() + half;
    part << QPointF(left, under(first)) << QPointF(left, std::max(surface[first].y(), face - 1));
    for (qsizetype k = first; k < i; ++k) part << QPointF(surface[k].x(), std::max(surface[k].y(), face - 1));
    part << QPointF(right, std::max(surface[i - 1].y(), face - 1)) << QPointF(right, under(i - 1));
    for (qsizetype k = i; k-- > first;) part << QPointF(surface[k].x(), under(k));
    body.addPolygon(part);
    body.closeSubpath();
  }
  return body;
}

std::size_t SectionStrip::deepest_place() const {
  // The deepest place that does not go through says more than a through cut, whose depth is known.
  const double thick = plan_->job.blank.thickest();
  double lowest = 0;
  std::size_t lowest_at = 0;
  for (std::size_t i = 0; i < machined_.size(); ++i) {
    const double z = machined_[i];
    const bool through = z <= -thick, only_through = lowest <= -thick;
    if (lowest == 0 || (through == only_through ? z < lowest : only_through && z < -0.05)) {
      lowest = z;
      lowest_at = i;
    }
  }
  return lowest_at;
}

void SectionStrip::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme::kChalk);
  p.setPen(theme::kHairline);
  p.drawLine(0, 0, width(), 0);
  if (!plan_) return;
  const QString at = QString::fromStdString(depth_in_words(line_.at, plan_->job.lengths));
  p.setFont(theme::font(9, true));
  p.setPen(theme::kInk);
  p.drawText(
      QRect(16, 6, 400, 22), Qt::AlignVCenter,
      line_.along ? tr("Section at %1 from the front edge").arg(at) : tr("Section at %1 from the left edge").arg(at));
  p.setFont(theme::font(9));
  p.setPen(theme::kPlum);
  p.drawText(turn_rect(), Qt::AlignVCenter | Qt::AlignRight, tr("turn the section ↻"));
  if (hasFocus() && cursor_) {  // where the keys go
    p.setPen(QPen(theme::kPlum, 1.2, Qt::DotLine));
    p.drawRect(QRectF(rect()).adjusted(2.5, 2.5, -3.5, -3.5));
  }
  if (shows_fit()) return paint_fit(p);

  const Drawn how = drawn();
  const double times = how.sz / how.sx;
  p.setPen(theme::kFaded);
  if (times > 1.01)
    p.drawText(QRect(330, 6, 260, 22), Qt::AlignVCenter,
               tr("depth drawn %1× too tall").arg(QString::fromStdString(format_number(times, 1))));
  else if (times < 0.99)
    p.drawText(QRect(330, 6, 260, 22), Qt::AlignVCenter, tr("depth drawn at %1 %").arg(times * 100, 0, 'f', 0));
  const double bed = how.top + plan_->job.blank.thickest() * how.sz;
  p.fillRect(QRectF(how.seen.left - 6, bed, how.seen.right - how.seen.left + 28, 9), QColor(0xD2, 0xC3, 0xA8));
  p.setFont(theme::font(8));
  p.drawText(QRectF(width() - 60, bed + 11, 54, 14), Qt::AlignRight, tr("bed"));
  if (machined_.empty()) return;
  paint_wood(p, how);
  paint_depths(p, how);
  const std::size_t deepest = deepest_place();
  if (machined_[deepest] <= -0.01F && !rule_.begun() && !cursor_) paint_bit(p, how, deepest);
  paint_measure(p);
}

// The wood with its profile, and where something goes through into the bed.
void SectionStrip::paint_wood(QPainter& p, const Drawn& how) const {
  const Blank& blank = plan_->job.blank;
  const double left = how.seen.left, right = how.seen.right, top = how.top, sz = how.sz;
  const double thick = blank.thickest(), bed = top + thick * sz;
  // Where the board goes on beyond what is seen, its wood does, too.
  const double whole = line_.along ? blank.width : blank.height;
  const double before = how.seen.from > 1e-6 ? left - 4 : left, beyond = how.seen.to < whole - 1e-6 ? right + 4 : right;
  const double step = (right - left) / static_cast<double>(heights_.size());
  QPolygonF surface;
  for (std::size_t i = 0; i < heights_.size(); ++i) {
    const double z = heights_[i];
    surface.append(QPointF(left + (static_cast<double>(i) + 0.5) * step, top - std::max(z, -thick - 2.0) * sz));
  }
  const WoodLook look = wood_look(blank);
  const QPainterPath body = body_of(surface, {before, top, beyond, bed}, sz);
  const auto colour = [](const Colour& c, double k) {
    return QColor::fromRgbF(static_cast<float>(c.red * k), static_cast<float>(c.green * k),
                            static_cast<float>(c.blue * k));
  };
  QLinearGradient shade(0, top, 0, bed);
  shade.setColorAt(0, colour(look.species.light, 1.02));
  shade.setColorAt(1, colour(look.species.light, 0.86));
  p.save();
  p.setClipRect(QRectF(left - 1, top - 2, right - left + 2, bed - top + 4));
  const QRectF slab(left - 1, top - 1, right - left + 2, bed - top + 1);
  p.fillRect(slab, shade);
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
  // The air over the wood and under it goes on top of them: a clip along the surface costs ten times as much.
  QPainterPath air;
  air.addRect(slab.adjusted(-1, -1, 1, 0));
  air.addPath(body);
  p.fillPath(air, theme::kChalk);
  p.setPen(QPen(QColor(0x6B, 0x3F, 0x22), 1));
  p.setBrush(Qt::NoBrush);
  p.drawPath(body);
  p.restore();
  p.setPen(QPen(theme::kFaded, 1, Qt::DotLine));
  p.drawLine(QPointF(left, top), QPointF(right, top));
  // Over-cut into the bed, where something goes through.
  p.setPen(QPen(theme::kBrick, 2));
  for (std::size_t i = 0; i + 1 < heights_.size(); ++i) {
    if (heights_[i] < -thick - 1e-3)
      p.drawLine(QPointF(left + static_cast<double>(i) * step, bed + 2),
                 QPointF(left + static_cast<double>(i + 1) * step, bed + 2));
  }
}

void SectionStrip::paint_depths(QPainter& p, const Drawn& how) const {
  const Job& job = plan_->job;
  const double thick = job.blank.thickest(), top = how.top, sz = how.sz;
  const double unit = job.lengths.unit == Unit::Inch ? kMmPerInch / 4 : (thick > 30 ? 10 : 5);
  p.setFont(theme::font(8));
  for (int k = 0; k * unit <= thick + 1e-6; ++k) {
    const double y = top + k * unit * sz;
    p.setPen(theme::kFaded);
    p.drawLine(QPointF(kRulerEnd - 7, y), QPointF(kRulerEnd - 1, y));
    LengthStyle style = job.lengths;
    style.fractions = true;
    p.drawText(QRectF(0, y - 8, kRulerEnd - 10, 16), Qt::AlignRight | Qt::AlignVCenter,
               QString::fromStdString(format_length(k * unit, style, false)));
  }
  p.drawText(QRectF(2, top - 22, 60, 14), Qt::AlignLeft, QString::fromLatin1(unit_name(job.lengths.unit)));
}

// The bit that works deepest here: of those that go so deep, the one whose edge lies on most of what is cut, with no
// wood standing where it turned.
void SectionStrip::paint_bit(QPainter& p, const Drawn& how, std::size_t lowest_at) const {
  const Span& seen = how.seen;
  const double left = seen.left, right = seen.right, top = how.top, sx = how.sx, sz = how.sz;
  const double thick = plan_->job.blank.thickest(), lowest = machined_[lowest_at];
  const double step = (right - left) / static_cast<double>(machined_.size());
  const BitRun* run = nullptr;
  int most = -1;
  const double cell = (seen.to - seen.from) / static_cast<double>(machined_.size());
  for (const BitRun& r : plan_->runs) {
    if (r.deepest < -lowest - 0.02) continue;
    int touches = 0;
    bool stands = false;
    const auto reach = static_cast<std::ptrdiff_t>(r.bit.true_diameter() / 2 / cell);
    for (std::ptrdiff_t k = -reach; k <= reach; ++k) {
      const std::ptrdiff_t i = static_cast<std::ptrdiff_t>(lowest_at) + k;
      if (i < 0 || i >= static_cast<std::ptrdiff_t>(machined_.size())) continue;
      const double edge = lowest + r.bit.profile(static_cast<double>(std::abs(k)) * cell);
      const double off = machined_[static_cast<std::size_t>(i)] - std::min(edge, 0.0);
      if (off > 0.15 + cell) stands = true;
      if (std::abs(off) < 0.05 + cell) ++touches;
    }
    const int good = stands ? 0 : 1 + touches;
    if (good > most) {
      most = good;
      run = &r;
    }
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
  const QString label = tr("%1: deepest here %2")
                            .arg(QString::fromStdString(run->bit.name),
                                 QString::fromStdString(depth_in_words(-lowest, plan_->job.lengths)));
  p.setFont(theme::font(8.5));
  const double w = p.fontMetrics().horizontalAdvance(label);
  p.setPen(theme::kInk);
  p.drawText(QPointF(std::clamp(bx - w / 2, left, right - w), height() - 6), label);
}

// Both halves where the line crosses the inlay: the plug above its pocket, or in it.
void SectionStrip::paint_fit(QPainter& p) const {
  const Fit& fit = *fit_;
  const Inlay& inlay = halves_->inlay;
  const LengthStyle& lengths = plan_->job.lengths;
  const auto show = [&](double mm) { return QString::fromStdString(depth_in_words(mm, lengths)); };
  const HeightField& field = fit.pocket;
  const std::size_t count = line_.along ? field.columns() : field.rows();
  const double from = line_.along ? field.box().bottom : field.box().left;
  const std::size_t other = std::min(static_cast<std::size_t>((line_.at - from) / field.cell()),
                                     (line_.along ? field.rows() : field.columns()) - 1);
  const auto pocket_at = [&](std::size_t i) -> double { return line_.along ? field.at(i, other) : field.at(other, i); };
  const auto plug_at = [&](std::size_t i) -> double {
    return line_.along ? fit.plug.at(i, other) : fit.plug.at(other, i);
  };
  const double share = (100 - apart_->value()) / 100.0;
  const double raised = fit.rides_up + share * (halves_->depth + 1);
  const double lowest = -halves_->depth - 3, highest = inlay.saw_gap + 4 + std::max(0.0, fit.rides_up);
  const double left = 62, right = width() - 34, top = 36, bottom = height() - 22;
  const double sx = (right - left) / (static_cast<double>(count) * field.cell()),
               sz = (bottom - top) / (highest - lowest);
  const auto y_of = [&](double z) { return top + (highest - z) * sz; };
  const auto x_of = [&](std::size_t i) { return left + (static_cast<double>(i) + 0.5) * field.cell() * sx; };
  p.setFont(theme::font(9));
  p.setPen(theme::kFaded);
  p.drawText(QRect(262, 6, 200, 22), Qt::AlignVCenter,
             tr("both halves, drawn %1× too tall").arg(QString::fromStdString(format_number(sz / sx, 1))));
  p.drawText(QRect(apart_->x() - 64, 6, 58, 22), Qt::AlignVCenter | Qt::AlignRight, tr("apart"));
  p.drawText(QRect(apart_->x() + apart_->width() + 6, 6, 60, 22), Qt::AlignVCenter, tr("seated"));

  p.save();
  p.setClipRect(QRectF(left, top - 4, right - left, bottom - top + 4));
  QPolygonF board{QPointF(left, bottom)}, plug{QPointF(left, y_of(highest + raised))};
  for (std::size_t i = 0; i < count; ++i) {
    board << QPointF(x_of(i), y_of(std::max(pocket_at(i), lowest)));
    plug << QPointF(x_of(i), y_of(std::min(plug_at(i) + raised, highest + raised)));
  }
  board << QPointF(right, bottom);
  plug << QPointF(right, y_of(highest + raised));
  const auto wood = [](const std::string& id, double k) {
    const Species* s = species_table().find(id);
    const Colour c = s == nullptr ? Colour{0.7, 0.55, 0.4} : s->light;
    return QColor::fromRgbF(static_cast<float>(c.red * k), static_cast<float>(c.green * k),
                            static_cast<float>(c.blue * k));
  };
  p.fillRect(QRectF(left, top - 4, right - left, bottom - top + 4), Qt::white);
  p.setPen(QPen(wood(plan_->job.blank.species, 0.55), 1));
  p.setBrush(wood(plan_->job.blank.species, 0.95));
  p.drawPolygon(board);
  p.setPen(QPen(wood(inlay.wood, 0.6), 1));
  p.setBrush(wood(inlay.wood, 1));
  p.drawPolygon(plug);
  p.setPen(Qt::NoPen);
  p.setBrush(theme::kBrick);
  for (std::size_t i = 0; i < count; ++i) {  // wood in the way
    const double low = plug_at(i) + raised, high = pocket_at(i);
    if (high - low > 0.02) p.drawRect(QRectF(x_of(i) - 1, y_of(high), 2, std::max(2.0, (high - low) * sz)));
  }
  p.setPen(QPen(theme::kBrick, 1, Qt::DashLine));
  p.drawLine(QPointF(left, y_of(0)), QPointF(right, y_of(0)));
  p.restore();

  // The widest flat floor and the widest stretch of face say the two gaps.
  const auto widest = [&](auto counts) {
    std::pair<std::size_t, std::size_t> best{0, 0};
    for (std::size_t i = 0; i < count;) {
      std::size_t end = i;
      while (end < count && counts(end)) ++end;
      if (end - i > best.second - best.first) best = {i, end};
      i = std::max(end, i + 1);
    }
    return best;
  };
  p.setFont(theme::font(8.5));
  const auto label = [&](std::pair<std::size_t, std::size_t> where, double z, const QString& words) {
    const double wide = p.fontMetrics().horizontalAdvance(words) + 8;
    const double at = (x_of(where.first) + x_of(where.second)) / 2;
    if (where.second - where.first < 4) return;
    const QRectF box(std::clamp(at - wide / 2, left, right - wide), y_of(z) - 8, wide, 16);
    p.fillRect(box, QColor(251, 248, 242, 225));
    p.setPen(theme::kInk);
    p.drawText(box, Qt::AlignCenter, words);
  };
  const auto floor = widest([&](std::size_t i) { return pocket_at(i) < -halves_->depth + 0.05; });
  const auto face = widest([&](std::size_t i) { return pocket_at(i) > -0.01 && plug_at(i) > inlay.saw_gap - 0.1; });
  if (share < 0.02) {
    label(floor, -halves_->depth - 1.4, tr("glue gap %1").arg(show(std::max(0.0, fit.glue_gap + fit.rides_up))));
    label(face, -1.4, tr("saw gap %1").arg(show(fit.saw_gap + fit.rides_up)));
  }
  p.setPen(theme::kBrick);
  p.drawText(QRectF(left, bottom + 3, right - left, 16), Qt::AlignRight,
             tr("saw or plane to the dashed line, the board's face"));
  p.setPen(theme::kFaded);
  p.drawText(QRectF(2, y_of(0) - 8, left - 8, 16), Qt::AlignRight | Qt::AlignVCenter, tr("face"));
  p.drawText(QRectF(2, y_of(-halves_->depth) - 8, left - 8, 16), Qt::AlignRight | Qt::AlignVCenter,
             show(halves_->depth));
}

}  // namespace doyen
