// What is cut from the back: the wood left between both sides, and hanger slots.
#include <algorithm>
#include <cmath>

#include "relief/carve.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kCellsThrough = 1'500'000;  // about so many look at the whole board
constexpr double kLip = 2.5;  // mm of wood over a slot's head that hold a screw (common practice, no source)

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
  const std::string whom = by == nullptr ? std::string("The back") : "“" + by->piece.name + "” on the back";
  const std::string id = by == nullptr ? std::string() : by->piece.id;
  if (least >= s.job.run.least_wood) {
    out.push_back({Grade::Note,
                   "wood-between",
                   id,
                   at,
                   whom + " leaves " + s.show(least) + " of wood under the front's cuts.",
                   "You asked for at least " + s.show(s.job.run.least_wood) + ".",
                   {}});
    return;
  }
  std::vector<Remedy> remedies;
  const double shallower = by == nullptr ? 0 : std::floor((by->cut.depth - (s.job.run.least_wood - least)) * 10) / 10;
  if (shallower > 0.5)
    remedies.push_back({"Make it " + s.show(shallower) + " deep", [id, shallower](Job& job) {
                          if (Item* it = job.find(id)) it->cut.depth = shallower;
                        }});
  out.push_back({Grade::Stop, "sides-meet", id, at,
                 least <= 0 ? whom + " breaks through into the front's cuts."
                            : whom + " leaves only " + s.show(least) + " of wood under the front's cuts.",
                 "You asked for at least " + s.show(s.job.run.least_wood) + ". Make it shallower, or move it.",
                 std::move(remedies)});
}

void check_slot(const Situation& s, std::size_t i, std::vector<Verdict>& out) {
  const Item& item = s.job.items[i];
  const Bit* bit = s.rack.find(item.cut.bit);
  if (bit == nullptr || bit->kind != BitKind::Keyhole || s.pieces[i].cuts->operations.empty()) return;
  const std::string& id = item.piece.id;
  const std::string name = "“" + item.piece.name + "”";
  const Point at = bounds(*s.pieces[i].outlines).centre();
  const auto set_depth = [&](double mm) {
    return Remedy{"Make it " + s.show(mm) + " deep", [id, mm](Job& job) {
                    if (Item* it = job.find(id)) it->cut.depth = mm;
                  }};
  };
  const double lip = item.cut.depth - bit->head_height;
  if (item.cut.depth > bit->flute_length + 1e-6) {
    out.push_back({Grade::Stop,
                   "slot-too-deep",
                   id,
                   at,
                   name + " is deeper than the " + bit->name + " reaches, " + s.show(bit->flute_length) + ".",
                   "Its shank would rub and burn.",
                   {set_depth(bit->flute_length)}});
  } else if (lip < kLip) {
    out.push_back({lip <= 0.2 ? Grade::Stop : Grade::Mind,
                   "slot-lip-thin",
                   id,
                   at,
                   "Only " + s.show(std::max(0.0, lip)) + " of wood lies over the head of " + name + ".",
                   "The screw hangs on it; a few millimetres hold, in soft wood more.",
                   {set_depth(std::min(bit->flute_length, bit->head_height + kLip + 1))}});
  }
  Box reach;
  for (const Operation& op : s.pieces[i].cuts->operations) {
    for (const Pass& pass : op.passes) {
      for (const Point3& p : pass.points)
        reach.add(op.back ? turned_over(p.flat(), s.job.blank, s.job.run.turn) : p.flat());
    }
  }
  reach = reach.grown(bit->true_diameter() / 2);
  const Box board = s.job.blank.box();
  if (!board.contains({reach.left, reach.bottom}) || !board.contains({reach.right, reach.top}))
    out.push_back(
        {Grade::Stop,
         "slot-past-edge",
         id,
         at,
         "The slot " + name + " runs past the board's edge as its head slides.",
         "It slides upwards from its hole by " + s.show(item.cut.slot.length) + "; move it, or make it shorter.",
         {}});
  if (!item.cut.back)
    out.push_back({Grade::Mind,
                   "slot-on-front",
                   id,
                   at,
                   "The hanger slot " + name + " is cut into the front.",
                   "It would be seen, and the sign would hang face to the wall.",
                   {{"Cut it from the back", [id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.back = true;
                     }}}});
}

}  // namespace

void check_back(const Situation& s, std::vector<Verdict>& out) {
  bool back = false;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    if (s.pieces[i].outlines == nullptr) continue;
    back = back || (item.cut.back && s.pieces[i].cuts != nullptr && !s.pieces[i].cuts->operations.empty());
    if (item.cut.kind == Kind::HangerSlot) check_slot(s, i, out);
  }
  if (back) check_between(s, out);
}

}  // namespace doyen
