// The run sheet: the paper taken to the machine. Large, plain, complete.
#pragma once

#include <string>

#include "planning/judged.hpp"
#include "relief/picture.hpp"

namespace doyen {

// A PDF of one or two A4 pages. `judgement` says what the written files do to the wood. Lengths in the job's unit.
std::string run_sheet_pdf(const Plan& plan, const Picture& board, const Judgement& judgement);

// The plan's files, the picture and the sheet, written into a folder: NN-<bit>.nc, plan.json, proof.png (and
// proof-back.png when something is cut from the back), runsheet.pdf.
struct Written {
  std::vector<std::string> names;
  Judgement judgement;
};
// Throws Problem{CannotWrite} or {BadInput}; the folder is made when it is missing. What the judge finds to spoil wood
// or break a bit, and nobody accepted by name, is a Problem{BadInput} and nothing is written, unless `anyway`.
Written write_outputs(const Plan& plan, const std::string& folder, bool anyway = false, const Cancel& cancel = {});

// A further board of a job with inlays or inserts, and the folder that its files go to.
struct FurtherPlan {
  Plan plan;
  std::string folder;
};
// Those boards planned: before anything is written, so that nothing is written in halves. A stop verdict of one is a
// Problem{BadInput} unless `anyway`. Empty when the job asks for none.
std::vector<FurtherPlan> plan_further(const Job& job, const Rack& rack, bool anyway, const Cancel& cancel = {});
// Each into its folder inside `folder`, with the job itself as board.doyen. Returns what was written, those folders
// before the names. Throws as write_outputs().
std::vector<std::string> write_further(const std::vector<FurtherPlan>& boards, const std::string& folder,
                                       bool anyway = false, const Cancel& cancel = {});

// The whole board at most this many pixels wide.
Picture board_picture(const Plan& plan, double pixels_wide, Side side = Side::Front, const Cancel& cancel = {});

}  // namespace doyen
