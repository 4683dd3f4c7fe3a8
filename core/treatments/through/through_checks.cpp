// What goes right through: far enough, not further than the bit's flutes, and what holds it meanwhile.
#include <algorithm>
#include <cmath>
#include <set>

#include "holding/forces.hpp"
#include "stock/species.hpp"
#include "treatments/through/through_look.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// How far past the underside it goes.
void check_past(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const PieceCuts* cuts = state.cuts;
  const Blank& blank = s.job.blank;
  const double over = item.cut.through.over_cut.value_or(default_over_cut(blank));
  const Remedy deeper{say("Go {0} past", s.show(default_over_cut(blank))), [id = item.piece.id](Job& job) {
                        if (Item* it = job.find(id)) it->cut.through.over_cut.reset();
                      }};
  if (item.cut.through.skin > 0) {
    out.push_back({Grade::Note,
                   "skin-left",
                   item.piece.id,
                   cuts->deepest_at,
                   say("A skin of at least {0} stays under “{1}”.", s.show(item.cut.through.skin), item.piece.name),
                   say("Up to {0} where the board is thickest; part it with a knife and sand.",
                       s.show(item.cut.through.skin + blank.thickest() - blank.thinnest())),
                   {{say("Cut right through"), [id = item.piece.id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.through.skin = 0;
                     }}}});
  } else if (over <= 0) {
    out.push_back(
        {Grade::Stop,
         "not-through",
         item.piece.id,
         cuts->deepest_at,
         say("“{0}” is cut no deeper than the thickest reading, {1}.", item.piece.name, s.show(blank.thickest())),
         say("It would not come loose everywhere: the board or the bed is uneven."),
         {deeper}});
  } else if (over < std::max(0.1, blank.bed_unevenness)) {
    out.push_back({Grade::Mind,
                   "over-cut-small",
                   item.piece.id,
                   cuts->deepest_at,
                   say("“{0}” goes only {1} past the underside.", item.piece.name, s.show(over)),
                   say("The bed and the board's cupping are uneven by up to {0}.", s.show(blank.bed_unevenness)),
                   {deeper}});
  }
}

// Its own bit, and larger ones that clear an opening before it.
void check_through_flutes(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const double deepest = state.cuts->deepest;
  std::set<BitId> used;
  for (const Operation& op : state.cuts->operations) used.insert(op.bit);
  for (const BitId& id : used) {
    const Bit* bit = s.rack.find(id);
    if (bit == nullptr || deepest <= bit->flute_length + 1e-6) continue;
    std::vector<Remedy> remedies;
    if (id != item.cut.bit) {
      remedies.push_back({say("Leave out the {0}", bit->name), [piece_id = item.piece.id, id](Job& job) {
                            if (Item* it = job.find(piece_id)) std::erase(it->cut.clearing, id);
                          }});
    } else {
      const auto other = std::find_if(s.rack.bits.begin(), s.rack.bits.end(), [&](const Bit& b) {
        return b.kind == BitKind::Flat && b.flute_length >= deepest;
      });
      if (other != s.rack.bits.end())
        remedies.push_back({say("Use the {0}", other->name), [piece_id = item.piece.id, to = other->id](Job& job) {
                              if (Item* it = job.find(piece_id)) it->cut.bit = to;
                            }});
    }
    out.push_back({Grade::Stop, "flutes-too-short", item.piece.id, state.cuts->deepest_at,
                   say("The {0} cuts {1} deep; “{2}” needs {3}.", bit->name, s.show(bit->flute_length), item.piece.name,
                       s.show(deepest)),
                   say("Deeper, the shank would rub and burn."), std::move(remedies)});
  }
}

void check_bed(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const Blank& blank = s.job.blank;
  const double over = item.cut.through.over_cut.value_or(default_over_cut(blank));
  if (item.cut.through.skin > 0) return;
  const double marked = over + blank.thickest() - blank.thinnest();
  const bool waste = s.job.run.waste_board > 0;
  const std::string sum =
      say("Over-cut {0} plus the readings' spread {1}.", s.show(over), s.show(blank.thickest() - blank.thinnest()));
  out.push_back({Grade::Note,
                 "bed-marked",
                 item.piece.id,
                 state.cuts->deepest_at,
                 waste ? say("The waste board is marked by up to {0} under “{1}”.", s.show(marked), item.piece.name)
                       : say("The bed is marked by up to {0} under “{1}”.", s.show(marked), item.piece.name),
                 waste ? sum : sum + " " + say("Lay waste sheet beneath."),
                 {}});
}

// Each part that comes free wants two tabs, or tape, or a skin.
void check_held(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const PieceCuts* cuts = state.cuts;
  const bool inside = item.cut.kind == Treatment::Kind::Pierce;
  const Region& region = state.outlines->region;
  const Remedy place{say("Place four tabs"), [id = item.piece.id](Job& job) {
                       if (Item* it = job.find(id)) {
                         it->cut.through.tabs.wanted = true;
                         it->cut.through.tabs.count = std::max(4, it->cut.through.tabs.count);
                         it->cut.through.tabs.placed.clear();
                       }
                     }};
  std::vector<int> per_island(region.islands.size(), 0);
  for (const PlacedTab& tab : cuts->cut_out->tabs) ++per_island[static_cast<std::size_t>(tab.place.island)];
  const Box board = s.job.blank.box();
  for (std::size_t k = 0; k < per_island.size() && !inside; ++k) {
    // What goes on beyond the board is cut free with its neighbours there; what comes loose here is found in the wood.
    const Box island = bounds(region.islands[k].rings.front());
    if (s.job.blank.runs_off.any() &&
        !(board.contains({island.left, island.bottom}) && board.contains({island.right, island.top})))
      continue;
    if (per_island[k] >= 2 || item.cut.through.taped || item.cut.through.skin > 0) continue;
    const std::string what = per_island[k] == 0 ? say("no tab") : say("only one tab");
    out.push_back({Grade::Stop,
                   "no-tabs",
                   item.piece.id,
                   bounds(region.islands[k]).centre(),
                   say("“{0}” is cut free with {1} to hold it.", item.piece.name, what),
                   say("A loose piece can be caught by the bit and thrown."),
                   {place}});
    break;
  }
}

constexpr double kLongestTab = 30;  // mm that is offered

// In figures that can be said and that are enough.
double rounded_up(double mm, Unit unit) {
  const double step = unit == Unit::Inch ? kMmPerInch / 64 : 0.1;
  return std::ceil(mm / step - 1e-6) * step;
}

// The push of the bit that cuts it free falls on the tab that is nearest.
void check_tab_strength(const PieceSeen& piece, std::vector<Verdict>& out) {
  const Situation& s = piece.s;
  const Item& item = piece.item;
  const PieceState& state = piece.state;
  const Bit* bit = s.rack.find(item.cut.bit);
  const Tabs& tabs = item.cut.through.tabs;
  const double thick = s.job.blank.thinnest();
  if (bit == nullptr || state.cuts->cut_out->tabs.empty() || tabs.height <= 0 || tabs.length <= 0) return;
  const std::string wood = wood_class_of(s.job.blank);
  const double pushes = bit_pushes(*bit, wood), stands = tab_stands(tabs, thick, wood);
  if (stands >= pushes) return;
  std::vector<Remedy> remedies;
  const auto offer = [&](double Tabs::*figure, double least, double most, const auto& label) {
    Tabs other = tabs;
    for (double mm = least; mm <= most; mm += s.job.lengths.unit == Unit::Inch ? kMmPerInch / 64 : 0.1) {
      other.*figure = rounded_up(mm, s.job.lengths.unit);
      if (tab_stands(other, thick, wood) < pushes) continue;
      remedies.push_back({label(s.show(other.*figure)), [id = item.piece.id, figure, to = other.*figure](Job& job) {
                            if (Item* it = job.find(id)) it->cut.through.tabs.*figure = to;
                          }});
      return;
    }
  };
  offer(&Tabs::height, tabs.height, thick / 2, [](const std::string& mm) { return say("Tabs {0} high", mm); });
  offer(&Tabs::length, tabs.length, kLongestTab, [](const std::string& mm) { return say("Tabs {0} long", mm); });
  out.push_back(
      {Grade::Mind, "tab-shears", item.piece.id, state.cuts->cut_out->tabs.front().at,
       say("The tabs of “{0}” may shear off: one stands {1}, and the {2} pushes with up to {3}.", item.piece.name,
           force_in_words(stands, s.job.lengths), bit->name, force_in_words(pushes, s.job.lengths)),
       say("By its feed and depth a pass in this wood, blunt or in a knot (common practice). Then the part "
           "comes free under the bit."),
       std::move(remedies)});
}

void check_tab_places(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const PieceCuts* cuts = state.cuts;
  const bool inside = item.cut.kind == Treatment::Kind::Pierce;
  const Region& region = state.outlines->region;
  // Tabs count along what is really cut out, clear of a bevel.
  const double clear = state.around == nullptr ? 0 : state.around->grown;
  const Region body = (inside ? clear < 0 : clear > 0) ? grow(region, clear, Corner::Sharp) : region;
  const Bit* bit = s.rack.find(item.cut.bit);
  for (const PlacedTab& tab : cuts->cut_out->tabs) {
    if (static_cast<std::size_t>(tab.place.island) >= body.islands.size()) continue;
    const std::string why = tab_objection(body, tab.place, item.cut.through.tabs.length, bit->true_diameter(), inside);
    if (why.empty()) continue;
    out.push_back({Grade::Mind,
                   "tab-badly-placed",
                   item.piece.id,
                   tab.at,
                   say("A tab of “{0}” stands badly: {1}.", item.piece.name, why),
                   say("It will be hard to trim there."),
                   {{say("Let Doyen place the tabs"), [id = item.piece.id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.through.tabs.placed.clear();
                     }}}});
  }
  if (item.cut.through.tabs.wanted && item.cut.through.tabs.height >= s.job.blank.thinnest()) {
    out.push_back({Grade::Mind,
                   "tab-too-high",
                   item.piece.id,
                   bounds(region).centre(),
                   say("The tabs are as high as the board."),
                   say("Nothing would be cut there: lower the tabs."),
                   {}});
  }
}

}  // namespace

void check_through(const PieceSeen& piece, std::vector<Verdict>& out) {
  if (!piece.state.cuts->operations.empty()) {
    check_past(piece, out);
    check_through_flutes(piece, out);
    check_bed(piece, out);
  }
  if (piece.state.cuts->cut_out) {
    check_held(piece, out);
    check_tab_places(piece, out);
    check_tab_strength(piece, out);
  }
}

}  // namespace doyen
