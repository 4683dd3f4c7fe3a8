// Hanger slots: how much wood holds the screw's head, the bit's reach, the board's edge.
#include "treatments/hanger_slot/hanger_slot_parts.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kLip = 2.5;  // mm of wood over a slot's head that hold a screw (common practice, no source)

void check_lip(const PieceSeen& piece, const Bit* bit, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const std::string& id = item.piece.id;
  const double lip = item.cut.depth - bit->head_height;
  if (item.cut.depth > bit->flute_length + 1e-6) {
    out.push_back({Grade::Stop,
                   "slot-too-deep",
                   id,
                   at,
                   say("{0} is deeper than the {1} reaches, {2}.", name, bit->name, s.show(bit->flute_length)),
                   say("Its shank would rub and burn."),
                   {piece.deep(bit->flute_length)}});
  } else if (lip < kLip) {
    out.push_back({lip <= 0.2 ? Grade::Stop : Grade::Mind,
                   "slot-lip-thin",
                   id,
                   at,
                   say("Only {0} of wood lies over the head of {1}.", s.show(std::max(0.0, lip)), name),
                   say("The screw hangs on it; a few millimetres hold, in soft wood more."),
                   {piece.deep(std::min(bit->flute_length, bit->head_height + kLip + 1))}});
  }
}

void check_place(const PieceSeen& piece, const Bit* bit, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const std::string& id = item.piece.id;
  Box reach;
  for (const Operation& op : state.cuts->operations) {
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
         say("The slot {0} runs past the board's edge as its head slides.", name),
         say("It slides upwards from its hole by {0}; move it, or make it shorter.", s.show(item.cut.slot.length)),
         {}});
  if (!item.cut.back)
    out.push_back({Grade::Mind,
                   "slot-on-front",
                   id,
                   at,
                   say("The hanger slot {0} is cut into the front.", name),
                   say("It would be seen, and the sign would hang face to the wall."),
                   {{say("Cut it from the back"), [id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.back = true;
                     }}}});
}

}  // namespace

void check_hanger_slot(const PieceSeen& piece, std::vector<Verdict>& out) {
  const Bit* bit = piece.s.rack.find(piece.item.cut.bit);
  if (bit == nullptr || bit->kind != BitKind::Keyhole || piece.state.cuts->operations.empty()) return;
  check_lip(piece, bit, out);
  check_place(piece, bit, out);
}

}  // namespace doyen
