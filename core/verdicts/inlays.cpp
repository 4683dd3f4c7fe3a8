// Inlays: halves that cannot close, woods that fight, and what must wait until the plug is glued.
#include <algorithm>
#include <cmath>
#include <set>

#include "stock/species.hpp"
#include "treatments/look.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kMovesApart = 0.15;  // mm that flanks and glue still take up (common practice, no source)

// Upright flanks by a round bit: the pocket's inside corners and the plug's are as round as it, their counterparts
// sharp, unless both are rounded alike.
void check_upright(const Situation& s, const Item& item, const PieceCuts* cuts, Point at, std::vector<Verdict>& out) {
  if (item.cut.inlay.sloped || cuts == nullptr || cuts->bits.empty()) return;
  const Bit* smallest = s.rack.find(cuts->bits.back());
  if (smallest == nullptr || item.cut.inlay.ease >= smallest->true_diameter() / 2 - 1e-6) return;
  const double radius = std::ceil(smallest->true_diameter() / 2 * 50 + 1) / 50;
  // A sharp corner stands out of a round one by so much; what the allowance leaves free does not bind.
  const double binds =
      (std::sqrt(2.0) - 1) * (smallest->true_diameter() / 2 - item.cut.inlay.ease) - item.cut.inlay.allowance;
  out.push_back({binds > 0.1 ? Grade::Stop : Grade::Mind,
                 "upright-corners-bind",
                 item.piece.id,
                 at,
                 "The " + smallest->name + " leaves the pocket's inside corners of “" + item.piece.name +
                     "” round by " + s.show(smallest->true_diameter() / 2) + "; the plug's are sharp and do not go in.",
                 "Both halves must carry the bit's radius, or the corners are chopped by hand.",
                 {{"Round both halves by " + s.show(radius), [id = item.piece.id, radius](Job& job) {
                     if (Item* it = job.find(id)) it->cut.inlay.ease = radius;
                   }}}});
}

// Strokes that easing the corners takes away whole; rounded corners are what was asked for.
void check_easing(const Situation& s, const Item& item, const Region& art, std::vector<Verdict>& out) {
  const double ease = item.cut.inlay.ease;
  if (ease <= 0) return;
  double lost = 0;
  Point at;
  for (const Island& whole : art.islands) {
    const double all = area(Region{{whole}});
    for (const Island& island : lost_in_opening(Region{{whole}}, ease, 0.01).islands) {
      const double size = area(Region{{island}});
      // The corner of a square keeps (4 − π)/4 of the radius squared from the disc; sharper ones somewhat more.
      if (size < 1.2 * ease * ease && size < 0.9 * all) continue;
      if (size > lost) at = bounds(island).centre();
      lost += size;
    }
  }
  if (lost <= 0) return;
  out.push_back({Grade::Mind,
                 "eased-away",
                 item.piece.id,
                 at,
                 "Easing the corners of “" + item.piece.name + "” by " + s.show(ease) +
                     " takes away strokes thinner than " + s.show(2 * ease) + ": " + format_area(lost, s.job.lengths) +
                     " in all.",
                 "Ease less, or widen the strokes.",
                 {{"Do not ease", [id = item.piece.id](Job& job) {
                     if (Item* it = job.find(id)) it->cut.inlay.ease = 0;
                   }}}});
}

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

// How far the two woods' edges move against each other, along and across the board, whichever is more.
void check_movement(const Situation& s, const Item& item, const Box& box, const Species& board, const Species& plug,
                    std::vector<Verdict>& out) {
  const Inlay& inlay = item.cut.inlay;
  const bool along_x = s.job.blank.grain == Grain::AlongWidth;  // the board's grain
  const bool plug_along_x = along_x != inlay.crossed;
  // Along the grain wood hardly moves.
  const auto apart_over = [&](double size, bool x) {
    const double its = along_x == x ? 0 : board.change_tangential;
    const double other = plug_along_x == x ? 0 : plug.change_tangential;
    return size * std::abs(its - other) * inlay.moisture;
  };
  const double x = apart_over(box.width(), true), y = apart_over(box.height(), false);
  if (std::max(x, y) <= kMovesApart) return;
  const double size = x > y ? box.width() : box.height();
  Verdict verdict{Grade::Mind,
                  "woods-move-apart",
                  item.piece.id,
                  box.centre(),
                  plug.name + " and " + board.name + " will swell differently: " + s.show(std::max(x, y)) +
                      " across “" + item.piece.name + "” (" + s.show(size) + ") if moisture changes by " +
                      format_number(inlay.moisture, 1) + " %" + (inlay.crossed ? ": their grains cross." : "."),
                  inlay.crossed ? "The line can open or the plug lift."
                                : "The line can open or the plug lift; split it, or choose woods nearer to each other.",
                  {}};
  if (inlay.crossed)
    verdict.remedies.push_back({"Turn the plug's grain along the board's", [id = item.piece.id](Job& job) {
                                  if (Item* it = job.find(id)) it->cut.inlay.crossed = false;
                                }});
  out.push_back(std::move(verdict));
}

double brightness(const Species& s) { return s.light.red + s.light.green + s.light.blue; }

// What levelling, sanding and gluing meet in this pair.
void check_surface(const Situation& s, const Item& item, const Box& box, std::vector<Verdict>& out) {
  const Species *on = species_table().find(s.job.blank.species), *of = species_table().find(item.cut.inlay.wood);
  if (on == nullptr || of == nullptr) return;
  const Species &board = *on, &plug = *of;
  const auto note = [&](const char* code, const std::string& text, const std::string& why) {
    out.push_back({Grade::Note, code, item.piece.id, box.centre(), text, why, {}});
  };
  const double a = board.side_hardness, b = plug.side_hardness;
  constexpr double kUnlike = 2;  // common practice, no source
  if (a > 0 && b > 0 && std::max(a, b) > kUnlike * std::min(a, b))
    note("hardness-differs",
         (a > b ? plug.name : board.name) + " is " + format_number(std::max(a, b) / std::min(a, b), 1) +
             " times as soft as " + (a > b ? board.name : plug.name) + ".",
         "Sanding hollows the softer wood: scrape, or sand with a hard flat block.");
  const bool pale_dust = board.open_pores && brightness(plug) > brightness(board) + 0.3;
  const bool dark_dust = plug.open_pores && brightness(board) < brightness(plug) - 0.3;
  if (pale_dust || dark_dust)
    note("pores-take-dust",
         pale_dust ? "Pale dust of " + plug.name + " settles in the open pores of " + board.name + "."
                   : "Dark dust of " + board.name + " settles in the open pores of " + plug.name + ".",
         "Seal the open-pored wood before levelling, blow out between grits, and fill its pores, if at all, in its own "
         "colour.");
  if (board.resinous || plug.resinous)
    note("resin-keeps-glue-off",
         (board.resinous ? board.name : plug.name) + " holds resin or oil that keeps glue from taking.",
         "Glue soon after cutting, the flanks wiped with a solvent that the glue's own sheet allows: air moving, no "
         "flame.");
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
  check_movement(s, item, box, *board, *plug, out);
  if (std::abs(brightness(*plug) - brightness(*board)) < 0.25)
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
  std::set<std::string> pairs;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    const Item& item = s.job.items[i];
    if (item.cut.kind != Kind::Inlay || s.pieces[i].outlines == nullptr) continue;
    const Box box = bounds(*s.pieces[i].outlines);
    inlaid = &item;
    check_figures(s, item, box.centre(), out);
    if (s.pieces[i].cuts != nullptr && s.pieces[i].cuts->ground > 0.01)
      out.push_back(
          {Grade::Mind,
           "inlay-below-face",
           item.piece.id,
           box.centre(),
           "“" + item.piece.name + "” lies " + s.show(s.pieces[i].cuts->ground) +
               " below the face: its plug can be neither sawn off nor planed level there.",
           "Chisel and scrape it by hand, and leave its background room inside the floor; or inlay it first and "
           "sink the floor afterwards.",
           {}});
    check_upright(s, item, s.pieces[i].cuts, box.centre(), out);
    check_easing(s, item, s.pieces[i].outlines->region, out);
    check_woods(s, item, box, out);
    // What is true of the pair of woods is said once.
    if (pairs.insert(item.cut.inlay.wood).second) check_surface(s, item, box, out);
  }
  if (inlaid == nullptr) return;
  for (const Item& item : s.job.items) {
    if (item.cut.kind != Kind::CutOut && item.cut.kind != Kind::Bevel) continue;
    const std::string what = look_of(item.cut.kind).done;
    if (s.job.run.cut_out_last) {
      out.push_back({Grade::Note,
                     "second-run",
                     item.piece.id,
                     inlaid->piece.at,
                     "“" + item.piece.name + "” is " + what + " in a second run, when “" + inlaid->piece.name +
                         "” is glued, sawn off and level.",
                     "Its files are named glued; zero must be found again for them.",
                     {}});
      continue;
    }
    const bool held = item.cut.kind != Kind::CutOut || (item.cut.through.tabs.wanted && item.cut.through.skin <= 0);
    const double across = item.cut.through.tabs.length * item.cut.through.tabs.height * item.cut.through.tabs.count;
    out.push_back(
        {Grade::Mind,
         "after-gluing",
         item.piece.id,
         inlaid->piece.at,
         "“" + item.piece.name + "” is " + what + " before “" + inlaid->piece.name + "” is glued in and level.",
         item.cut.kind == Kind::Bevel ? "The bevel's edge is bruised by clamps and sanding."
         : held ? "Clamping and levelling then pull at its " + std::to_string(item.cut.through.tabs.count) + " tabs, " +
                      format_area(across, s.job.lengths) + " of wood in all: clamp it flat on a board."
                : "Nothing holds it then: it can be neither clamped nor levelled where it lies.",
         {{"Cut it in a second run, after gluing", [](Job& job) { job.run.cut_out_last = true; }}}});
  }
}

}  // namespace doyen
