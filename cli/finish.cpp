// finish: what comes after the machine: steps, quantities, calendar, hanging, price.
#include <cstdio>
#include <ctime>

#include "cli/command.hpp"
#include "files/hanging_template.hpp"
#include "files/output_set.hpp"
#include "finish/finish_plan.hpp"
#include "finish/hanging.hpp"
#include "finish/price.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {
namespace {

struct FinishOptions {
  std::string job, start, ready, text, calendar, hanging;
};

void write(const std::string& file, const std::string& bytes) {
  write_file_atomically(file, bytes);
  std::printf("Written: %s\n", file.c_str());
}

void say_price(const Plan& plan, const FinishPlan& finish) {
  const Rates rates = load_rates();
  if (!rates.said()) return;
  const Price price = price_of(plan, finish, rates);
  for (const PriceLine& line : price.lines)
    std::printf("%s: %s = %s\n", line.what.c_str(), line.sum.c_str(), money_in_words(line.money, rates).c_str());
  std::printf("each %s, with tax %s; one more %s\n", money_in_words(price.each, rates).c_str(),
              money_in_words(price.with_tax(), rates).c_str(), money_in_words(price.one_more, rates).c_str());
}

int run_finish(const FinishOptions& options) {
  if (!options.start.empty() && !options.ready.empty()) throw Usage("--start and --ready exclude each other.");
  const Plan plan = plan_of(load_job(options.job));
  const FinishFigures figures = finish_figures(plan);
  const FinishPlan finish = finish_plan(plan, figures, load_products());
  std::vector<Appointment> when;
  const ShopDay day = load_shop_day();
  if (!options.start.empty()) when = schedule(finish.steps, parse_time(options.start), day);
  if (!options.ready.empty())
    when = schedule(finish.steps, start_for(finish.steps, parse_time(options.ready), day), day);
  const std::string text = finish_text(finish, plan.job.name, when);
  if (finish.steps.empty()) std::printf("The job says no finish yet (finish.school).\n");
  if (options.text.empty() && !finish.steps.empty()) std::fputs(text.c_str(), stdout);
  if (!options.text.empty()) write(options.text, text);
  if (!options.calendar.empty()) {
    if (when.empty()) throw Usage("--calendar needs --start or --ready.");
    const auto now = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
    write(options.calendar, calendar_file(finish, when, plan.job.name, key_of_job_file(options.job), now));
  }
  try {
    const Hanging hanging = hanging_of(plan, figures);
    for (const std::string& line : hanging_in_words(plan, hanging)) std::printf("%s\n", line.c_str());
    if (!options.hanging.empty()) write(options.hanging, hanging_template_pdf(plan, hanging));
  } catch (const Problem& problem) {
    if (!options.hanging.empty() || problem.kind() == Problem::Kind::CannotWrite) throw;
    std::printf("%s\n", problem.what());
  }
  say_price(plan, finish);
  return kFine;
}

}  // namespace

Command finish_command() {
  return {"finish", "What comes after the machine: coats and waits, quantities, hanging, price", [](Arguments& a) {
            auto o = std::make_shared<FinishOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--start", o->start, "When the first step is begun, such as 2026-11-28 or “2026-11-28 14:30”");
            a.text("--ready", o->ready, "By when it shall be ready");
            a.text("--text", o->text, "The plan as a text file");
            a.text("--calendar", o->calendar, "The same for a calendar (iCalendar)");
            a.text("--hanging", o->hanging, "The drill template for the wall, as PDF");
            return [o] { return run_finish(*o); };
          }};
}

}  // namespace doyen::cli
