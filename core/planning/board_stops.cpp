#include "planning/board_stops.hpp"

#include <algorithm>

#include "planning/further_boards.hpp"
#include "plates/plates.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// More plates or strips than are looked at: making them all takes seconds.
bool too_many(const Job& job) {
  if (!job.plates.there()) return false;
  return (job.plates.strips.wanted ? plate_rows(job.plates).size() : plate_grid(job).sheets) > kMostBoardsLookedAt;
}

}  // namespace

std::vector<Verdict> board_stops(const Plan& plan, const Rack& rack, PlanCache* cache, const Cancel& cancel) {
  std::vector<Verdict> out;
  if (!plan.job.made_as_others() || too_many(plan.job)) return out;
  const Cancel::Scope stops_here(cancel);
  std::vector<FurtherBoard> boards;
  try {
    boards = further_boards(plan.job, rack);
  } catch (const Problem&) {
    return out;  // a verdict of the job says why there are none
  }
  if (boards.size() > kMostBoardsLookedAt) boards.resize(kMostBoardsLookedAt);
  for (const FurtherBoard& board : boards) {
    cancel.check();
    const Plan its = doyen::plan(board.job, rack, machine_for(board.job), cache, cancel);
    const auto stop =
        std::find_if(its.verdicts.begin(), its.verdicts.end(), [](const Verdict& v) { return v.grade == Grade::Stop; });
    if (stop == its.verdicts.end()) continue;
    const auto stops = std::count_if(its.verdicts.begin(), its.verdicts.end(),
                                     [](const Verdict& v) { return v.grade == Grade::Stop; });
    out.push_back(
        {Grade::Stop,
         "board-stops",
         "",
         plan.job.blank.box().centre(),
         say("{0}: {1}", board.folder, stop->text),
         stops > 1 ? say("{0} more stop that board. Look at it among the further boards.", stops - 1) : stop->why,
         {}});
  }
  return out;
}

}  // namespace doyen
