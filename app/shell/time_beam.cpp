#include "shell/time_beam.hpp"

#include <QPainter>

#include "machine/timings.hpp"
#include "parts/cards.hpp"
#include "parts/theme.hpp"

namespace doyen {

TimeBeam::TimeBeam(QWidget* parent) : QWidget(parent) {
  setFixedHeight(78);
  setAccessibleName(tr("Time at the machine"));
  write_ = new QPushButton(tr("Write the files…"), this);
  write_->setObjectName(QStringLiteral("write"));
  write_->setFocusPolicy(Qt::TabFocus);  // a click leaves the focus where it was: no stray Space presses it again
  write_->setProperty("role", QStringLiteral("main"));
  write_->setToolTip(tr("G-code, run sheet, picture and plan into a folder (Ctrl+E)"));
  cancel_ = new QPushButton(tr("Stop planning"), this);
  cancel_->hide();
  connect(write_, &QPushButton::clicked, this, &TimeBeam::write_wanted);
  connect(cancel_, &QPushButton::clicked, this, &TimeBeam::cancel_wanted);
}

void TimeBeam::show_plan(const PlanPtr& plan) {
  trouble_.clear();
  setToolTip({});
  plan_ = plan;
  write_->setEnabled(plan && !plan->runs.empty());
  QString spoken = plan ? QString::fromStdString(format_duration(plan->seconds)) : QString();
  if (const QString real = likely(); !real.isEmpty()) spoken += QStringLiteral("; ") + real;
  if (plan) {
    for (const BitRun& run : plan->runs)
      spoken += QStringLiteral("; ") + QString::fromStdString(run.bit.name + ", " + format_duration(run.time.seconds));
  }
  setAccessibleDescription(spoken);
  update();
}

void TimeBeam::show_busy(bool busy, int done, int of) {
  busy_ = busy;
  done_ = done;
  of_ = of;
  easings_ = 0;
  if (!busy)
    cancel_->hide();
  else if (of > 3 && done < of)
    cancel_->show();
  update();
}

void TimeBeam::show_easings(int tried) {
  easings_ = tried;
  if (!busy_) cancel_->setVisible(tried > 0);
  update();
}

void TimeBeam::show_pending(bool pending) {
  if (pending == pending_) return;
  pending_ = pending;
  update();
}

void TimeBeam::show_trouble(const QString& what) {
  trouble_ = what;
  setToolTip(what);
  update();
}

void TimeBeam::resizeEvent(QResizeEvent*) {
  write_->setGeometry(width() - 182, 20, 164, 40);
  cancel_->setGeometry(width() - 312, 25, 118, 30);
}

QString TimeBeam::title() const {
  return plan_ && plan_->job.plates.there()    ? tr("One plate alone takes")
         : plan_ && plan_->job.panels.there()  ? tr("In one piece it would take")
         : plan_ && plan_->job.made_as_parts() ? tr("As drawn it would take")
                                               : tr("Time at the machine");
}

// What the machine itself makes of it: a range until it was timed, then by its own factor.
QString TimeBeam::likely() const {
  if (!plan_ || plan_->runs.empty() || plan_->job.made_as_others()) return {};
  const double cutting = plan_->cutting_seconds();
  return QString::fromStdString(likely_in_words(cutting, plan_->machine.id, plan_->seconds - cutting));
}

void TimeBeam::say_likely(QPainter& p) const {
  p.drawText(QRect(20, 57, 304, 18), Qt::AlignVCenter, p.fontMetrics().elidedText(likely(), Qt::ElideRight, 304));
}

void TimeBeam::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme::kChalk);
  p.setPen(theme::kHairline);
  p.drawLine(0, 0, width(), 0);
  p.setPen(theme::kInk);
  p.setFont(theme::font(9, true));
  p.drawText(QRect(20, 8, 220, 20), Qt::AlignVCenter, title());
  if (busy_ || easings_ > 0) {
    p.setFont(theme::font(8.5));
    p.setPen(theme::kPlum);
    p.drawText(QRect(160, 8, 170, 20), Qt::AlignVCenter,
               !busy_    ? tr("easing the plug's corners, try %1").arg(easings_)
               : of_ > 0 ? tr("working it out, %1 of %2").arg(done_).arg(of_)
                         : tr("working it out…"));
  }
  if (!trouble_.isEmpty()) {
    p.setPen(theme::kBrick);
    p.setFont(theme::font(9.5));
    p.drawText(QRect(20, 28, width() - 230, 40), Qt::AlignVCenter | Qt::TextWordWrap,
               tr("This job could not be planned: %1").arg(trouble_));
    return;
  }
  if (!plan_) return;
  if (pending_) p.setOpacity(kFadedAway);
  p.setPen(theme::kInk);
  p.setFont(theme::font(17, true));
  const QString total = QString::fromStdString(format_duration(plan_->seconds));
  p.drawText(QRect(20, 28, 220, 34), Qt::AlignVCenter, total);
  const int total_width = p.fontMetrics().horizontalAdvance(total);
  p.setFont(theme::font(8.5));
  p.setPen(theme::kFaded);
  const int changes = plan_->bit_changes();
  const QString about = plan_->runs.empty() ? tr("nothing is cut yet")
                        : changes == 0      ? tr("one bit")
                        : changes == 1      ? tr("one bit change in it")
                                            : tr("%1 bit changes in it").arg(changes);
  p.drawText(QRect(32 + total_width, 34, 150, 26), Qt::AlignVCenter, about);
  if (plan_->runs.empty()) return;
  say_likely(p);
  const double left = 330, right = width() - (cancel_->isVisible() ? 330 : 206);
  const double change = 30;
  const double cutting = plan_->cutting_seconds();
  const auto pauses = static_cast<double>(plan_->runs.size() - 1);
  const double least = 74;
  const double room = right - left - change * pauses;
  // Short stretches stay wide enough to be read; the long ones share the rest by time.
  std::vector<double> widths;
  double spare = room - least * static_cast<double>(plan_->runs.size());
  for (const BitRun& run : plan_->runs)
    widths.push_back(least + std::max(0.0, spare) * run.time.seconds / std::max(1.0, cutting));
  double x = left;
  for (std::size_t i = 0; i < plan_->runs.size(); ++i) {
    const BitRun& run = plan_->runs[i];
    const QRectF bar(x, 34, widths[i], 17);
    p.setPen(Qt::NoPen);
    p.setBrush(theme::dye(static_cast<int>(i)));
    p.drawRoundedRect(bar, 4, 4);
    p.setPen(theme::kInk);
    p.setFont(theme::font(8.5));
    const QString name = QString::fromStdString(run.bit.name).section(QLatin1Char(','), 0, 0);
    const QString label = name + QStringLiteral(" · ") + QString::fromStdString(format_duration(run.time.seconds));
    p.drawText(QRectF(x, 14, widths[i] + change - 4, 18), Qt::AlignVCenter,
               p.fontMetrics().elidedText(label, Qt::ElideRight, static_cast<int>(widths[i] + change - 4)));
    x += widths[i];
    if (i + 1 < plan_->runs.size()) {
      p.setPen(theme::kHairline);
      p.setBrush(Qt::white);
      p.drawRoundedRect(QRectF(x + 4, 33, change - 8, 19), 4, 4);
      p.setPen(theme::kFaded);
      p.drawText(QRectF(x + 4, 33, change - 8, 19), Qt::AlignCenter, QStringLiteral("⇄"));
      x += change;
    }
  }
  p.setPen(theme::kFaded);
  p.setFont(theme::font(8));
  if (pauses < 1) return;
  // The same bit before and after screws go in, or the board is turned, stays: but time goes by.
  const QString each = QString::fromStdString(format_duration(plan_->machine.bit_change_seconds));
  p.drawText(QRectF(left, 54, right - left, 16), Qt::AlignVCenter,
             pauses > changes
                 ? tr("⇄ by hand: bits, screws, turning, %1 each; short stretches are drawn longer").arg(each)
                 : tr("⇄ change of bit, %1 each; short stretches are drawn longer").arg(each));
}

}  // namespace doyen
