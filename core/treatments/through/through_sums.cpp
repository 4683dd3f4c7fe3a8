#include "treatments/through/through_sums.hpp"

#include <algorithm>

#include "planning/figures.hpp"
#include "wording/say.hpp"

namespace doyen {

using namespace sums;

Sum through_sum(const Plan& plan, const std::string& id) {
  const Item* item = plan.job.find(id);
  if (item == nullptr) return {};
  const Blank& blank = plan.job.blank;
  const Figures f(plan.job.lengths);
  const double over = item->cut.through.over_cut.value_or(default_over_cut(blank));
  Sum sum;
  sum.title = say("How {0} comes about", f.with_unit(blank.thickest() + over));
  sum.page = "why-through.md";
  std::string readings;
  for (const double r : blank.readings) readings += (readings.empty() ? "" : ", ") + f(r);
  sum.lines.push_back(say("thickest of the readings {0}: {1}", readings, f(blank.thickest())));
  sum.lines.push_back(say("plus the over-cut of {0}", f(over)));
  sum.result = say("= {0} below {1}", f.with_unit(blank.thickest() + over), side_of(*item));
  return sum;
}

Sum bed_sum(const Plan& plan, const std::string& id) {
  const Item* item = plan.job.find(id);
  if (item == nullptr) return {};
  const Blank& blank = plan.job.blank;
  const Figures f(plan.job.lengths);
  const double over = item->cut.through.over_cut.value_or(default_over_cut(blank));
  Sum sum;
  sum.title = say("How far the bed is marked");
  sum.page = "why-through.md";
  sum.lines.push_back(
      say("over-cut {0} + (thickest {1} − thinnest {2})", f(over), f(blank.thickest()), f(blank.thinnest())));
  sum.result = say("up to {0}", f.with_unit(over + blank.thickest() - blank.thinnest()));
  return sum;
}

}  // namespace doyen
