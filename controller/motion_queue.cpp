#include "motion_queue.hpp"

#include <algorithm>
#include <cmath>

namespace controller {
namespace {

double within(const std::array<double, 3>& direction, const std::array<double, 3>& most) {
  double least = 1e300;
  for (std::size_t i = 0; i < 3; ++i) {
    if (std::abs(direction[i]) > 1e-9) least = std::min(least, most[i] / std::abs(direction[i]));
  }
  return least;
}

}  // namespace

void MotionQueue::add_move(const At& asked, double mm_per_minute, bool fast, int line, bool probe, double radius) {
  const auto stands = [&](double v) { return figures_.step > 0 ? std::round(v / figures_.step) * figures_.step : v; };
  const At to{stands(asked.x), stands(asked.y), stands(asked.z)};
  Block b;
  b.from = end_;
  b.to = to;
  const std::array<double, 3> d{to.x - end_.x, to.y - end_.y, to.z - end_.z};
  b.length = std::sqrt(d[0] * d[0] + d[1] * d[1] + d[2] * d[2]);
  if (b.length < 1e-9) return;
  for (std::size_t i = 0; i < 3; ++i) b.direction[i] = d[i] / b.length;
  b.acceleration = within(b.direction, figures_.acceleration);
  b.fastest =
      (fast ? within(b.direction, figures_.rapid) : std::min(mm_per_minute, within(b.direction, figures_.feed_most))) /
      60;
  if (radius > 0) b.fastest = std::min(b.fastest, std::sqrt(b.acceleration * radius));
  b.fast = fast;
  b.line = line;
  b.probe = probe;
  if (!blocks_.empty() && blocks_.back().kind == Block::Kind::Move && !blocks_.back().probe && !probe) {
    const Block& before = blocks_.back();
    double on = 0;  // 1: straight on
    for (std::size_t i = 0; i < 3; ++i) on += before.direction[i] * b.direction[i];
    const double s = std::sqrt((1 + std::clamp(on, -1.0, 1.0)) / 2);
    b.entry_most = std::min(before.fastest, b.fastest);
    if (s < 1 - 1e-12)
      b.entry_most = std::min(b.entry_most,
                              std::sqrt(std::min(before.acceleration, b.acceleration) * figures_.corner * s / (1 - s)));
  }
  blocks_.push_back(b);
  end_ = to;
  look_back();
}

void MotionQueue::add(Block block) {
  block.from = block.to = end_;
  blocks_.push_back(block);
}

// Each is entered no faster than that what follows can still come to rest; the one that runs is under way already.
void MotionQueue::look_back() {
  double exit = 0;
  for (std::size_t i = blocks_.size(); i-- > 1;) {
    Block& b = blocks_[i];
    if (b.kind != Block::Kind::Move) {
      exit = 0;
      continue;
    }
    const double entry = std::min(b.entry_most, std::sqrt(exit * exit + 2 * b.acceleration * b.length));
    // What lies before would not change either, but for the newest, which were never looked at.
    if (i + 2 < blocks_.size() && std::abs(entry - b.entry) < 1e-9) break;
    b.entry = exit = entry;
  }
}

void MotionQueue::clear() {
  blocks_.clear();
  gone_ = speed_ = 0;
  end_ = place_;
}

int MotionQueue::lines() const {
  int count = 0, last = -1;
  for (const Block& b : blocks_) {
    if (b.line != last) ++count;
    last = b.line;
  }
  return count;
}

void MotionQueue::drop_running() {
  if (!blocks_.empty()) blocks_.pop_front();
  gone_ = 0;
  if (blocks_.empty() || blocks_.front().kind != Block::Kind::Move) speed_ = 0;
}

void MotionQueue::set_place(const At& at) { end_ = place_ = at; }

namespace {

// One stretch of a move at an even acceleration: for how long it lasts at most, and how fast it changes.
struct Phase {
  double seconds, acceleration;
};

// From `speed` with `left` mm to go: up to `top`, level, and down in time to be at `exit` there.
Phase phase_of(double speed, double left, double top, double exit, double a) {
  constexpr double kNone = 1e-9;
  const double braking = (speed * speed - exit * exit) / (2 * a);
  if (speed > top + kNone) return {(speed - top) / a, -a};
  if (left <= braking + kNone) return {1e9, -a};
  if (speed < top - kNone) {
    const double before_top = (top * top - speed * speed) / (2 * a);
    const double before_braking = (2 * a * left + exit * exit - speed * speed) / (4 * a);
    const double way = std::min(before_top, before_braking);
    return {(std::sqrt(speed * speed + 2 * a * way) - speed) / a, a};
  }
  return {(left - braking) / speed, 0};
}

// Seconds until `left` mm are gone; endless when it comes to rest before.
double seconds_over(double left, double speed, double a) {
  if (a == 0) return speed > 0 ? left / speed : 1e300;
  const double squared = speed * speed + 2 * a * left;
  if (squared < 0) return 1e300;
  return (std::sqrt(squared) - speed) / a;
}

}  // namespace

double MotionQueue::advance(double seconds, double override_share, bool hold, std::vector<At>& way) {
  double used = 0;
  while (used < seconds - 1e-12 && !blocks_.empty()) {
    Block& b = blocks_.front();
    if (b.kind == Block::Kind::Dwell) {
      if (hold) break;
      const double now = std::min(b.seconds, seconds - used);
      b.seconds -= now;
      used += now;
      if (b.seconds <= 1e-9) drop_running();
      continue;
    }
    if (b.kind != Block::Kind::Move || (hold && speed_ <= 1e-9)) break;
    const double exit = !hold && blocks_.size() > 1 && blocks_[1].kind == Block::Kind::Move ? blocks_[1].entry : 0;
    const double left = b.length - gone_;
    const double top = hold ? 0 : b.fast ? b.fastest : b.fastest * override_share;
    const Phase phase = phase_of(speed_, left, top, exit, b.acceleration);
    const double to_end = seconds_over(left, speed_, phase.acceleration);
    const double h = std::max(1e-9, std::min({seconds - used, phase.seconds, to_end}));
    gone_ += speed_ * h + phase.acceleration * h * h / 2;
    speed_ = std::max(0.0, speed_ + phase.acceleration * h);
    used += h;
    // What rounding leaves of the way at the end of braking.
    const bool rests = !hold && phase.acceleration < 0 && speed_ <= 1e-9;
    if (h >= to_end - 1e-12 || rests || gone_ >= b.length - 1e-9) {
      place_ = b.to;
      way.push_back(place_);
      drop_running();
      continue;
    }
    place_ = {b.from.x + b.direction[0] * gone_, b.from.y + b.direction[1] * gone_, b.from.z + b.direction[2] * gone_};
  }
  if (blocks_.empty()) speed_ = 0;
  return used;
}

}  // namespace controller
