// Ways to cut the same thing, side by side: each is planned for real as the whole job would be, and nothing of the job
// changes until one is taken.
#pragma once

#include <functional>
#include <string>
#include <utility>
#include <vector>

#include "planning/plan.hpp"

namespace doyen {

struct Way {
  std::string words;               // what it does, such as “1/4 in flat first, then 1/8 in flat”
  std::function<void(Job&)> take;  // pure change of the job; empty for the way it is cut now
  // What it comes to, once it has been worked out:
  bool known = false;
  double seconds = 0;                                  // the whole job at the machine
  int bit_changes = 0;                                 // in the whole job
  std::vector<std::pair<std::string, double>> bits{};  // names and seconds, in run order
  double unreached = 0;                                // mm² of the pieces it is about that no bit reaches
  int stops = 0, minds = 0;                            // verdicts of the whole job, without the judge's
  bool comes_free = false;                             // something comes loose before the cut ends
  bool best_time = false, best_quality = false, fewest_changes = false;
  bool another_board = false;             // thinner or smaller: another sign, so none of the three
  std::vector<Region> unreached_where{};  // as seen from the front
  [[nodiscard]] bool as_it_is() const { return !take; }
};

// Two to five ways for the piece, and for all that are cut just like it; with an empty id for the whole job. The first
// is the way it is cut now. Empty where there is no other. The figures are left out: work_out() fills them in.
std::vector<Way> ways_of(const Plan& plan, const Rack& rack, const std::string& piece);

// How many pieces a piece's ways are about: itself and those cut just like it.
std::vector<std::string> cut_alike(const Job& job, const std::string& piece);

// Plans the job as this way would have it. Throws Cancelled.
void work_out(Way& way, const Plan& plan, const Rack& rack, const std::string& piece, PlanCache* cache = nullptr,
              const Cancel& cancel = {});

// Says which of the known ways is the quickest (to 1 s), the cleanest (nothing comes free, then the least unreached to
// 1 mm², then the fewest warnings) and the one with the fewest bit changes. One with more stops than another is none of
// them, and where all are alike nothing is marked.
void mark_best(std::vector<Way>& ways);

}  // namespace doyen
