// What is cut from the back: the wood left between both sides.
#include <algorithm>
#include <cmath>

#include "holding/turning_pins.hpp"
#include "relief/carve.hpp"
#include "verdicts/remedies.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kCellsThrough = 1'500'000;  // about so many look at the whole board

// Everything that one side takes away short of going right through, in the front's coordinates; a keyhole's head as
// wide as it is, though it is not seen from above.
HeightField taken(const Situation& s, Side side, const Box& area, double cell) {
  HeightField field(area, cell);
  field.clear();
  for (const PieceState& piece : s.pieces) {
    if (piece.cuts == nullptr) continue;
    for (const Operation& op : piece.cuts->operations) {
      const Bit* bit = s.rack.find(op.bit);
      if (bit == nullptr || op.back != (side == Side::Back) || op.depth - op.ground >= s.job.blank.thinnest()) continue;
      Bit seen = *bit;
      if (seen.kind == BitKind::Keyhole) seen.kind = BitKind::Flat;
      carve(field, side == Side::Back ? turned_over(op.passes, s.job.blank, s.job.run.turn) : op.passes, seen,
            Cancel::current());
    }
  }
  return field;
}

struct Thinnest {
  double left = 1e300;  // mm of wood; stays huge where the sides do not meet
  Point at;
};

Thinnest thinnest_in(const Situation& s, const Box& area, double cell) {
  const HeightField front = taken(s, Side::Front, area, cell), back = taken(s, Side::Back, area, cell);
  Thinnest found;
  for (std::size_t r = 0; r < front.rows(); ++r) {
    for (std::size_t c = 0; c < front.columns(); ++c) {
      if (front.at(c, r) >= 0 || back.at(c, r) >= 0) continue;
      const double left = s.job.blank.thinnest() + front.at(c, r) + back.at(c, r);
      if (left < found.left) found = {left, {front.x_of(c), front.y_of(r)}};
    }
  }
  return found;
}

// Where the back is cut at all, in the front's coordinates.
Box reach_of_back(const Situation& s) {
  Box reach;
  for (const PieceState& piece : s.pieces) {
    if (piece.cuts == nullptr) continue;
    for (const Operation& op : piece.cuts->operations) {
      const Bit* bit = s.rack.find(op.bit);
      if (!op.back || bit == nullptr) continue;
      Box own;
      for (const Pass& pass : op.passes) {
        for (const Point3& p : pass.points) own.add(turned_over(p.flat(), s.job.blank, s.job.run.turn));
      }
      if (!own.empty()) reach.add(own.grown(bit->true_diameter() / 2 + 1));
    }
  }
  return reach;
}

void check_between(const Situation& s, std::vector<Verdict>& out) {
  // Only where something is taken from the back can both sides meet.
  const Box board = s.job.blank.box(), reach = reach_of_back(s);
  const Box area{std::max(board.left, reach.left), std::max(board.bottom, reach.bottom),
                 std::min(board.right, reach.right), std::min(board.top, reach.top)};
  if (area.left >= area.right || area.bottom >= area.top) return;
  const double cell = std::clamp(std::sqrt(board.width() * board.height() / kCellsThrough), 0.2, 3.0);
  Thinnest found = thinnest_in(s, area, cell);
  if (found.left > 1e200) return;
  // A groove's bottom lies between the cells' middles: looked at again from near.
  const Thinnest near = thinnest_in(s, Box{found.at.x, found.at.y, found.at.x, found.at.y}.grown(2 * cell), cell / 40);
  if (near.left < found.left) found = near;
  const double least = found.left;
  const Point at = found.at;
  // Whose work on the back it is: the smallest piece there.
  const Item* by = nullptr;
  double smallest = 1e300;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    if (!item.cut.back || item.cut.kind == Kind::None || s.pieces[i].outlines == nullptr) continue;
    const double slides = item.cut.kind == Kind::HangerSlot ? item.cut.slot.length : 0;
    const Box box = bounds(*s.pieces[i].outlines).grown(slides + 15);
    if (!box.contains(at) || box.width() * box.height() >= smallest) continue;
    smallest = box.width() * box.height();
    by = &item;
  }
  const std::string whom = by == nullptr ? say("The back") : say("“{0}” on the back", by->piece.name);
  const std::string id = by == nullptr ? std::string() : by->piece.id;
  if (least >= s.job.run.least_wood) {
    out.push_back({Grade::Note,
                   "wood-between",
                   id,
                   at,
                   say("{0} leaves {1} of wood under the front's cuts.", whom, s.show(least)),
                   say("You asked for at least {0}.", s.show(s.job.run.least_wood)),
                   {}});
    return;
  }
  std::vector<Remedy> remedies;
  const double shallower =
      by == nullptr ? 0 : said_within(by->cut.depth - (s.job.run.least_wood - least), s.job.lengths);
  if (shallower > 0.5)
    remedies.push_back({say("Make it {0} deep", s.show(shallower)), [id, shallower](Job& job) {
                          if (Item* it = job.find(id)) it->cut.depth = shallower;
                        }});
  out.push_back({Grade::Stop, "sides-meet", id, at,
                 least <= 0 ? say("{0} breaks through into the front's cuts.", whom)
                            : say("{0} leaves only {1} of wood under the front's cuts.", whom, s.show(least)),
                 say("You asked for at least {0}. Make it shallower, or move it.", s.show(s.job.run.least_wood)),
                 std::move(remedies)});
}

}  // namespace

namespace {

// Pins that the board is turned over onto: moved by hand, or turned about another edge, their holes lie elsewhere then.
void check_pins(const Situation& s, std::vector<Verdict>& out) {
  constexpr double kPlay = 0.05;  // mm that x or y of all that is cut after it would be off by
  std::vector<const Item*> pins;
  for (const Item& item : s.job.items) {
    if (is_turning_pin(item)) pins.push_back(&item);
  }
  for (const Item* pin : pins) {
    const Point there = turned_over(pin->piece.at, s.job.blank, s.job.run.turn);
    const bool met = pins.size() == 2 && std::any_of(pins.begin(), pins.end(), [&](const Item* other) {
                       return distance(other->piece.at, there) <= kPlay;
                     });
    if (met) continue;
    std::vector<Remedy> remedies;
    // Without room for them, how to turn it is the user's to choose.
    if (std::optional<Remedy> found = find_turning_pins(s, say("Find their places anew")))
      remedies.push_back(std::move(*found));
    remedies.push_back({say("Turn it without pins"),
                        [](Job& job) { std::erase_if(job.items, [](const Item& i) { return is_turning_pin(i); }); }});
    out.push_back({Grade::Stop, "pins-do-not-meet", pin->piece.id, pin->piece.at,
                   say("Turned over, the hole of “{0}” comes to lie on none.", pin->piece.name),
                   say("The board would not go over its pins, or everything after it be cut beside its place."),
                   remedies});
    return;
  }
}

}  // namespace

void check_back(const Situation& s, std::vector<Verdict>& out) {
  check_pins(s, out);
  bool back = false;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    if (s.pieces[i].outlines == nullptr) continue;
    back = back || (item.cut.back && s.pieces[i].cuts != nullptr && !s.pieces[i].cuts->operations.empty());
  }
  if (back) check_between(s, out);
}

}  // namespace doyen
