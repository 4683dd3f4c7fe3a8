#include "planning/look_round.hpp"

#include <algorithm>

#include "planning/file_names.hpp"
#include "run/gcode.hpp"

namespace doyen {
namespace {

void join(Reach& all, const Reach& one) {
  all.middle.add(one.middle);
  all.body.add(one.body);
  all.lowest = std::min(all.lowest, one.lowest);
  all.highest = std::max(all.highest, one.highest);
}

}  // namespace

std::optional<Reach> reach_of(const Plan& plan, const BitRun& run) {
  const Placement lies = placement_of(plan.job, plan.machine, run.side);
  Reach reach;
  reach.lowest = 1e300;
  for (const Operation* op : run.operations) {
    for (const Pass& pass : op->passes) {
      for (const Point3& p : pass.points) {
        const Point3 at = lies.at_machine(p);
        reach.middle.add(at.flat());
        reach.lowest = std::min(reach.lowest, at.z);
      }
    }
  }
  if (reach.middle.empty()) return {};
  reach.body = reach.middle.grown(run.bit.true_diameter() / 2);
  reach.highest = std::max(travel_of(plan.job, plan.machine, run.side).highest(), plan.machine.clearance) + lies.z;
  return reach;
}

std::optional<Reach> reach_of(const Plan& plan, Side side) {
  std::optional<Reach> all;
  for (const BitRun& run : plan.runs) {
    if (run.side != side) continue;
    const std::optional<Reach> one = reach_of(plan, run);
    if (one && all)
      join(*all, *one);
    else if (one)
      all = one;
  }
  return all;
}

std::vector<OutputFile> look_round_files(const Plan& plan) {
  std::vector<OutputFile> files;
  if (!plan.job.run.look_round) return files;
  for (const Side side : {Side::Front, Side::Back}) {
    const std::optional<Reach> reach = reach_of(plan, side);
    if (!reach) continue;
    const std::string name = look_round_name(plan.job.name, side, plan.machine.file_ending);
    files.push_back({name, write_look_round({plan.job.name + (side == Side::Back ? ", back" : "") + ", a look round",
                                             zero_in_words(plan.job, side), reach->body, reach->highest},
                                            plan.machine)});
  }
  return files;
}

}  // namespace doyen
