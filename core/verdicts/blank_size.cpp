// A cut-out that, turned, would come out of a smaller blank.
#include "job/layout.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kWorthIt = 0.06;  // a twentieth of the wood and the eye's patience (common practice, no source)

}  // namespace

void check_blank_size(const Situation& s, std::vector<Verdict>& out) {
  const Item* only = nullptr;
  const Outlines* outlines = nullptr;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.job.items[i].cut.kind != Treatment::Kind::CutOut || s.pieces[i].outlines == nullptr) continue;
    if (only != nullptr) return;  // several pieces share the blank: nesting them is another matter
    only = &s.job.items[i];
    outlines = s.pieces[i].outlines;
  }
  if (only == nullptr || outlines->region.empty()) return;
  // The turn is about the grain, too: what lies along it now would lie across.
  const Box now = bounds(*outlines);
  const SmallestBox least = smallest_box(*outlines);
  const double saved = 1 - least.width * least.height / (now.width() * now.height());
  if (saved < kWorthIt || !may_turn_layout(s.job)) return;
  const double turn = least.turn > 45 ? least.turn - 90 : least.turn;
  const double width = least.turn > 45 ? least.height : least.width,
               height = least.turn > 45 ? least.width : least.height;
  const double need = 2 * s.job.blank.margin;
  out.push_back({Grade::Note,
                 "smaller-blank",
                 only->piece.id,
                 now.centre(),
                 say("Turned by {0}°, “{1}” needs {2} % less wood: {3} by {4}.", format_number(turn, 1),
                     only->piece.name, std::lround(saved * 100), s.show(width), s.show(height)),
                 say("Everything on the board turns along; mind the grain."),
                 {{say("Turn it, and take a blank of {0} by {1}", s.show(width + need), s.show(height + need)),
                   [turn, width, height, need, id = only->piece.id](Job& job) {
                     turn_layout(job, turn, job.blank.box().centre());
                     job.blank.width = width + need;
                     job.blank.height = height + need;
                     const Item* item = job.find(id);
                     if (item == nullptr) return;
                     const Box box = bounds(outlines_of(item->piece, job.source()));
                     shift_layout(job, job.blank.box().centre() - box.centre());
                   }}}});
}

}  // namespace doyen
