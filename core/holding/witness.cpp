#include "holding/witness.hpp"

#include <algorithm>

#include "holding/screws.hpp"
#include "holding/turning_pins.hpp"
#include "problem.hpp"
#include "run/placement.hpp"
#include "treatments/start.hpp"
#include "wording/say.hpp"

namespace doyen {

bool is_witness(const Item& item) { return item.cut.kind == Treatment::Kind::Drill && item.cut.drill.witness; }

bool serves_the_run(const Item& item) { return holds_board(item) || is_witness(item) || is_turning_pin(item); }

Job with_witness(const Job& job, const Rack& rack, const BitId& bit) {
  Job out = job;
  std::erase_if(out.items, [&](const Item& item) { return is_witness(item) && !job.is_source(item.piece.id); });
  const Bit* by = rack.find(bit);
  if (by == nullptr) throw bad_input(say("Nothing is cut yet: the mark is made by the bit that comes first."));
  const double half = by->true_diameter() / 2;
  constexpr double kRoom = 3;  // mm of wood round it
  const std::vector<Point> free = free_waste(out, rack, half + kRoom, half + kRoom);
  std::vector<ScrewHead> heads = screw_heads(out);
  const Point zero = seen_placement_of(out).on_board(Point{0, 0});
  const Point* best = nullptr;
  for (const Point& p : free) {
    const bool clear = std::all_of(heads.begin(), heads.end(), [&](const ScrewHead& head) {
      return distance(p, {head.place.x, head.place.y}) > head.place.width / 2 + half + kRoom;
    });
    if (clear && (best == nullptr || distance(p, zero) < distance(*best, zero))) best = &p;
  }
  if (best == nullptr) throw bad_input(say("The waste has no room for a mark that later bits are held over."));
  const LookStart start{out.blank, out.lengths, rack, [](const Bit&) { return 0.0; }};
  Item mark;
  mark.piece.id = out.fresh_id("witness");
  mark.piece.name = out.fresh_name(say("Witness mark"));
  PlainShape circle;
  circle.kind = PlainShape::Kind::Ellipse;
  circle.width = circle.height = std::max(3.0, 2 * half);
  mark.piece.what = circle;
  mark.piece.at = *best;
  mark.cut = start_look(Treatment::Kind::Drill, Treatment{}, start);
  mark.cut.bit = bit;
  mark.cut.depth = kWitnessDepth;
  mark.cut.drill.witness = true;
  out.items.push_back(std::move(mark));
  return out;
}

}  // namespace doyen
