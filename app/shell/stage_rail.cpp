#include "shell/stage_rail.hpp"

#include <QMouseEvent>
#include <QPainter>

#include "parts/theme.hpp"

namespace doyen {

QString stage_name(Stage stage) {
  switch (stage) {
    case Stage::Blank:
      return StageRail::tr("Blank");
    case Stage::Artwork:
      return StageRail::tr("Artwork");
    case Stage::Cuts:
      return StageRail::tr("Cuts");
    case Stage::Proof:
      return StageRail::tr("Proof");
    case Stage::Run:
      return StageRail::tr("Run");
    case Stage::Finish:
      return StageRail::tr("Finish");
  }
  return {};
}

StageRail::StageRail(QWidget* parent) : QWidget(parent) {
  setFixedHeight(58);
  setMouseTracking(true);
  setFocusPolicy(Qt::TabFocus);
  setAccessibleName(tr("Stages; choose with the arrow keys"));
}

void StageRail::show_job(const QString& name, const QString& about) {
  name_ = name;
  about_ = about;
  update();
}

void StageRail::show_state(Stage stage, Lamp lamp, const QString& words) {
  lamps_[static_cast<int>(stage)] = lamp;
  words_[static_cast<int>(stage)] = words;
  speak();
  update();
}

void StageRail::set_current(Stage stage) {
  current_ = stage;
  speak();
  update();
}

void StageRail::speak() { setAccessibleDescription(stage_name(current_) + QStringLiteral(": ") + words(current_)); }

QRect StageRail::job_rect() const { return {12, 4, 236, 50}; }
QRect StageRail::call_rect() const { return {width() - 142, 12, 132, 34}; }
QRect StageRail::stage_rect(int i) const {
  const int from = job_rect().right() + 10;
  const int each = std::min(180, (call_rect().left() - from - 8) / kStages);
  return {from + i * each, 0, each - 4, height()};
}

void StageRail::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme::kChalk);
  p.setPen(theme::kHairline);
  p.drawLine(0, height() - 1, width(), height() - 1);
  const auto elided = [&](const QString& s, int w) { return p.fontMetrics().elidedText(s, Qt::ElideRight, w); };
  p.setFont(theme::font(11, true));
  p.setPen(theme::kInk);
  p.drawText(job_rect().adjusted(8, 6, -22, -24), Qt::AlignVCenter, elided(name_, job_rect().width() - 30));
  p.drawText(QRect(job_rect().right() - 22, job_rect().top() + 6, 18, 20), Qt::AlignCenter, QStringLiteral("▾"));
  p.setFont(theme::font(8.5));
  p.setPen(theme::kFaded);
  p.drawText(job_rect().adjusted(8, 26, -4, -4), Qt::AlignVCenter, elided(about_, job_rect().width() - 12));
  for (int i = 0; i < kStages; ++i) {
    const QRect r = stage_rect(i);
    const bool here = i == static_cast<int>(current_);
    if (here) {
      p.setPen(Qt::NoPen);
      p.setBrush(theme::kPlumPale);
      p.drawRoundedRect(r.adjusted(0, 7, 0, -7), 6, 6);
      p.fillRect(QRect(r.left(), height() - 4, r.width(), 4), theme::kPlum);
    } else if (hover_ == i) {
      p.setPen(Qt::NoPen);
      p.setBrush(QColor(0, 0, 0, 10));
      p.drawRoundedRect(r.adjusted(0, 7, 0, -7), 6, 6);
    }
    if (here && hasFocus()) {
      p.setPen(QPen(theme::kPlum, 1, Qt::DotLine));
      p.setBrush(Qt::NoBrush);
      p.drawRoundedRect(r.adjusted(2, 9, -2, -9), 5, 5);
    }
    p.setFont(theme::font(8.5));
    p.setPen(theme::kFaded);
    p.drawText(r.adjusted(12, 10, 0, -26), Qt::AlignVCenter, QString::number(i + 1));
    p.setFont(theme::font(10.5, true));
    p.setPen(theme::kInk);
    p.drawText(r.adjusted(28, 10, 0, -26), Qt::AlignVCenter, stage_name(static_cast<Stage>(i)));
    p.setOpacity(pending_[i] ? kFadedAway : 1);
    p.drawPixmap(r.left() + 11, 34, lamp_picture(lamps_[i], 11, devicePixelRatioF()));
    p.setFont(theme::font(8.5));
    p.setPen(theme::kFaded);
    p.drawText(r.adjusted(28, 30, -4, -8), Qt::AlignVCenter, elided(words_[i], r.width() - 32));
    p.setOpacity(1);
  }
  p.setFont(theme::font(9));
  p.setPen(hover_ == kStages ? theme::kPlum : theme::kFaded);
  p.drawText(call_rect(), Qt::AlignVCenter | Qt::AlignRight, tr("Call box  Ctrl+K"));
}

void StageRail::show_pending(Stage stage, bool pending) {
  bool& now = pending_[static_cast<int>(stage)];
  if (now == pending) return;
  now = pending;
  update();
}

void StageRail::mousePressEvent(QMouseEvent* event) {
  const QPoint at = event->position().toPoint();
  for (int i = 0; i < kStages; ++i) {
    if (stage_rect(i).contains(at)) return Q_EMIT chosen(static_cast<Stage>(i));
  }
  if (call_rect().contains(at)) Q_EMIT call_box_wanted();
  if (job_rect().contains(at)) Q_EMIT menu_wanted(mapToGlobal(job_rect().bottomLeft()));
}

void StageRail::mouseMoveEvent(QMouseEvent* event) {
  int now = -1;
  const QPoint at = event->position().toPoint();
  for (int i = 0; i < kStages; ++i) {
    if (stage_rect(i).contains(at)) now = i;
  }
  if (call_rect().contains(at)) now = kStages;
  setCursor(now >= 0 || job_rect().contains(at) ? Qt::PointingHandCursor : Qt::ArrowCursor);
  if (now != hover_) {
    hover_ = now;
    update();
  }
}

void StageRail::leaveEvent(QEvent*) {
  hover_ = -1;
  update();
}

void StageRail::keyPressEvent(QKeyEvent* event) {
  const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
  if (step == 0) return QWidget::keyPressEvent(event);
  Q_EMIT chosen(static_cast<Stage>((static_cast<int>(current_) + step + kStages) % kStages));
}

}  // namespace doyen
