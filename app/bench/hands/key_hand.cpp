#include "bench/hands/key_hand.hpp"

#include "parts/theme.hpp"

namespace doyen {

void KeyHand::paint(QPainter& p) {
  if (!held_) return;
  const std::vector<HandGrip> all = bench_.grips();
  if (*held_ >= all.size()) return;
  const QPointF at = bench_.to_screen(all[*held_].at);
  p.setBrush(Qt::NoBrush);
  for (const auto& [colour, width] : {std::pair{theme::kMarkEdge, 4.0}, std::pair{theme::kMark, 2.0}}) {
    p.setPen(QPen(colour, width));
    p.drawEllipse(at, 12, 12);
  }
}

bool KeyHand::press(QPointF) {
  held_.reset();
  return false;
}

bool KeyHand::key(int key, Qt::KeyboardModifiers keys) {
  const bool other = keys & (Qt::ControlModifier | Qt::MetaModifier);
  if (key == Qt::Key_G && !other) {
    const std::vector<HandGrip> all = bench_.grips();
    if (all.empty()) return true;
    const std::size_t n = all.size();
    held_ = !held_ ? (keys & Qt::ShiftModifier ? n - 1 : 0) : (*held_ + (keys & Qt::ShiftModifier ? n - 1 : 1)) % n;
    bench_.say(all[*held_].words);
    return true;
  }
  if (!held_) return false;
  if (key == Qt::Key_Escape || key == Qt::Key_Return || key == Qt::Key_Enter) {
    held_.reset();
    bench_.speak();
    return true;
  }
  const Point by = nudge(key, keys, bench_.job().lengths);
  if (length(by) <= 0) return false;
  const std::vector<HandGrip> all = bench_.grips();
  if (*held_ >= all.size()) {
    held_.reset();
    return false;
  }
  all[*held_].move(by);
  return true;
}

void KeyHand::job_changed() {
  const QString of = bench_.selected() + QString::number(static_cast<int>(bench_.stage()));
  if (of != of_) held_.reset();
  of_ = of;
}

}  // namespace doyen
