// A plan's runs: which bit cuts what, in which order, how long it takes, and how high it travels.
#pragma once

#include <string>
#include <vector>

#include "job/job.hpp"
#include "machine/motion.hpp"
#include "treatments/piece_cuts.hpp"

namespace doyen {

struct Plan;

// One bit's stay in the spindle.
struct BitRun {
  Bit bit;
  Feeds feeds;
  std::vector<const Operation*> operations;  // owned by the plan's pieces
  RunTime time;
  double deepest = 0;  // mm below the face of its side, positive
  std::string file;    // planning/file_names.hpp
  Side side = Side::Front;
  bool later = false;  // of the second run, when the inlays are glued and level
  int screws = 0;      // holes that screws go into, by hand, before the next file is begun (holding/screws.hpp)
};

std::size_t pass_count(const BitRun& run);  // over all its operations

// How often another bit is put in: the same one before screws go in, or the board is turned, and after it stays.
int changes_in(const std::vector<BitRun>& runs);

// Fills in the plan's runs and times from its pieces: in the order the user wished, and what Doyen's own would take.
void make_runs(Plan& plan);

// How far above the nominal face, z = 0, wood or film may stand somewhere: readings that differ, cupping, film. mm.
double highest_wood(const Job& job, Side side);

// Which height the bit travels at on this side of this board (RunSettings::low_travel, clamps and screws).
Travel travel_of(const Job& job, const MachineProfile& machine, Side side);

}  // namespace doyen
