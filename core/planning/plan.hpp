// plan(job, rack, machine) -> Plan: a pure function, remembered piece by piece.
#pragma once

#include <memory>
#include <mutex>
#include <string>
#include <unordered_map>
#include <vector>

#include "cancel.hpp"
#include "job/job.hpp"
#include "machine/motion.hpp"
#include "rack/own_rack.hpp"
#include "treatments/piece_cuts.hpp"
#include "verdicts/verdict.hpp"

namespace doyen {

struct PiecePlan {
  Outlines outlines;
  Surroundings around;
  PieceCuts cuts;
  std::string problem;    // why the piece could not be set; empty when all is well
  std::uint64_t key = 0;  // changes with anything that went into it
};

// One bit's stay in the spindle.
struct BitRun {
  Bit bit;
  Feeds feeds;
  std::vector<const Operation*> operations;  // owned by the plan's pieces
  RunTime time;
  double deepest = 0;  // mm below the face of its side, positive
  std::string file;    // NN-<bit>.nc, NN-back-<bit>.nc, NN-glued-<bit>.nc, or one name for all of a side
  Side side = Side::Front;
  bool later = false;  // of the second run, when the inlays are glued and level
};

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

  [[nodiscard]] bool has_back() const;   // some run cuts the back
  [[nodiscard]] bool has_later() const;  // some run waits until inlays are glued
  [[nodiscard]] int bit_changes() const { return runs.empty() ? 0 : static_cast<int>(runs.size()) - 1; }
  [[nodiscard]] bool has_stop() const;
  [[nodiscard]] int count(Grade grade) const;
  [[nodiscard]] const PiecePlan* piece(const std::string& id) const;
};

// Remembers worked-out pieces by what went into them, so that an edit works out again only what it touched: by a key of
// the piece and its board, and by what was asked of the rack on the way. May be shared between threads.
class PlanCache {
 public:
  std::shared_ptr<const PiecePlan> find(const std::string& key, const Rack& rack);
  void keep(const std::string& key, AskedRack::Asked asked, std::shared_ptr<const PiecePlan> plan);

 private:
  struct Kept {
    AskedRack::Asked asked;
    std::shared_ptr<const PiecePlan> plan;
  };
  std::mutex lock_;
  std::unordered_map<std::string, std::vector<Kept>> kept_;
  std::vector<std::string> order_;
};

struct Progress {
  std::function<void(int done, int of)> tell;  // may be empty; called from the planning thread
};

// Throws only Problem{Cancelled}; everything else that is wrong with a job becomes a verdict.
Plan plan(const Job& job, const Rack& rack, const MachineProfile& machine, PlanCache* cache = nullptr,
          const Cancel& cancel = {}, const Progress& progress = {});

// How far above the nominal face, z = 0, wood or film may stand somewhere: readings that differ, cupping, film. mm.
double highest_wood(const Job& job, Side side);

// Which height the bit travels at on this side of this board (RunSettings::low_travel, clamps and screws).
Travel travel_of(const Job& job, const MachineProfile& machine, Side side);

// The rack as this job uses it: with the job's own feeds for its wood.
Rack rack_for(const Job& job, const Rack& rack);

// The job's machine from the table, or the table's first when it is not known.
const MachineProfile& machine_for(const Job& job);

}  // namespace doyen
