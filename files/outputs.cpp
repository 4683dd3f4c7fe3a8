#include "files/outputs.hpp"

#include <algorithm>

#include "files/png_write.hpp"
#include "files/run_sheet.hpp"
#include "finish/finish_paint.hpp"
#include "planning/finished_look.hpp"
#include "planning/look_round.hpp"

namespace doyen {
namespace {

using Files = std::vector<SetFile>;

Files gcode(OutputSource& of) {
  Files files;
  for (const OutputFile& file : of.gcode) files.push_back({file.name, file.text});
  return files;
}
Files look_round(OutputSource& of) {
  Files files;
  for (const OutputFile& file : look_round_files(of.plan)) files.push_back({file.name, file.text});
  return files;
}
Files proof(OutputSource& of) { return {{"proof.png", png_bytes(of.picture(Side::Front))}}; }
Files proof_of_the_back(OutputSource& of) {
  if (!of.plan.has_back()) return {};
  return {{"proof-back.png", png_bytes(of.picture(Side::Back))}};
}
Files run_sheet(OutputSource& of) {
  const Picture* back = of.plan.has_back() ? &of.picture(Side::Back) : nullptr;
  return {{"runsheet.pdf", run_sheet_pdf(of.plan, of.picture(Side::Front), of.judgement, back)}};
}

}  // namespace

const std::vector<Output>& outputs() {
  static const std::vector<Output> all{gcode, look_round, proof, proof_of_the_back, run_sheet};
  return all;
}

const Picture& OutputSource::picture(Side side) {
  std::optional<Picture>& made = pictures_[side == Side::Back ? 1 : 0];
  if (!made) made = board_picture(plan, 1400, side, cancel);
  return *made;
}

Picture finished_picture(const Plan& plan, double pixels_wide, const Cancel& cancel) {
  const Box box = plan.job.blank.box();
  const double cell = std::max(box.width(), box.height()) / pixels_wide / 2;
  HeightField front = relief_of(plan, box, cell, cancel);
  const FinishPaint finish = finish_paint(plan, front);
  take_off_by_hand(front, plan);
  return lit_picture(front, wood_look(plan.job.blank), 2, cancel, finish.paint);
}

Picture board_picture(const Plan& plan, double pixels_wide, Side side, const Cancel& cancel) {
  const Box box = plan.job.blank.box();
  const double cell = std::max(box.width(), box.height()) / pixels_wide / 2;
  return lit_picture(finished_relief_of(plan, box, cell, cancel, side), wood_look(plan.job.blank), 2, cancel);
}

}  // namespace doyen
