// Floors and what lies on them: half on and half off, no bit for it.
#include "grounds/grounds.hpp"

#include <algorithm>

#include "cutting/proposals.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

// Upright inlays live by flat bits, too.
bool has_floor(const Treatment& cut) {
  return makes_ground(cut.kind) || ((cut.kind == Kind::Inlay || cut.kind == Kind::Plug) && upright_walls(cut));
}

void check_half_on(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  Point crossing;
  if (!crosses_wall(*state.outlines, *state.around, crossing)) return;
  const std::string& id = item.piece.id;
  const Item* floor = s.job.find(state.around->ground.half_on);
  const std::string letter = letter_at(*state.outlines, crossing);
  std::vector<Remedy> remedies;
  const Box own = bounds(*state.outlines), room = bounds(state.around->part_floor);
  if (own.width() < room.width() && own.height() < room.height())
    remedies.push_back(
        {say("Move it onto that floor"), [id, by = room.centre() - own.centre()](Job& job) { job.shift(id, by); }});
  remedies.push_back({say("Cut all of it from the face"), [id](Job& job) {
                        if (Item* it = job.find(id)) it->cut.ground = 0;
                      }});
  out.push_back({Grade::Stop, "half-on-ground", id, crossing,
                 say("{0} partly on the floor of “{1}”.",
                     (letter.empty() ? say("{0} lies", name) : say("{0} of {1} lies", letter, name)),
                     (floor == nullptr ? state.around->ground.half_on : floor->piece.name)),
                 say("What lies wholly on either ground is cut from its own; across the wall between them it would be "
                     "too shallow on one side or cut air."),
                 std::move(remedies)});
}

void check_cleared(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const std::string& id = item.piece.id;
  if (item.cut.kind == Kind::Raise && state.around->sunk.empty()) return;  // its look says so
  if (!has_floor(item.cut) || !state.cuts->bits.empty() || state.cuts->groove || state.outlines->region.empty()) return;
  out.push_back({Grade::Stop,
                 "no-bit-fits",
                 id,
                 at,
                 say("No flat bit that is chosen clears the floor of {0}.", name),
                 say("It is narrower than the bits, or deeper than they reach ({0}). Choose smaller or longer ones.",
                     s.show(floor_depth(item.cut))),
                 {piece.propose_bits()}});
}

void check_flutes(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const double deep = floor_depth(item.cut);
  const auto& operations = state.cuts->operations;
  for (const std::string& used : state.cuts->bits) {
    const Bit* flat = s.rack.find(used);
    if (flat == nullptr || flat->flute_length >= deep - 1e-6) continue;
    const auto by_it = [&used](const Operation& op) { return op.bit == used; };
    if (item.cut.kind == Kind::Incise && std::none_of(operations.begin(), operations.end(), by_it)) continue;
    out.push_back(
        {Grade::Stop,
         "flutes-too-short",
         item.piece.id,
         at,
         say("The {0} cuts {1} deep; {2} needs {3}.", flat->name, s.show(flat->flute_length), name, s.show(deep)),
         say("Deeper, the shank would rub and burn."),
         {piece.propose_bits()}});
  }
}

void check_one(const Situation& s, std::size_t i, std::vector<Verdict>& out) {
  const Item& item = s.job.items[i];
  const PieceState& state = s.pieces[i];
  const PieceSeen piece{s, item, state, "“" + item.piece.name + "”", bounds(*state.outlines).centre()};
  check_half_on(piece, out);
  // Another piece of its panel does the clearing.
  if (has_floor(item.cut) && piece.cleared_with_another()) return;
  check_cleared(piece, out);
  check_flutes(piece, out);
}

}  // namespace

void check_grounds(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.pieces[i].outlines != nullptr && s.job.items[i].cut.kind != Kind::None) check_one(s, i, out);
  }
}

}  // namespace doyen
