#include "bench/hands/draw_hand.hpp"

#include <cmath>

#include "parts/theme.hpp"

namespace doyen {
namespace {

constexpr double kStill = 6;    // px: less than this is a click, not a stroke
constexpr double kTremble = 2;  // px of a hand's way that are smoothed away

}  // namespace

void DrawHand::set_active(bool active) {
  active_ = active;
  held_ = false;
  cursor_.reset();
  start_.reset();
  strokes_.clear();
  trail_.clear();
  Q_EMIT bench_.hand_changed();
  bench_.update();
}

bool DrawHand::at_start(QPointF at) const { return start_ && strokes_.size() > 1 && near(at, *start_); }

void DrawHand::paint(QPainter& p) {
  if (active_) paint_cursor(p);
  if (!active_ || !start_) return;
  const Path path = hand_path(strokes_, false, kTremble / bench_.pixels_per_mm());
  QPainterPath drawn(bench_.to_screen(*start_));
  for (const PathStep& step : path.steps) {
    if (step.kind == PathStep::Kind::Line) drawn.lineTo(bench_.to_screen(step.to));
    if (step.kind == PathStep::Kind::Curve)
      drawn.cubicTo(bench_.to_screen(step.c1), bench_.to_screen(step.c2), bench_.to_screen(step.to));
  }
  for (const Point& at : trail_) drawn.lineTo(bench_.to_screen(at));
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(theme::kMarkEdge, 3.6));
  p.drawPath(drawn);
  p.setPen(QPen(theme::kMark, 1.8));
  p.drawPath(drawn);
  dot(p, bench_.to_screen(*start_), 5, true);
  for (const HandStroke& stroke : strokes_) dot(p, bench_.to_screen(stroke.way.back()), 3.5, false);
}

bool DrawHand::press(QPointF at) {
  if (!active_) return false;
  held_ = true;
  trail_.assign(1, start_ && !strokes_.empty() ? strokes_.back().way.back() : start_.value_or(bench_.to_board(at)));
  if (!start_) start_ = bench_.to_board(at);
  return true;
}

void DrawHand::drag(QPointF at) {
  if (!held_) return;
  const Point to = bench_.to_board(at);
  if (distance(to, trail_.back()) * bench_.pixels_per_mm() >= 1) trail_.push_back(to);
  bench_.update();
}

void DrawHand::release(QPointF at) {
  if (!held_) return;
  held_ = false;
  std::vector<Point> way = std::move(trail_);
  trail_.clear();
  const Point to = at_start(at) ? *start_ : bench_.to_board(at);
  double drawn = 0;
  for (std::size_t i = 0; i + 1 < way.size(); ++i) drawn += distance(way[i], way[i + 1]);
  // Hardly moved: a click.
  if (drawn * bench_.pixels_per_mm() < kStill || way.size() < 3) way.resize(1);
  const bool first_click = strokes_.empty() && way.size() == 1 && distance(way.front(), to) < 1e-9;
  if (!first_click) {
    if (distance(way.back(), to) > 1e-9) way.push_back(to);
    if (way.size() > 1) strokes_.push_back({std::move(way)});
  }
  if (start_ && strokes_.size() > 1 && distance(to, *start_) < 1e-9) return finish(true);
  bench_.update();
}

bool DrawHand::double_click(QPointF) {
  if (!active_) return false;
  finish(false);
  return true;
}

bool DrawHand::key(int key, Qt::KeyboardModifiers keys) {
  if (!active_) return false;
  if (move_cursor(key, keys)) return true;
  switch (key) {
    case Qt::Key_Escape:
      set_active(false);
      return true;
    case Qt::Key_Space:  // as a click there
      if (!cursor_) return true;
      press(bench_.to_screen(*cursor_));
      release(bench_.to_screen(*cursor_));
      return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      finish(false);
      return true;
    case Qt::Key_Backspace:
    case Qt::Key_Delete:
      if (strokes_.empty())
        start_.reset();
      else
        strokes_.pop_back();
      bench_.update();
      return true;
    default:
      return false;
  }
}

void DrawHand::job_changed() {
  if (active_ && bench_.stage() != Stage::Artwork) set_active(false);
}

void DrawHand::finish(bool closed) {
  const Path path = hand_path(strokes_, closed, kTremble / bench_.pixels_per_mm());
  set_active(false);
  if (!path.empty()) Q_EMIT bench_.drawn(path, closed);
}

}  // namespace doyen
