// The inside of an O comes free when the O is pierced; so does a slug that nothing holds.
#include "treatments/pierce/pierce_parts.hpp"
#include "treatments/suits.hpp"
#include "treatments/through/through_look.hpp"
#include "verdicts/remedies.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

void check_insides(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, middle] = piece;
  const Outlines& outlines = *state.outlines;
  std::size_t insides = 0;
  Point at;
  for (const Island& island : outlines.region.islands) {
    if (island.rings.size() > 1 && insides == 0) at = bounds(island.rings[1]).centre();
    insides += island.rings.size() - 1;
  }
  if (insides > 0) {
    const std::string letter = letter_at(outlines, at);
    out.push_back(
        {Grade::Stop,
         "loose-inside",
         item.piece.id,
         at,
         say("{0} free when it is pierced.",
             (insides == 1 ? say("The middle of {0} comes", (letter.empty() ? "“" + item.piece.name + "”" : letter))
                           : say("{0} middles of “{1}” come", insides, item.piece.name))),
         say("It would fall, or jam between bit and wood, and the middle of the letter would be lost. Bridge it "
             "under Artwork, or take a face whose letters are open."),
         {{say("Incise it instead"), [id = item.piece.id, v = id_of(usual_v(s.rack))](Job& job) {
             Item* it = job.find(id);
             if (it == nullptr) return;
             it->cut.kind = Treatment::Kind::Incise;
             it->cut.bit = v;
           }}}});
  }
}

void check_slug(const PieceSeen& piece, std::vector<Verdict>& out) {
  const auto& [s, item, state, name, at] = piece;
  if (item.cut.pierce.slug && !item.cut.through.tabs.wanted && !item.cut.through.taped && item.cut.through.skin <= 0 &&
      state.cuts->cut_out) {
    out.push_back({Grade::Mind,
                   "slug-falls",
                   item.piece.id,
                   at,
                   say("The middle of “{0}” comes free at the last pass.", item.piece.name),
                   say("It can lift and jam the bit; hold it with tabs or tape, or clear it."),
                   {hold_by_tabs(item.piece.id), clear_opening(item.piece.id), leave_skin(item.piece.id),
                    tape_down(item.piece.id)}});
  }
}

}  // namespace

void check_pierce(const PieceSeen& piece, std::vector<Verdict>& out) {
  check_through(piece, out);
  check_insides(piece, out);
  check_slug(piece, out);
}

}  // namespace doyen
