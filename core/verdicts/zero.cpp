// Where zero is taken: whether it is there to be found.
#include <cmath>

#include "stock/turn_over.hpp"
#include "verdicts/remedies.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

Remedy at_the_corner() {
  return {say("Take zero at the left front corner"), [](Job& job) { job.run.zero_place = ZeroPlace::LeftFront; }};
}

void check_pin(const Situation& s, std::vector<Verdict>& out) {
  if (s.job.run.zero_place != ZeroPlace::Pin || s.job.find(kFirstPin) != nullptr) return;
  std::vector<Remedy> remedies{at_the_corner()};
  if (s.job.has_back()) {
    if (std::optional<Remedy> found = find_turning_pins(s, say("Find places for two pins")))
      remedies.push_back(std::move(*found));
  }
  out.push_back({Grade::Stop, "zero-without-pin", "", s.job.blank.box().centre(),
                 say("Zero is taken at a turning pin, and this job has none."),
                 say("The files count from the left front corner as long as that is so."), remedies});
}

// Of a floor that only this job sinks, the first bit cannot be set on it.
void check_floor_there(const Situation& s, std::vector<Verdict>& out) {
  const RunSettings& run = s.job.run;
  if (run.zero_surface != ZeroSurface::Face || run.zero_floor <= 0) return;
  const Remedy on_face{say("Take zero on the face"), [](Job& job) { job.run.zero_floor = 0; }};
  if (run.zero_floor >= s.job.blank.thinnest()) {
    out.push_back({Grade::Stop,
                   "zero-floor-too-deep",
                   "",
                   s.job.blank.box().centre(),
                   say("The floor that zero is taken on lies {0} below the face; the board is {1} thick.",
                       s.show(run.zero_floor), s.show(s.job.blank.thinnest())),
                   "",
                   {on_face}});
    return;
  }
  constexpr double kSame = 0.05;  // mm
  for (const Item& item : s.job.items) {
    if (item.cut.back || !makes_ground(item.cut.kind)) continue;
    if (std::abs(floor_depth(item.cut) - run.zero_floor) > kSame) continue;
    out.push_back({Grade::Mind,
                   "zero-floor-first",
                   item.piece.id,
                   item.piece.at,
                   say("Zero is taken on a floor {0} below the face, and “{1}” sinks one so deep only in this job.",
                       s.show(run.zero_floor), item.piece.name),
                   say("It must be there when z is set for the first file."),
                   {on_face}});
    return;
  }
}

}  // namespace

void check_zero(const Situation& s, std::vector<Verdict>& out) {
  check_pin(s, out);
  check_floor_there(s, out);
}

}  // namespace doyen
