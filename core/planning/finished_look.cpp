#include "planning/finished_look.hpp"

#include "planning/outputs.hpp"
#include "problem.hpp"
#include "relief/rounded_edge.hpp"

namespace doyen {

Region sign_of(const Plan& plan) {
  Region cut_out = plan.finished_shape();
  if (!cut_out.empty()) return cut_out;
  try {
    return region_of(plan.job.blank);
  } catch (const Problem&) {
    return {};
  }
}

void take_off_by_hand(HeightField& field, const Plan& plan) {
  if (plan.job.finish.round_over > 0) round_edge(field, sign_of(plan), plan.job.finish.round_over);
}

HeightField finished_relief_of(const Plan& plan, const Box& area, double cell, const Cancel& cancel, Side side) {
  HeightField field = relief_of(plan, area, cell, cancel, side);
  if (side == Side::Front) take_off_by_hand(field, plan);
  return field;
}

}  // namespace doyen
