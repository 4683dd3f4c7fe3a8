// Inlays: halves that cannot close, woods that fight.
#include <algorithm>
#include <cmath>

#include "stock/species.hpp"
#include "treatments/inlay/inlay_parts.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

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
  out.push_back(
      {binds > 0.1 ? Grade::Stop : Grade::Mind,
       "upright-corners-bind",
       item.piece.id,
       at,
       say("The {0} leaves the pocket's inside corners of “{1}” round by {2}; the plug's are sharp and do not go in.",
           smallest->name, item.piece.name, s.show(smallest->true_diameter() / 2)),
       say("Both halves must carry the bit's radius, or the corners are chopped by hand."),
       {{say("Round both halves by {0}", s.show(radius)), [id = item.piece.id, radius](Job& job) {
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
                 say("Easing the corners of “{0}” by {1} takes away strokes thinner than {2}: {3} in all.",
                     item.piece.name, s.show(ease), s.show(2 * ease), format_area(lost, s.job.lengths)),
                 say("Ease less, or widen the strokes."),
                 {{say("Do not ease"), [id = item.piece.id](Job& job) {
                     if (Item* it = job.find(id)) it->cut.inlay.ease = 0;
                   }}}});
}

void check_figures(const Situation& s, const Item& item, Point at, std::vector<Verdict>& out) {
  const std::string& id = item.piece.id;
  const std::string name = "“" + item.piece.name + "”";
  const Inlay& inlay = item.cut.inlay;
  if (item.cut.back)
    out.push_back({Grade::Stop,
                   "inlay-on-back",
                   id,
                   at,
                   say("The inlay {0} is to be cut from the back.", name),
                   say("Its plug is mirrored for a pocket in the front; turn the job over, so that the inlay's side is "
                       "the front."),
                   {{say("Cut it from the front"), [id](Job& job) {
                       if (Item* it = job.find(id)) it->cut.back = false;
                     }}}});
  if (inlay.contact >= item.cut.depth - 0.02) {
    const double fair = std::floor(item.cut.depth * 0.76 * 10) / 10;
    out.push_back({Grade::Stop,
                   "plug-bottoms-out",
                   id,
                   at,
                   say("The plug of {0} comes {1} deep into a pocket of {2}: it bottoms out before its flanks close.",
                       name, s.show(inlay.contact), s.show(item.cut.depth)),
                   say("A gap for glue must stay under it."),
                   {{say("Contact at {0}", s.show(fair)), [id, fair](Job& job) {
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
                   say("The plug of {0} is cut {1} deep; the {2} reaches {3}.", name, s.show(deep), v->name,
                       s.show(v->body_depth())),
                   say("Its flank would not reach the background. Less contact or saw gap, or a larger V."),
                   {}});
  if (deep > inlay.thickness - 1)
    out.push_back(
        {Grade::Stop,
         "plug-too-thin",
         id,
         at,
         say("The plug's board of {0} is cut {1} deep.", s.show(inlay.thickness), s.show(deep)),
         say("Too little wood would hold the plugs together."),
         {{say("Take a board of {0}", s.show(std::ceil(deep + 5))), [id, thick = std::ceil(deep + 5)](Job& job) {
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
                  say("{0} and {1} will swell differently: {2} across “{3}” ({4}) if moisture changes by {5} %{6}",
                      plug.name, board.name, s.show(std::max(x, y)), item.piece.name, s.show(size),
                      format_number(inlay.moisture, 1), (inlay.crossed ? say(": their grains cross.") : ".")),
                  inlay.crossed
                      ? say("The line can open or the plug lift.")
                      : say("The line can open or the plug lift; split it, or choose woods nearer to each other."),
                  {}};
  if (inlay.crossed)
    verdict.remedies.push_back({say("Turn the plug's grain along the board's"), [id = item.piece.id](Job& job) {
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
         say("{0} is {1} times as soft as {2}.", (a > b ? plug.name : board.name),
             format_number(std::max(a, b) / std::min(a, b), 1), (a > b ? board.name : plug.name)),
         say("Sanding hollows the softer wood: scrape, or sand with a hard flat block."));
  const bool pale_dust = board.open_pores && brightness(plug) > brightness(board) + 0.3;
  const bool dark_dust = plug.open_pores && brightness(board) < brightness(plug) - 0.3;
  if (pale_dust || dark_dust)
    note("pores-take-dust",
         pale_dust ? say("Pale dust of {0} settles in the open pores of {1}.", plug.name, board.name)
                   : say("Dark dust of {0} settles in the open pores of {1}.", board.name, plug.name),
         say("Seal the open-pored wood before levelling, blow out between grits, and fill its pores, if at all, in its "
             "own colour."));
  if (board.resinous || plug.resinous)
    note("resin-keeps-glue-off",
         say("{0} holds resin or oil that keeps glue from taking.", (board.resinous ? board.name : plug.name)),
         say("Glue soon after cutting, the flanks wiped with a solvent that the glue's own sheet allows: air moving, "
             "no flame."));
}

void check_woods(const Situation& s, const Item& item, const Box& box, std::vector<Verdict>& out) {
  const std::string name = "“" + item.piece.name + "”";
  const Species *board = species_table().find(s.job.blank.species), *plug = species_table().find(item.cut.inlay.wood);
  if (plug == nullptr) {
    out.push_back({Grade::Mind,
                   "unknown-plug-wood",
                   item.piece.id,
                   box.centre(),
                   say("“{0}”, the plug's wood of {1}, is not in the table of woods.", item.cut.inlay.wood, name),
                   say("Feeds for soft wood are used for it."),
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
                   say("{0} in {1} hardly shows.", plug->name, board->name),
                   say("Choose a lighter or darker wood for the plug."),
                   {}});
}

}  // namespace

void check_inlay(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  const Box box = bounds(*state.outlines);
  check_figures(s, item, box.centre(), out);
  if (state.cuts->ground > 0.01)
    out.push_back({Grade::Mind,
                   "inlay-below-face",
                   item.piece.id,
                   box.centre(),
                   say("“{0}” lies {1} below the face: its plug can be neither sawn off nor planed level there.",
                       item.piece.name, s.show(state.cuts->ground)),
                   say("Chisel and scrape it by hand, and leave its background room inside the floor; or inlay it "
                       "first and sink the floor afterwards."),
                   {}});
  check_upright(s, item, state.cuts, box.centre(), out);
  check_easing(s, item, state.outlines->region, out);
  check_woods(s, item, box, out);
  // What is true of the pair of woods is said once.
  const auto first = std::find_if(s.job.items.begin(), s.job.items.end(), [&](const Item& other) {
    return other.cut.kind == Treatment::Kind::Inlay && other.cut.inlay.wood == item.cut.inlay.wood;
  });
  if (&*first == &item) check_surface(s, item, box, out);
}

}  // namespace doyen
