#include "holding/turning_pins.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include "holding/screws.hpp"
#include "problem.hpp"
#include "stock/turn_over.hpp"
#include "treatments/start.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

const char* const kPins[] = {kFirstPin, "turning-pin-2"};
constexpr double kRoom = 5;        // mm of wood round a hole (common practice, no source)
constexpr double kInto = 6;        // mm into the waste board that a pin stands, where the bit reaches so deep
constexpr double kIntoLeast = 3;   // mm, else
constexpr double kPinsApart = 60;  // mm: nearer ones turn the board too little exactly

struct PinHole {
  const Bit* bit = nullptr;
  double wide = 0, into = 0;  // mm
};

// An end mill that reaches through, the narrowest of those that cut 8 mm pins' holes; else one for 16 mm pins.
PinHole hole_for(const Job& job, const Rack& rack) {
  const double thick = job.blank.thickest();
  PinHole best;
  for (const Bit& bit : rack.bits) {
    const double wide = bit.true_diameter(), reach = bit.flute_length - thick;
    if (bit.kind != BitKind::Flat || wide > 12.8 || reach < kIntoLeast) continue;
    if (best.bit != nullptr && best.bit->true_diameter() <= wide) continue;
    best = {&bit, wide < 7.5 ? 8.1 : 16.1, std::min(kInto, std::floor(reach * 10) / 10)};
  }
  if (best.bit == nullptr)
    throw bad_input(say("No end mill in the rack reaches {0} deep, through the board and into the waste board below.",
                        depth_in_words(thick + kIntoLeast, job.lengths)));
  return best;
}

// The front cuts first only where the back is cut out (planning/runs.cpp).
bool back_first(const Job& job) {
  return std::none_of(job.items.begin(), job.items.end(),
                      [](const Item& item) { return item.cut.kind == Treatment::Kind::CutOut && item.cut.back; });
}

}  // namespace

bool is_turning_pin(const Item& item) {
  return std::any_of(std::begin(kPins), std::end(kPins), [&](const char* id) { return item.piece.id == id; });
}

Job with_turning_pins(const Job& job, const Rack& rack) {
  Job out = job;
  std::erase_if(out.items, is_turning_pin);
  const PinHole hole = hole_for(out, rack);
  const double room = hole.wide / 2 + kRoom;
  const Region free = waste_room(out, rack, room, room);
  std::optional<std::pair<Point, Point>> best;
  const auto look_at = [&](Point a, Point b) {
    if (best && length(b - a) <= length(best->second - best->first) + 1e-6) return;
    best = {a, b};
  };
  std::vector<Point> on_axis;
  for (const Point& p : free_places(out, free)) {
    const Point other = turned_over(p, out.blank, out.run.turn);
    if (contains(free, other)) look_at(p, other);
    // On the line that stays where it is when the board is turned over, each hole is its own.
    const Point axis =
        out.run.turn == TurnOver::LeftEdge ? Point{out.blank.width / 2, p.y} : Point{p.x, out.blank.height / 2};
    if (contains(free, axis)) on_axis.push_back(axis);
  }
  for (const Point& a : on_axis) {
    for (const Point& b : {on_axis.front(), on_axis.back()}) look_at(a, b);
  }
  if (!best || length(best->second - best->first) < kPinsApart)
    throw bad_input(
        say("The waste has no two places for pins that come to lie on each other when the board is turned over."));
  if (best->first.x > best->second.x + 1e-9) std::swap(best->first, best->second);
  const LookStart start{out.blank, out.lengths, rack, [](const Bit&) { return 0.0; }};
  for (int end = 1; end >= 0; --end) {
    Item item;
    item.piece.id = kPins[end];
    item.piece.name = end == 0 ? say("Turning pin, first") : say("Turning pin, second");
    item.piece.what = PlainShape{PlainShape::Kind::Ellipse, hole.wide, hole.wide};
    item.piece.at = end == 0 ? best->first : best->second;
    item.cut = start_look(Treatment::Kind::Pierce, Treatment{}, start);
    item.cut.bit = hole.bit->id;
    item.cut.clearing.clear();
    item.cut.through.over_cut = hole.into;
    item.cut.pierce.slug = false;
    item.cut.through.tabs.wanted = false;
    item.cut.back = back_first(out);
    out.items.insert(out.items.begin(), std::move(item));  // what is listed later lies on top
  }
  return out;
}

}  // namespace doyen
