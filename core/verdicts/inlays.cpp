// What of a board with inlays must wait until their plugs are glued.
#include <algorithm>

#include "treatments/look.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {

void check_inlays(const Situation& s, std::vector<Verdict>& out) {
  using Kind = Treatment::Kind;
  const Item* inlaid = nullptr;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.job.items[i].cut.kind == Kind::Inlay && s.pieces[i].outlines != nullptr) inlaid = &s.job.items[i];
  }
  if (inlaid == nullptr) return;
  for (const Item& item : s.job.items) {
    if (item.cut.kind != Kind::CutOut && item.cut.kind != Kind::Bevel) continue;
    const std::string what = say(look_of(item.cut.kind).done);
    if (s.job.run.cut_out_last) {
      out.push_back({Grade::Note,
                     "second-run",
                     item.piece.id,
                     inlaid->piece.at,
                     say("“{0}” is {1} in a second run, when “{2}” is glued, sawn off and level.", item.piece.name,
                         what, inlaid->piece.name),
                     say("Its files are named glued; zero must be found again for them."),
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
         say("“{0}” is {1} before “{2}” is glued in and level.", item.piece.name, what, inlaid->piece.name),
         item.cut.kind == Kind::Bevel ? say("The bevel's edge is bruised by clamps and sanding.")
         : held ? say("Clamping and levelling then pull at its {0} tabs, {1} of wood in all: clamp it flat on a board.",
                      item.cut.through.tabs.count, format_area(across, s.job.lengths))
                : say("Nothing holds it then: it can be neither clamped nor levelled where it lies."),
         {{say("Cut it in a second run, after gluing"), [](Job& job) { job.run.cut_out_last = true; }}}});
  }
}

}  // namespace doyen
