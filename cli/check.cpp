// check: what would go wrong.
#include <cstdio>

#include "cli/command.hpp"
#include "inlay/riding.hpp"
#include "json_reading.hpp"
#include "planning/further_boards.hpp"
#include "planning/judged.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct CheckOptions {
  std::string job;
  bool as_json = false;
};

// The plan with all that is found of it, and what the judge says, as data.
Json looked_at(Plan& p, bool as_json) {
  Json judge;
  try {
    if (!p.runs.empty() && !p.job.made_as_parts()) {
      const Judgement judgement = judge_files(p, gcode_files(p), writing_cell(p.job.blank));
      add_judgement(p, judgement);
      judge = judgement_json(judgement);
      if (!as_json) std::printf("%s\n", judged_in_words(judgement, p.job.lengths).c_str());
    }
  } catch (const Problem&) {  // what keeps files from being written is among the verdicts
    if (!p.has_stop()) throw;
  }
  p.verdicts = with_tried_remedies(p, load_rack());
  for (Verdict& v : riding_inlays(p, load_rack())) p.verdicts.push_back(std::move(v));
  sort_by_grade(p.verdicts);
  if (!as_json) say_verdicts(p);
  return {{"verdicts", plan_json(p)["verdicts"]}, {"judge", judge}};
}

int run_check(const CheckOptions& options) {
  const Job job = load_job(options.job);
  say_unused(job);
  Plan p = plan_of(job);
  Json said = looked_at(p, options.as_json);
  bool stops = p.has_stop();
  if (job.made_as_parts()) {  // what is cut are the boards that its parts lie on
    for (const FurtherBoard& board : further_boards(job, load_rack())) {
      if (!options.as_json) std::printf("%s: ", board.folder.c_str());
      Plan its = plan_of(board.job);
      Json its_said = looked_at(its, options.as_json);
      its_said["folder"] = board.folder;
      said["boards"].push_back(std::move(its_said));
      stops = stops || its.has_stop();
    }
  }
  if (options.as_json) std::printf("%s\n", said.dump(1).c_str());
  return stops ? kStop : kFine;
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
