// check: what would go wrong.
#include <cstdio>

#include "cli/command.hpp"
#include "inlay/riding.hpp"
#include "json_reading.hpp"
#include "planning/judged.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct CheckOptions {
  std::string job;
  bool as_json = false;
};

int run_check(const CheckOptions& options) {
  const Job job = load_job(options.job);
  say_unused(job);
  Plan p = plan_of(job);
  Json judge;
  try {
    if (!p.runs.empty()) {
      const Judgement judgement = judge_files(p, gcode_files(p), writing_cell(p.job.blank));
      add_judgement(p, judgement);
      judge = judgement_json(judgement);
      if (!options.as_json) std::printf("%s\n", judged_in_words(judgement, p.job.lengths).c_str());
    }
  } catch (const Problem&) {  // what keeps files from being written is among the verdicts
    if (!p.has_stop()) throw;
  }
  p.verdicts = with_tried_remedies(p, load_rack());
  for (Verdict& v : riding_inlays(p, load_rack())) p.verdicts.push_back(std::move(v));
  sort_by_grade(p.verdicts);
  if (options.as_json)
    std::printf("%s\n", Json{{"verdicts", plan_json(p)["verdicts"]}, {"judge", judge}}.dump(1).c_str());
  else
    say_verdicts(p);
  return p.has_stop() ? kStop : kFine;
}

}  // namespace

Command check_command() {
  return {"check", "Say what would go wrong", [](Arguments& a) {
            auto o = std::make_shared<CheckOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.flag("--json", o->as_json);
            return [o] { return run_check(*o); };
          }};
}

}  // namespace doyen::cli
