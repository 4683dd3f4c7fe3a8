#include "rack/bit.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

#include "json_reading.hpp"

namespace doyen {
namespace {

constexpr std::array kKinds{"v", "flat", "ball", "taper", "keyhole"};
constexpr std::array kDirections{"up-cut", "down-cut", "compression", "straight"};

template <typename Enum, std::size_t N>
Enum from_word(const JsonView& view, const char* key, const std::array<const char*, N>& words) {
  const std::string word = view.text(key);
  for (std::size_t i = 0; i < N; ++i) {
    if (word == words[i]) return static_cast<Enum>(i);
  }
  std::string known;
  for (const char* w : words) known += (known.empty() ? "" : ", ") + std::string(w);
  throw view.wrong(key, "“" + word.substr(0, 40) + "” is not known; one of " + known + " was expected");
}

Bit read_bit(const JsonView& view) {
  Bit bit;
  bit.id = view.text("id");
  bit.name = view.text("name");
  bit.kind = from_word<BitKind>(view, "kind", kKinds);
  bit.diameter = view.number("diameter", 0.05, 150);
  const bool cone = bit.kind == BitKind::V || bit.kind == BitKind::Taper;
  if (cone) bit.angle = view.number("angle", 1, 175);
  bit.tip = view.number_or("tip", 0, 0, bit.diameter);
  if (bit.kind == BitKind::Keyhole) {
    bit.neck = view.number("neck", 0.5, bit.diameter);
    bit.head_height = view.number("headHeight", 0.5, 100);
  }
  bit.flutes = static_cast<int>(view.number_or("flutes", 2, 1, 12));
  bit.direction =
      view.has("direction") ? from_word<CutDirection>(view, "direction", kDirections) : CutDirection::Straight;
  bit.flute_length = view.number("fluteLength", 0.1, 300);
  bit.centre_cutting = view.flag_or("centreCutting", true);
  if (view.has("measuredDiameter")) bit.measured_diameter = view.number("measuredDiameter", 0.05, 150);
  if (cone && view.has("measuredAngle")) bit.measured_angle = view.number("measuredAngle", 1, 175);
  if (view.has("ladderContact")) bit.ladder_contact = view.number("ladderContact", -5, 5);
  if (view.has("ladderAllowance")) bit.ladder_allowance = view.number("ladderAllowance", 0, 5);
  if (view.has("feeds")) {
    const JsonView feeds = view.object("feeds");
    for (const auto& [wood_class, entry] : feeds.json().items()) {
      const JsonView f(entry, feeds.where() + "." + wood_class);
      bit.feeds[wood_class] = {f.number_or("feed", 0, 0, kMostFeed), f.number_or("plunge", 0, 0, kMostFeed),
                               f.number_or("rpm", 0, 0, 100000), f.number_or("depthPerPass", 0, 0, 100)};
    }
  }
  return bit;
}

}  // namespace

const char* to_word(BitKind kind) { return kKinds[static_cast<std::size_t>(kind)]; }
const char* to_word(CutDirection direction) { return kDirections[static_cast<std::size_t>(direction)]; }

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

const Bit* Rack::find(const std::string& id) const {
  for (const Bit& bit : bits) {
    if (bit.id == id) return &bit;
  }
  return nullptr;
}

Rack read_rack(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  const JsonView top(document, where);
  Rack rack;
  std::size_t i = 0;
  for (const Json& entry : top.array("bits", 500)) {
    Bit bit = read_bit(JsonView(entry, where + ".bits[" + std::to_string(i++) + "]"));
    if (rack.find(bit.id) != nullptr) throw bad_input(where + ": the bit “" + bit.id + "” stands there twice.");
    rack.bits.push_back(std::move(bit));
  }
  return rack;
}

std::string write_rack(const Rack& rack) {
  Json bits = Json::array();
  for (const Bit& bit : rack.bits) {
    Json j{{"id", bit.id}, {"name", bit.name}, {"kind", to_word(bit.kind)}, {"diameter", bit.diameter}};
    if (bit.angle > 0) j["angle"] = bit.angle;
    j["tip"] = bit.tip;
    if (bit.kind == BitKind::Keyhole) {
      j["neck"] = bit.neck;
      j["headHeight"] = bit.head_height;
    }
    j["flutes"] = bit.flutes;
    j["direction"] = to_word(bit.direction);
    j["fluteLength"] = bit.flute_length;
    j["centreCutting"] = bit.centre_cutting;
    if (bit.measured_diameter) j["measuredDiameter"] = *bit.measured_diameter;
    if (bit.measured_angle) j["measuredAngle"] = *bit.measured_angle;
    if (bit.ladder_contact) j["ladderContact"] = *bit.ladder_contact;
    if (bit.ladder_allowance) j["ladderAllowance"] = *bit.ladder_allowance;
    Json feeds = Json::object();
    for (const auto& [wood_class, f] : bit.feeds) {
      feeds[wood_class] = {{"feed", f.feed}, {"plunge", f.plunge}, {"rpm", f.rpm}, {"depthPerPass", f.depth_per_pass}};
    }
    j["feeds"] = std::move(feeds);
    bits.push_back(std::move(j));
  }
  return Json{{"format", "doyen-rack/1"}, {"bits", std::move(bits)}}.dump(2) + "\n";
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
