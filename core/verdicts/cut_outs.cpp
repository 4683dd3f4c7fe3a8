// Through cuts and their tabs.
#include "verdicts/verdict.hpp"

namespace doyen {

void check_through(const Situation& s, std::vector<Verdict>& out) {
  const Blank& blank = s.job.blank;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const PieceCuts* cuts = s.pieces[i].cuts;
    if (cuts == nullptr || cuts->operations.empty() || !goes_through(item.cut.kind)) continue;
    const double over = item.cut.through.over_cut.value_or(default_over_cut(blank));
    const Remedy deeper{"Go " + s.show(default_over_cut(blank)) + " past", [id = item.piece.id](Job& job) {
                          if (Item* it = job.find(id)) it->cut.through.over_cut.reset();
                        }};
    if (item.cut.through.skin > 0) {
      out.push_back({Grade::Note,
                     "skin-left",
                     item.piece.id,
                     cuts->deepest_at,
                     "A skin of at least " + s.show(item.cut.through.skin) + " stays under “" + item.piece.name + "”.",
                     "Up to " + s.show(item.cut.through.skin + blank.thickest() - blank.thinnest()) +
                         " where the board is thickest; part it with a knife and sand.",
                     {{"Cut right through", [id = item.piece.id](Job& job) {
                         if (Item* it = job.find(id)) it->cut.through.skin = 0;
                       }}}});
    } else if (over <= 0) {
      out.push_back(
          {Grade::Stop,
           "not-through",
           item.piece.id,
           cuts->deepest_at,
           "“" + item.piece.name + "” is cut no deeper than the thickest reading, " + s.show(blank.thickest()) + ".",
           "It would not come loose everywhere: the board or the bed is uneven.",
           {deeper}});
    } else if (over < std::max(0.1, blank.bed_unevenness)) {
      out.push_back({Grade::Mind,
                     "over-cut-small",
                     item.piece.id,
                     cuts->deepest_at,
                     "“" + item.piece.name + "” goes only " + s.show(over) + " past the underside.",
                     "The bed and the board's cupping are uneven by up to " + s.show(blank.bed_unevenness) + ".",
                     {deeper}});
    }
    const Bit* bit = s.rack.find(item.cut.bit);
    if (bit != nullptr && cuts->deepest > bit->flute_length + 1e-6) {
      std::vector<Remedy> remedies;
      for (const Bit& other : s.rack.bits) {
        if (other.kind == BitKind::Flat && other.flute_length >= cuts->deepest && remedies.empty()) {
          remedies.push_back({"Use the " + other.name, [id = item.piece.id, to = other.id](Job& job) {
                                if (Item* it = job.find(id)) it->cut.bit = to;
                              }});
        }
      }
      out.push_back({Grade::Stop, "flutes-too-short", item.piece.id, cuts->deepest_at,
                     "The " + bit->name + " cuts " + s.show(bit->flute_length) + " deep; “" + item.piece.name +
                         "” needs " + s.show(cuts->deepest) + ".",
                     "Deeper, the shank would rub and burn.", std::move(remedies)});
    }
    if (item.cut.through.skin > 0) continue;
    const double marked = over + blank.thickest() - blank.thinnest();
    out.push_back({Grade::Note,
                   "bed-marked",
                   item.piece.id,
                   cuts->deepest_at,
                   "The bed is marked by up to " + s.show(marked) + " under “" + item.piece.name + "”.",
                   "Over-cut " + s.show(over) + " plus the readings' spread " +
                       s.show(blank.thickest() - blank.thinnest()) + ". Lay waste sheet beneath.",
                   {}});
  }
}

void check_tabs(const Situation& s, std::vector<Verdict>& out) {
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    const PieceCuts* cuts = s.pieces[i].cuts;
    if (cuts == nullptr || !cuts->cut_out) continue;
    const bool inside = item.cut.kind == Treatment::Kind::Pierce;
    const Region& region = s.pieces[i].outlines->region;
    // Tabs count along what is really cut out, clear of a bevel.
    const double clear = s.pieces[i].around == nullptr ? 0 : s.pieces[i].around->grown;
    const Region body = (inside ? clear < 0 : clear > 0) ? grow(region, clear, Corner::Sharp) : region;
    const Remedy place{"Place four tabs", [id = item.piece.id](Job& job) {
                         if (Item* it = job.find(id)) {
                           it->cut.through.tabs.wanted = true;
                           it->cut.through.tabs.count = std::max(4, it->cut.through.tabs.count);
                           it->cut.through.tabs.placed.clear();
                         }
                       }};
    std::vector<int> per_island(region.islands.size(), 0);
    for (const PlacedTab& tab : cuts->cut_out->tabs) ++per_island[static_cast<std::size_t>(tab.place.island)];
    for (std::size_t k = 0; k < per_island.size() && !inside; ++k) {
      if (per_island[k] >= 2 || item.cut.through.taped || item.cut.through.skin > 0) continue;
      const std::string what = per_island[k] == 0 ? "no tab" : "only one tab";
      out.push_back({Grade::Stop,
                     "no-tabs",
                     item.piece.id,
                     bounds(region.islands[k]).centre(),
                     "“" + item.piece.name + "” is cut free with " + what + " to hold it.",
                     "A loose piece can be caught by the bit and thrown.",
                     {place}});
      break;
    }
    const Bit* bit = s.rack.find(item.cut.bit);
    for (const PlacedTab& tab : cuts->cut_out->tabs) {
      if (static_cast<std::size_t>(tab.place.island) >= body.islands.size()) continue;
      const std::string why =
          tab_objection(body, tab.place, item.cut.through.tabs.length, bit->true_diameter(), inside);
      if (why.empty()) continue;
      out.push_back({Grade::Mind,
                     "tab-badly-placed",
                     item.piece.id,
                     tab.at,
                     "A tab of “" + item.piece.name + "” stands badly: " + why + ".",
                     "It will be hard to trim there.",
                     {{"Let Doyen place the tabs", [id = item.piece.id](Job& job) {
                         if (Item* it = job.find(id)) it->cut.through.tabs.placed.clear();
                       }}}});
    }
    if (item.cut.through.tabs.wanted && item.cut.through.tabs.height >= s.job.blank.thinnest()) {
      out.push_back({Grade::Mind,
                     "tab-too-high",
                     item.piece.id,
                     bounds(region).centre(),
                     "The tabs are as high as the board.",
                     "Nothing would be cut there: lower the tabs.",
                     {}});
    }
  }
}

}  // namespace doyen
