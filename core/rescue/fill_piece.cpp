// What was cut wrongly is filled with wood: a plug or an insert of the board's own kind, cut from a scrap.
#include <algorithm>

#include "inlay/plugs.hpp"
#include "log/entry_of.hpp"
#include "problem.hpp"
#include "rescue/places.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;
using rescuing::Place;

constexpr double kTight = 0.05;  // mm round a fill piece, for glue
constexpr double kProud = 1;     // mm that it stands above the face, to be planed off
constexpr double kGlue = 0.6;    // mm that stay under a sloped one
constexpr double kLeastContact = 0.3;

// An inlay's own plug again, put right by what was seen of it.
void put_right(Inlay& inlay, double depth, const Bit* flank, const std::vector<MishapSeen>& mishaps) {
  double& fit = inlay.sloped ? inlay.contact : inlay.allowance;
  for (const MishapSeen& seen : mishaps) {
    if (seen.mm <= 0) continue;
    if (seen.mishap == Mishap::InlayTight) fit += seen.mm;
    if (seen.mishap == Mishap::InlayGap && flank != nullptr)
      fit -= inlay.sloped ? seen.mm / flank->tan_half() : seen.mm;
  }
  const double most = inlay.sloped ? depth - kLeastContact : 1;
  fit = std::clamp(fit, inlay.sloped ? kLeastContact : 0.0, std::max(kLeastContact, most));
}

// The treatment whose other half fills what this one carved. Throws Problem{BadInput} where none does.
Treatment filled_by(const Plan& plan, const Place& place, const std::vector<MishapSeen>& mishaps) {
  const Treatment& was = place.item->cut;
  const PieceCuts& cuts = rescuing::plan_of_piece(plan, place.item->piece.id).cuts;
  const double depth = goes_through(was.kind) ? plan.job.blank.thickest() : cuts.deepest - cuts.ground;
  Treatment cut = was;
  cut.resin = false;
  if (was.kind == Kind::Inlay) {
    put_right(cut.inlay, was.depth, plan.rack.find(flank_bit(was)), mishaps);
    return cut;
  }
  if (was.kind == Kind::Incise && !was.back) {
    cut.kind = Kind::Inlay;
    cut.depth = depth;
    cut.inlay = {};
    cut.inlay.contact = depth > 2 * kGlue ? depth - kGlue : depth / 2;
    cut.inlay.v_alone = was.clearing.empty();
    cut.inlay.wood = plan.job.blank.species;
    return cut;
  }
  if (was.kind == Kind::Pierce || was.kind == Kind::Recess) {
    cut.kind = Kind::Recess;
    cut.depth = depth;
    cut.insert = {};
    cut.insert.thickness = depth + kProud;
    cut.insert.clearance = kTight;
    cut.insert.cut = true;
    cut.insert.material = plan.job.blank.species;
    if (cut.clearing.empty() && !was.bit.empty()) cut.clearing = {was.bit};
    return cut;
  }
  throw bad_input(
      say("A fill piece goes into grooves, recesses, openings and inlays, and “{0}” is none: make a patch, "
          "or plane the face.",
          place.name));
}

}  // namespace

Job fill_piece_for(const Plan& plan, const CutAnew& anew, const std::vector<MishapSeen>& mishaps) {
  const std::vector<Place> places = rescuing::places_of(plan, anew);
  Job carries = plan.job;
  carries.items.clear();
  for (const Place& place : places) {
    if (place.region.empty()) throw bad_input(say("“{0}” has no outlines to fill.", place.name));
    carries.items.push_back(
        {rescuing::as_it_lies(carries.fresh_id("fill"), place), filled_by(plan, place, mishaps), {}});
  }
  std::vector<FurtherBoard> boards = plug_boards(carries);
  for (FurtherBoard& board : insert_boards(carries, plan.rack)) boards.push_back(std::move(board));
  if (boards.empty()) throw bad_input(say("Nothing stays of it when it is made to fit: fill it with dust and glue."));
  if (boards.size() > 1)
    throw bad_input(say("These need boards of {0} kinds: choose pieces of one depth and one wood.", boards.size()));
  Job job = std::move(boards.front().job);
  job.name = say("{0}, fill piece", plan.job.name);
  return job;
}

}  // namespace doyen
