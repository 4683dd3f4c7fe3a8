#include "rack/bit.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace doyen {
const char* to_word(BitKind kind) {
  switch (kind) {
    case BitKind::V:
      return "v";
    case BitKind::Flat:
      return "flat";
    case BitKind::Ball:
      return "ball";
    case BitKind::Taper:
      return "taper";
    case BitKind::Keyhole:
      return "keyhole";
  }
  return "";
}
const char* to_word(CutDirection direction) {
  switch (direction) {
    case CutDirection::UpCut:
      return "up-cut";
    case CutDirection::DownCut:
      return "down-cut";
    case CutDirection::Compression:
      return "compression";
    case CutDirection::Straight:
      return "straight";
  }
  return "";
}

double Bit::tan_half() const { return std::tan(true_angle() / 2 * std::numbers::pi / 180); }

double Bit::body_depth() const {
  const double by_body = kind == BitKind::V || kind == BitKind::Taper ? (true_diameter() - tip) / 2 / tan_half()
                                                                      : std::numeric_limits<double>::infinity();
  return std::min(by_body, flute_length);
}

Feeds Bit::feeds_in(const std::string& wood_class) const {
  const auto it = feeds.find(wood_class);
  return it == feeds.end() ? Feeds{} : it->second;
}

double Bit::depth_per_pass(const std::string& wood_class) const {
  const double kept = feeds_in(wood_class).depth_per_pass;
  return kept > 0 ? kept : true_diameter() / 2;
}

double Bit::profile(double from_axis) const {
  const double radius = true_diameter() / 2;
  if (from_axis > radius) return std::numeric_limits<double>::infinity();
  switch (kind) {
    case BitKind::V:
      return std::max(0.0, from_axis - tip / 2) / tan_half();
    case BitKind::Ball:
      return radius - std::sqrt(radius * radius - from_axis * from_axis);
    case BitKind::Taper: {
      const BallEnd end = ball_end();
      if (from_axis <= end.touch) return end.radius - std::sqrt(end.radius * end.radius - from_axis * from_axis);
      return end.height + (from_axis - end.touch) / tan_half();
    }
    case BitKind::Flat:
    case BitKind::Keyhole:
      break;
  }
  return 0;
}

double Bit::levels() const {
  if (kind == BitKind::Flat) return true_diameter();
  return kind == BitKind::V ? tip : 0;
}

double Bit::half_width_at(double depth) const {
  const double radius = true_diameter() / 2;
  if (depth <= 0) return kind == BitKind::V ? tip / 2 : 0;
  switch (kind) {
    case BitKind::V:
      return std::min(radius, depth * tan_half() + tip / 2);
    case BitKind::Ball:
      return depth >= radius ? radius : std::sqrt(depth * (2 * radius - depth));
    case BitKind::Taper: {
      const BallEnd end = ball_end();
      if (depth <= end.height) return std::sqrt(depth * (2 * end.radius - depth));
      return std::min(radius, end.touch + (depth - end.height) * tan_half());
    }
    case BitKind::Flat:
    case BitKind::Keyhole:
      break;
  }
  return radius;
}

Bit::BallEnd Bit::ball_end() const {
  const double half = true_angle() / 2 * std::numbers::pi / 180, ball = tip / 2;
  return {ball, ball * std::cos(half), ball - ball * std::sin(half)};
}

double chip_load(const Bit& bit, const Feeds& feeds) {
  return feeds.rpm > 0 && bit.flutes > 0 ? feeds.feed / (feeds.rpm * bit.flutes) : 0;
}

ChipBounds chip_bounds(const Bit& bit, const std::string& wood_class) {
  const double d = bit.true_diameter();
  ChipBounds b{std::min(0.008 * d, 0.05), std::min(0.035 * d, 0.4)};
  if (bit.kind == BitKind::Keyhole) b = {0.015, 0.15};  // buried all round, it is fed gently
  // A V cuts with anything between its tip and its body.
  if (bit.kind == BitKind::V || bit.kind == BitKind::Taper) b = {0.01, 0.15};
  if (wood_class == "metal") b = {b.least / 3, b.most / 3};
  return b;
}

const Bit* Rack::find(const BitId& id) const {
  for (const Bit& bit : bits) {
    if (bit.id == id) return &bit;
  }
  return nullptr;
}

Rack with_changes(const Rack& base, const Rack& before, const Rack& after) {
  Rack merged = base;
  for (const Bit& was : before.bits) {
    if (after.find(was.id) == nullptr) std::erase_if(merged.bits, [&](const Bit& b) { return b.id == was.id; });
  }
  for (std::size_t i = 0; i < after.bits.size(); ++i) {
    const Bit& bit = after.bits[i];
    const Bit* was = before.find(bit.id);
    if (was != nullptr && *was == bit) continue;
    const auto at = std::find_if(merged.bits.begin(), merged.bits.end(), [&](const Bit& b) { return b.id == bit.id; });
    if (at != merged.bits.end())
      *at = bit;
    else
      merged.bits.insert(merged.bits.begin() + static_cast<std::ptrdiff_t>(std::min(i, merged.bits.size())), bit);
  }
  return merged;
}

}  // namespace doyen
