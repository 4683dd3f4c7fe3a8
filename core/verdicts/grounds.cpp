// Floors and what lies on them: half on and half off, nothing to clear, no bit for it, bevels deeper than their bit.
#include "grounds/grounds.hpp"
#include "cutting/proposals.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

void check_one(const Situation& s, std::size_t i, std::vector<Verdict>& out) {
  const Item& item = s.job.items[i];
  const PieceState& state = s.pieces[i];
  const std::string& id = item.piece.id;
  const std::string name = "“" + item.piece.name + "”";
  const Point at = bounds(*state.outlines).centre();
  Point crossing;
  if (crosses_wall(*state.outlines, *state.around, crossing)) {
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
    out.push_back(
        {Grade::Stop, "half-on-ground", id, crossing,
         (letter.empty() ? name + " lies" : letter + " of " + name + " lies") + " partly on the floor of “" +
             (floor == nullptr ? state.around->ground.half_on : floor->piece.name) + "”.",
         "What lies wholly on either ground is cut from its own; across the wall between them it would be too "
         "shallow on one side or cut air.",
         std::move(remedies)});
  }
  // Upright inlays live by flat bits, too.
  const bool floors = makes_ground(item.cut.kind) ||
                      ((item.cut.kind == Kind::Inlay || item.cut.kind == Kind::Plug) && upright_walls(item.cut));
  const bool nothing = floors && state.cuts->operations.empty();
  if (nothing && !state.around->with.empty()) return;  // another piece of its panel does the clearing
  if (item.cut.kind == Kind::Raise && state.around->sunk.empty()) {
    out.push_back({Grade::Stop,
                   "nothing-sunk",
                   id,
                   at,
                   "Nothing is sunk round " + name + ": its panel leaves no room beside it.",
                   "Choose a larger panel, or a margin.",
                   {{"Take a margin of 10 mm", [id](Job& job) {
                       Item* it = job.find(id);
                       if (it == nullptr) return;
                       it->cut.raise.panel.clear();
                       it->cut.margin = 10;
                     }}}});
  } else if (floors && state.cuts->bits.empty() && !state.cuts->groove && !state.outlines->region.empty()) {
    out.push_back({Grade::Stop,
                   "no-bit-fits",
                   id,
                   at,
                   "No flat bit that is chosen clears the floor of " + name + ".",
                   "It is narrower than the bits, or deeper than they reach (" + s.show(floor_depth(item.cut)) +
                       "). Choose smaller or longer ones.",
                   {{"Let Doyen propose bits", [id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.clearing.clear();
                     }}}});
  }
  const Bit* bit = s.rack.find(item.cut.bit);
  if (item.cut.kind == Kind::Bevel && bit != nullptr && bit->kind == BitKind::V &&
      item.cut.depth > bit->body_depth() + 1e-6) {
    out.push_back({Grade::Stop,
                   "bevel-deeper-than-bit",
                   id,
                   at,
                   "The bevel of " + name + " is deeper than the " + bit->name + " cuts.",
                   "Its cutting edge ends " + s.show(bit->body_depth()) + " above the tip.",
                   {{"Make it " + s.show(bit->body_depth()) + " deep", [id, to = bit->body_depth()](Job& job) {
                       if (Item* it = job.find(id)) it->cut.depth = to;
                     }}}});
  }
  for (const std::string& used : state.cuts->bits) {
    const Bit* flat = s.rack.find(used);
    const double deep = floor_depth(item.cut);
    if (flat == nullptr || flat->flute_length >= deep - 1e-6) continue;
    const auto& operations = state.cuts->operations;
    if (item.cut.kind == Kind::Incise &&
        std::none_of(operations.begin(), operations.end(), [&](const Operation& op) { return op.bit == used; }))
      continue;
    out.push_back({Grade::Stop,
                   "flutes-too-short",
                   id,
                   at,
                   "The " + flat->name + " cuts " + s.show(flat->flute_length) + " deep; " + name + " needs " +
                       s.show(deep) + ".",
                   "Deeper, the shank would rub and burn.",
                   {{"Let Doyen propose bits", [id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.clearing.clear();
                     }}}});
  }
}

}  // namespace

void check_grounds(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.pieces[i].outlines != nullptr && s.job.items[i].cut.kind != Kind::None) check_one(s, i, out);
  }
}

}  // namespace doyen
