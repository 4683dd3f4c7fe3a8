// plan(job, rack, machine) -> Plan: a pure function, remembered piece by piece.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "planning/piece_plan.hpp"
#include "planning/plan_cache.hpp"
#include "planning/runs.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {

struct Plan {
  Job job;  // as it was planned
  MachineProfile machine;
  Rack rack;                                             // as it was planned with, with the job's own feeds
  std::vector<std::shared_ptr<const PiecePlan>> pieces;  // along job.items
  std::vector<BitRun> runs;
  std::vector<Verdict> verdicts;
  double seconds = 0;       // all of it: cutting, travel, spin-ups, bit changes
  double own_seconds = 0;   // the same in Doyen's own order; equal unless the user wished another
  int own_bit_changes = 0;  // in that order

  [[nodiscard]] bool has_back() const;           // some run cuts the back
  [[nodiscard]] bool has_later() const;          // some run waits until inlays are glued
  [[nodiscard]] double cutting_seconds() const;  // of `seconds`, all but what is done by hand between the runs
  [[nodiscard]] int bit_changes() const { return changes_in(runs); }
  [[nodiscard]] Region finished_shape() const;  // of all that is cut out; empty where nothing is
  [[nodiscard]] bool has_stop() const;
  [[nodiscard]] int count(Grade grade) const;
  [[nodiscard]] const PiecePlan* piece(const std::string& id) const;
};

// A job whose pieces are set, with what lies round each; nothing of them is cut yet.
struct SetJob {
  Plan plan;                         // its pieces have outlines alone, and it has no runs and no verdicts
  std::vector<Surroundings> around;  // along plan.job.items
};

// Both may be empty; they are called from the planning thread.
struct Progress {
  std::function<void(int done, int of)> tell;
  std::function<void(SetJob set)> set{};  // before the pieces are cut, where any has to be cut anew
};

// Throws only Cancelled; everything else that is wrong with a job becomes a verdict.
Plan plan(const Job& job, const Rack& rack, const MachineProfile& machine, PlanCache* cache = nullptr,
          const Cancel& cancel = {}, const Progress& progress = {});

// The rack as this job uses it: with the job's own feeds for its wood.
Rack rack_for(const Job& job, const Rack& rack);

// The job's machine from the table, or the table's first when it is not known.
const MachineProfile& machine_for(const Job& job);

}  // namespace doyen
