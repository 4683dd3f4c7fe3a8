// Inlays: halves that cannot close, woods that fight, and what must wait until the plug is glued.
#include <algorithm>
#include <cmath>

#include "stock/species.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kMoisture = 4;       // per cent, a heated room's year (common practice, no source)
constexpr double kMovesApart = 0.15;  // mm that flanks and glue still take up (common practice, no source)

void check_figures(const Situation& s, const Item& item, Point at, std::vector<Verdict>& out) {
  const std::string& id = item.piece.id;
  const std::string name = "“" + item.piece.name + "”";
  const Inlay& inlay = item.cut.inlay;
  if (item.cut.back)
    out.push_back(
        {Grade::Stop,
         "inlay-on-back",
         id,
         at,
         "The inlay " + name + " is to be cut from the back.",
         "Its plug is mirrored for a pocket in the front; turn the job over, so that the inlay's side is the front.",
         {{"Cut it from the front", [id](Job& job) {
             if (Item* it = job.find(id)) it->cut.back = false;
           }}}});
  if (inlay.contact >= item.cut.depth - 0.02) {
    const double fair = std::floor(item.cut.depth * 0.76 * 10) / 10;
    out.push_back({Grade::Stop,
                   "plug-bottoms-out",
                   id,
                   at,
                   "The plug of " + name + " comes " + s.show(inlay.contact) + " deep into a pocket of " +
                       s.show(item.cut.depth) + ": it bottoms out before its flanks close.",
                   "A gap for glue must stay under it.",
                   {{"Contact at " + s.show(fair), [id, fair](Job& job) {
                       if (Item* it = job.find(id)) it->cut.inlay.contact = fair;
                     }}}});
  }
  const Bit* v = s.rack.find(item.cut.bit);
  const double deep = inlay.contact + inlay.saw_gap;
  if (inlay.sloped && v != nullptr && v->kind == BitKind::V && v->body_depth() < deep - 1e-6)
    out.push_back({Grade::Stop,
                   "plug-deeper-than-bit",
                   id,
                   at,
                   "The plug of " + name + " is cut " + s.show(deep) + " deep; the " + v->name + " reaches " +
                       s.show(v->body_depth()) + ".",
                   "Its flank would not reach the background. Less contact or saw gap, or a larger V.",
                   {}});
  if (deep > inlay.thickness - 1)
    out.push_back({Grade::Stop,
                   "plug-too-thin",
                   id,
                   at,
                   "The plug's board of " + s.show(inlay.thickness) + " is cut " + s.show(deep) + " deep.",
                   "Too little wood would hold the plugs together.",
                   {{"Take a board of " + s.show(std::ceil(deep + 5)), [id, thick = std::ceil(deep + 5)](Job& job) {
                       if (Item* it = job.find(id)) it->cut.inlay.thickness = thick;
                     }}}});
}

void check_woods(const Situation& s, const Item& item, const Box& box, std::vector<Verdict>& out) {
  const std::string name = "“" + item.piece.name + "”";
  const Species *board = species_table().find(s.job.blank.species), *plug = species_table().find(item.cut.inlay.wood);
  if (plug == nullptr) {
    out.push_back({Grade::Mind,
                   "unknown-plug-wood",
                   item.piece.id,
                   box.centre(),
                   "“" + item.cut.inlay.wood + "”, the plug's wood of " + name + ", is not in the table of woods.",
                   "Feeds for soft wood are used for it.",
                   {}});
    return;
  }
  if (board == nullptr) return;
  const double across = s.job.blank.grain == Grain::AlongWidth ? box.height() : box.width();
  const double apart = across * std::abs(plug->change_tangential - board->change_tangential) * kMoisture;
  if (apart > kMovesApart)
    out.push_back({Grade::Mind,
                   "woods-move-apart",
                   item.piece.id,
                   box.centre(),
                   "Across the grain " + plug->name + " and " + board->name + " move apart by " + s.show(apart) +
                       " over the " + s.show(across) + " of " + name + ", for 4 per cent of moisture.",
                   "The line can open or the plug lift; split it, or choose woods nearer to each other.",
                   {}});
  const double lighter = plug->light.red + plug->light.green + plug->light.blue,
               darker = board->light.red + board->light.green + board->light.blue;
  if (std::abs(lighter - darker) < 0.25)
    out.push_back({Grade::Mind,
                   "woods-alike",
                   item.piece.id,
                   box.centre(),
                   plug->name + " in " + board->name + " hardly shows.",
                   "Choose a lighter or darker wood for the plug.",
                   {}});
}

}  // namespace

void check_inlays(const Situation& s, std::vector<Verdict>& out) {
  const Item* inlaid = nullptr;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    if (item.cut.kind != Kind::Inlay || s.pieces[i].outlines == nullptr) continue;
    const Box box = bounds(*s.pieces[i].outlines);
    inlaid = &item;
    check_figures(s, item, box.centre(), out);
    check_woods(s, item, box, out);
  }
  if (inlaid == nullptr) return;
  for (const Item& item : s.job.items) {
    if (item.cut.kind != Kind::CutOut && item.cut.kind != Kind::Bevel) continue;
    out.push_back({Grade::Mind,
                   "after-gluing",
                   item.piece.id,
                   inlaid->piece.at,
                   "“" + item.piece.name + "” is to be " + (item.cut.kind == Kind::Bevel ? "bevelled" : "cut out") +
                       " only when “" + inlaid->piece.name + "” is glued, sawn off and level.",
                   "Run its file last, with zero kept; cut free before, the board cannot be clamped or levelled.",
                   {}});
  }
}

}  // namespace doyen
