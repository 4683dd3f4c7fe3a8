// Whether what holds the board on the bed stands what the bits push.
#include "holding/board_hold.hpp"
#include "holding/forces.hpp"
#include "holding/screws.hpp"
#include "problem.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

std::vector<PushedAt> pushes_of(const Situation& s) {
  std::vector<PushedAt> all;
  for (std::size_t i = 0; i < s.job.items.size(); ++i) {
    if (s.pieces[i].cuts == nullptr || holds_board(s.job.items[i])) continue;
    const std::vector<PushedAt> more = pushes_on(s.job, s.rack, i, s.pieces[i].cuts->operations);
    all.insert(all.end(), more.begin(), more.end());
  }
  return all;
}

}  // namespace

void check_held(const Situation& s, std::vector<Verdict>& out) {
  if (metal_on(s.job).empty()) return;  // nobody said how it is held
  const std::vector<PushedAt> pushes = pushes_of(s);
  const std::optional<BoardHeld> held = board_held(s.job, pushes);
  if (!held || held->share <= 1) return;
  const bool turns = held->worst.newtons < held->by.straight;
  std::vector<Remedy> remedies;
  if (const auto clamp = clamp_that_holds(s.job, s.rack, pushes))
    remedies.push_back({say("A clamp at {0}, {1} too", s.show(clamp->x), s.show(clamp->y)),
                        [clamp = *clamp](Job& job) { job.blank.keep_outs.push_back(clamp); }});
  try {
    if (places_for_screws(s.job, s.rack, kScrewHead).size() >= 2)
      remedies.push_back({say("Hold it with screws in the waste, too"), [rack = s.rack](Job& job) {
                            try {
                              job = with_screws(job, rack, kScrewHead);
                            } catch (const Problem&) {
                              return;  // the job is another one by now
                            }
                          }});
  } catch (const Problem&) {
    // Nothing is cut out, or there is no room.
  }
  const Bit* bit = s.rack.find(held->worst.bit);
  const std::string pushing = force_in_words(held->worst.newtons, s.job.lengths);
  out.push_back(
      {Grade::Mind, "held-too-little", s.job.items[held->worst.piece].piece.id, held->worst.at,
       turns ? say("The board may turn in its clamps: here the {0} pushes with up to {1}, {2} from their middle.",
                   bit == nullptr ? std::string(held->worst.bit) : bit->name, pushing,
                   s.show(distance(held->by.middle, held->worst.at)))
             : say("The board may slip: here the {0} pushes with up to {1}, its clamps stand {2}.",
                   bit == nullptr ? std::string(held->worst.bit) : bit->name, pushing,
                   force_in_words(held->by.straight, s.job.lengths)),
       say("By feed and depth a pass, blunt or in a knot, and by what a clamp's friction and a screw stand (common "
           "practice). Tape under it or a vacuum that nobody marked is not counted."),
       std::move(remedies)});
}

}  // namespace doyen
