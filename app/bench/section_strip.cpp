#include "bench/section_strip.hpp"

#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "bench/bench.hpp"
#include "parts/theme.hpp"

namespace doyen {

SectionStrip::SectionStrip(QWidget* parent) : QWidget(parent) {
  setFixedHeight(theme::kStripHeight);
  setAccessibleName(tr("Section through the board"));
  setFocusPolicy(Qt::StrongFocus);
  setToolTip(
      tr("Draw from one place to another to measure: across, deep and how steep (by keys: arrows, Space; Esc "
         "takes it away)"));
  apart_ = new QSlider(Qt::Horizontal, this);
  apart_->setObjectName(QStringLiteral("apart"));
  apart_->setAccessibleName(tr("The plug, from apart to seated"));
  apart_->setRange(0, 100);
  apart_->setValue(100);
  apart_->hide();
  connect(apart_, &QSlider::valueChanged, this, [this] { update(); });
  connect(
      &painter_, &ReliefPainter::section_cut, this,
      [this](const std::vector<float>& heights, const std::vector<float>& back, const std::vector<float>& machined) {
        heights_ = heights;
        machined_ = machined;
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
  if (!(line == line_)) clear_measure();
  line_ = line;
  describe();
  ask();
}

void SectionStrip::describe() {
  if (!plan_) return;
  const QString at = QString::fromStdString(depth_in_words(line_.at, plan_->job.lengths));
  const QString reads = measured();
  setAccessibleDescription(
      (line_.along ? tr("at %1 from the front edge").arg(at) : tr("at %1 from the left edge").arg(at)) +
      (reads.isEmpty() ? QString() : QStringLiteral("; ") + reads));
}

void SectionStrip::set_view(const View& view) {
  if (view == view_) return;
  view_ = view;
  ask();
}

SectionStrip::Span SectionStrip::span() const {
  const Blank& blank = plan_->job.blank;
  const double whole = line_.along ? blank.width : blank.height, least = section_detail::kRulerEnd,
               most = width() - 20.0;
  Span all{0, whole, 62, width() - 34.0};
  if (view_.scale <= 0) return all;
  Span seen;
  if (line_.along) {
    seen.from = std::max(0.0, (least - view_.left) / view_.scale);
    seen.to = std::min(whole, (most - view_.left) / view_.scale);
    seen.left = view_.left + seen.from * view_.scale;
    seen.right = view_.left + seen.to * view_.scale;
  } else {
    seen = all;
    seen.from = std::max(0.0, view_.low);
    seen.to = std::min(whole, view_.high);
  }
  return seen.to - seen.from > whole / 1000 ? seen : all;  // the board is out of sight
}

void SectionStrip::show_fit(const std::shared_ptr<const Fit>& fit, const std::shared_ptr<const Halves>& halves) {
  if (fit == fit_) return;
  fit_ = fit;
  halves_ = halves;
  apart_->setVisible(shows_fit());
  update();
}

bool SectionStrip::shows_fit() const {
  if (!fit_ || !halves_) return false;
  const Box box = fit_->pocket.box();
  return line_.along ? line_.at > box.bottom && line_.at < box.top : line_.at > box.left && line_.at < box.right;
}

void SectionStrip::ask() {
  apart_->setVisible(shows_fit());
  if (plan_) {
    const Span seen = span();
    painter_.request_section(plan_, line_, seen.from, seen.to, static_cast<int>(width() * devicePixelRatioF() * 2));
  }
  update();
}

void SectionStrip::resizeEvent(QResizeEvent*) {
  apart_->setGeometry(width() - 428, 7, 150, 20);
  ask();
}

QRect SectionStrip::turn_rect() const { return {width() - 190, 6, 178, 22}; }

SectionStrip::Drawn SectionStrip::drawn() const {
  const double thick = plan_->job.blank.thickest();
  Drawn d{span(), 46, 0, 0};
  const double tall = height() - 30 - d.top;
  d.sx = d.seen.scale();
  double times = tall / (thick * d.sx);
  times = times >= 1 ? std::max(1.0, std::floor(times * 2) / 2) : times;
  d.sz = std::min(tall / thick, d.sx * times);
  return d;
}

QString SectionStrip::measured() const { return plan_ ? rule_.words(plan_->job.lengths) : QString(); }

Point SectionStrip::caught(QPointF px) const {
  const Drawn d = drawn();
  const double cell = (d.seen.to - d.seen.from) / static_cast<double>(std::max<std::size_t>(1, heights_.size()));
  return caught_on_section(px, d.to_px(), heights_, d.seen.from, cell, 9);
}

void SectionStrip::clear_measure() {
  rule_.clear();
  cursor_.reset();
  pulling_ = begun_by_key_ = false;
  describe();
  update();
}

void SectionStrip::mousePressEvent(QMouseEvent* event) {
  if (!plan_ || event->button() != Qt::LeftButton) return;
  if (turn_rect().contains(event->position().toPoint())) {
    clear_measure();
    line_ = line_.turned(plan_->job.blank);
    Q_EMIT line_changed(line_);
    return ask();
  }
  if (shows_fit() || heights_.empty() || event->position().y() < 30) return;
  clear_measure();
  rule_.begin(caught(event->position()));
  pulling_ = true;
}

void SectionStrip::mouseMoveEvent(QMouseEvent* event) {
  if (!pulling_ || heights_.empty()) return;
  rule_.pull(caught(event->position()));
  update();
}

// A press without a drag takes the measure away.
void SectionStrip::mouseReleaseEvent(QMouseEvent* event) {
  if (!pulling_) return;
  mouseMoveEvent(event);
  pulling_ = false;
  if (!rule_.there()) return clear_measure();
  describe();
}

// Along the surface, as far as arrows move things on the board; up and down away from it.
bool SectionStrip::move_cursor(int key, Qt::KeyboardModifiers keys) {
  const Point by = nudge(key, keys, plan_->job.lengths);
  if (by == Point{}) return false;
  const Drawn d = drawn();
  const double cell = (d.seen.to - d.seen.from) / static_cast<double>(heights_.size());
  Point at = cursor_.value_or(Point{(d.seen.from + d.seen.to) / 2, 0});
  at = {std::clamp(at.x + by.x, d.seen.from, d.seen.to), at.y + by.y};
  if (by.y == 0) {
    const auto i = static_cast<std::size_t>(std::max(0.0, (at.x - d.seen.from) / cell));
    at.y = heights_[std::min(i, heights_.size() - 1)];
  }
  cursor_ = at;
  return true;
}

void SectionStrip::keyPressEvent(QKeyEvent* event) {
  const bool works = plan_ && !shows_fit() && !heights_.empty();
  if (works && move_cursor(event->key(), event->modifiers())) {
    if (begun_by_key_) rule_.pull(*cursor_);
  } else if (works && event->key() == Qt::Key_Space && cursor_) {
    if (!begun_by_key_) rule_.begin(*cursor_);
    begun_by_key_ = !begun_by_key_;
  } else if (event->key() == Qt::Key_Escape && (rule_.begun() || cursor_)) {
    return clear_measure();
  } else {
    return QWidget::keyPressEvent(event);
  }
  describe();
  update();
}

void SectionStrip::focusInEvent(QFocusEvent* event) {
  QWidget::focusInEvent(event);
  const bool by_keys = event->reason() == Qt::TabFocusReason || event->reason() == Qt::BacktabFocusReason;
  if (by_keys && plan_ && !heights_.empty() && !shows_fit()) move_cursor(Qt::Key_Right, {});
  update();
}

void SectionStrip::focusOutEvent(QFocusEvent* event) {
  QWidget::focusOutEvent(event);
  cursor_.reset();
  begun_by_key_ = false;
  update();
}

}  // namespace doyen
