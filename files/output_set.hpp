// What goes to the machine, as one set in one folder: G-code, plan, pictures and run sheet of the board and of every
// further board that its inlays and inserts ask for.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "job/further_board.hpp"
#include "planning/judged.hpp"

namespace doyen {

// A further board of a job with inlays or inserts, and the folder that its files go to.
struct FurtherPlan {
  Plan plan;
  std::string folder;
  FurtherBoard::Kind kind = FurtherBoard::Kind::Plugs;
};
// Those boards planned: before anything is written, so that nothing is written in halves. A stop verdict of one is a
// Problem{BadInput} unless `anyway`. Empty when the job asks for none.
std::vector<FurtherPlan> plan_further(const Job& job, const Rack& rack, bool anyway, const Cancel& cancel = {});

struct OutputOrder {
  bool anyway = false;   // although the judge finds spoilt wood or a broken bit
  bool replace = false;  // whatever stands in the way
  // What the job goes by, the first for the record: its file, or a name of its own while it has none. A set that was
  // written for any of them is this job's own.
  std::vector<std::string> job_keys;
  std::function<void(double)> told = {};  // the share that is done, 0 to 1; may be empty
};
// The key of a job that is saved in this file.
std::string key_of_job_file(const std::string& path);

struct Written {
  std::vector<std::string> names;  // inside the folder; of further boards with their own folder before it
  Judgement judgement;             // of the board itself; of a plate with a list, of all its sheets
  bool spoils = false;             // the judge finds what nobody accepted there: written anyway
};

// Writes the machine's files, plan.json, proof.png (and proof-back.png when something is cut from the back) and
// runsheet.pdf, and the same with board.doyen for each further board into its own folder; takes away what is left of
// this job's last set. All of it or nothing. Throws Problem{CannotWrite}; {BadInput} when the judge finds what nobody
// accepted by name; and {InTheWay} when the folder holds another job's set, or files of those names that Doyen did not
// write or that were changed since: it says which, and touches nothing, unless `replace`. Cancelled comes before the
// first file is touched, or not at all.
Written write_outputs(const Plan& plan, const std::vector<FurtherPlan>& further, const std::string& folder,
                      const OutputOrder& order = {}, const Cancel& cancel = {});

}  // namespace doyen
