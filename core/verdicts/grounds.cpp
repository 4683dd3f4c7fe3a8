// Floors and what lies on them: half on and half off, nothing to clear, no bit for it, bevels deeper than their bit.
#include "grounds/grounds.hpp"

#include <algorithm>

#include "cutting/proposals.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

// Upright inlays live by flat bits, too.
bool has_floor(const Treatment& cut) {
  return makes_ground(cut.kind) || ((cut.kind == Kind::Inlay || cut.kind == Kind::Plug) && upright_walls(cut));
}

// What each of these looks at: one piece with its outlines.
struct Seen {
  const Situation& s;
  const Item& item;
  const PieceState& state;
  std::string name;  // quoted
  Point at;

  [[nodiscard]] Remedy deep(double mm) const {
    return {"Make it " + s.show(mm) + " deep", [id = item.piece.id, mm](Job& job) {
              if (Item* it = job.find(id)) it->cut.depth = mm;
            }};
  }
  [[nodiscard]] Remedy propose_bits() const {
    return {"Let Doyen propose bits", [id = item.piece.id](Job& job) {
              if (Item* it = job.find(id)) it->cut.clearing.clear();
            }};
  }
};

void check_half_on(const Seen& piece, std::vector<Verdict>& out) {
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
        {"Move it onto that floor", [id, by = room.centre() - own.centre()](Job& job) { job.shift(id, by); }});
  remedies.push_back({"Cut all of it from the face", [id](Job& job) {
                        if (Item* it = job.find(id)) it->cut.ground = 0;
                      }});
  out.push_back({Grade::Stop, "half-on-ground", id, crossing,
                 (letter.empty() ? name + " lies" : letter + " of " + name + " lies") + " partly on the floor of “" +
                     (floor == nullptr ? state.around->ground.half_on : floor->piece.name) + "”.",
                 "What lies wholly on either ground is cut from its own; across the wall between them it would be too "
                 "shallow on one side or cut air.",
                 std::move(remedies)});
}

void check_cleared(const Seen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const std::string& id = item.piece.id;
  if (item.cut.kind == Kind::Raise && state.around->sunk.empty()) {
    out.push_back({Grade::Stop,
                   "nothing-sunk",
                   id,
                   at,
                   "The panel is no larger than " + name + ", so nothing can be lowered round it.",
                   "Choose a larger panel, or a margin.",
                   {{"Take a margin of 10 mm", [id](Job& job) {
                       Item* it = job.find(id);
                       if (it == nullptr) return;
                       it->cut.raise.panel.clear();
                       it->cut.margin = 10;
                     }}}});
    return;
  }
  if (!has_floor(item.cut) || !state.cuts->bits.empty() || state.cuts->groove || state.outlines->region.empty()) return;
  out.push_back({Grade::Stop,
                 "no-bit-fits",
                 id,
                 at,
                 "No flat bit that is chosen clears the floor of " + name + ".",
                 "It is narrower than the bits, or deeper than they reach (" + s.show(floor_depth(item.cut)) +
                     "). Choose smaller or longer ones.",
                 {piece.propose_bits()}});
}

void check_bevel_bit(const Seen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const Bit* bit = s.rack.find(item.cut.bit);
  if (item.cut.kind != Kind::Bevel || bit == nullptr || bit->kind != BitKind::V ||
      item.cut.depth <= bit->body_depth() + 1e-6)
    return;
  out.push_back({Grade::Stop,
                 "bevel-deeper-than-bit",
                 item.piece.id,
                 at,
                 "The bevel of " + name + " is deeper than the " + bit->name + " cuts.",
                 "Its cutting edge ends " + s.show(bit->body_depth()) + " above the tip.",
                 {piece.deep(bit->body_depth())}});
}

void check_flutes(const Seen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const double deep = floor_depth(item.cut);
  const auto& operations = state.cuts->operations;
  for (const std::string& used : state.cuts->bits) {
    const Bit* flat = s.rack.find(used);
    if (flat == nullptr || flat->flute_length >= deep - 1e-6) continue;
    const auto by_it = [&used](const Operation& op) { return op.bit == used; };
    if (item.cut.kind == Kind::Incise && std::none_of(operations.begin(), operations.end(), by_it)) continue;
    out.push_back({Grade::Stop,
                   "flutes-too-short",
                   item.piece.id,
                   at,
                   "The " + flat->name + " cuts " + s.show(flat->flute_length) + " deep; " + name + " needs " +
                       s.show(deep) + ".",
                   "Deeper, the shank would rub and burn.",
                   {piece.propose_bits()}});
  }
}

void check_one(const Situation& s, std::size_t i, std::vector<Verdict>& out) {
  const Item& item = s.job.items[i];
  const PieceState& state = s.pieces[i];
  const Seen piece{s, item, state, "“" + item.piece.name + "”", bounds(*state.outlines).centre()};
  check_half_on(piece, out);
  // Another piece of its panel does the clearing.
  if (has_floor(item.cut) && state.cuts->operations.empty() && !state.around->with.empty()) return;
  check_cleared(piece, out);
  check_bevel_bit(piece, out);
  check_flutes(piece, out);
}

}  // namespace

void check_grounds(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.pieces[i].outlines != nullptr && s.job.items[i].cut.kind != Kind::None) check_one(s, i, out);
  }
}

}  // namespace doyen
