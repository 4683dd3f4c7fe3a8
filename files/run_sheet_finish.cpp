#include "files/run_sheet_finish.hpp"

#include "finish/finish_plan.hpp"
#include "problem.hpp"
#include "wording/say.hpp"

namespace doyen {

void finish_steps(Paper& sheet, const Plan& plan) {
  if (plan.job.finish.school == FinishSchool::None) return;
  ProductTable products;
  try {
    products = load_products();
  } catch (const Problem& problem) {
    sheet.paragraph(problem.what(), 10, false, kBrick);
    return;
  }
  const FinishPlan finish = finish_plan(plan, finish_figures(plan), products);
  sheet.need(120);
  sheet.rule();
  sheet.paragraph(say("Before and after the machine"), 12, true, kPlum, 1);
  for (const FinishStep& step : finish.steps) {
    sheet.need(30);
    std::string words = "☐  " + step.words + " (" + format_duration(step.minutes * 60);
    if (!step.tools.empty()) words += "; " + step.tools;
    words += ")";
    if (step.wait > 0) words += " " + say("then wait {0} h", format_number(step.wait, 1));
    sheet.paragraph(words, 10, step.when == FinishStep::When::Run, kInk, step.caution.empty() ? 2 : 0);
    if (!step.caution.empty()) sheet.paragraph(step.caution, 9, false, kBrick, 3);
  }
  for (const FinishQuantity& quantity : finish.quantities) sheet.paragraph(quantity.words, 10, false, kFaded, 1);
  for (const std::string& warning : finish.warnings) sheet.paragraph(warning, 10, true, kBrick, 1);
}

}  // namespace doyen
