// plan: G-code, plan, picture and run sheet into a folder.
#include <cstdio>

#include "cli/command.hpp"
#include "files/output_set.hpp"
#include "inlay/riding.hpp"
#include "machine/timings.hpp"
#include "measure/length.hpp"
#include "planning/judged.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct PlanOptions {
  std::string job, out, unit;
  bool one_file = false, anyway = false, replace = false;
};

void say_runs(const Plan& plan, const std::string& folder) {
  for (const BitRun& run : plan.runs) {
    std::printf("%s%s: %s, deepest %s, feed reached %s of %s mm/min\n", folder.c_str(), run.file.c_str(),
                format_duration(run.time.seconds).c_str(), depth_in_words(run.deepest, plan.job.lengths).c_str(),
                format_number(run.time.reached_feed(), 0).c_str(), format_number(run.feeds.feed, 0).c_str());
  }
}

// Of what is cut: the board, or where it is a pattern for others, those.
void say_times(const Plan& plan, const std::vector<FurtherPlan>& further, const Judgement& judgement) {
  double seconds = plan.seconds, cutting = plan.cutting_seconds();
  if (plan.job.made_as_others()) {
    seconds = cutting = 0;
    for (const FurtherPlan& board : further) {
      say_runs(board.plan, board.folder + "/");
      seconds += board.plan.seconds;
      cutting += board.plan.cutting_seconds();
    }
  } else {
    say_runs(plan, "");
  }
  std::printf("in all %s, %s; read back and carved: %s\n", format_duration(seconds).c_str(),
              likely_in_words(cutting, plan.machine.id, seconds - cutting).c_str(),
              judged_in_words(judgement, plan.job.lengths).c_str());
}

int run_plan(const PlanOptions& options) {
  Job job = load_job(options.job);
  job.run.one_file = job.run.one_file || options.one_file;
  say_unused(job);
  Plan p = plan_of(job, options.unit);
  for (Verdict& v : riding_inlays(p, load_rack())) p.verdicts.push_back(std::move(v));
  sort_by_grade(p.verdicts);
  say_verdicts(p);
  if (p.has_stop() && !options.anyway) {
    std::fprintf(
        stderr,
        "Nothing was written: %d thing%s would spoil wood, break a bit or be unsafe. Mend it, or add --anyway.\n",
        p.count(Grade::Stop), p.count(Grade::Stop) == 1 ? "" : "s");
    return kStop;
  }
  const std::vector<FurtherPlan> further = plan_further(job, load_rack(), options.anyway);
  Written written;
  try {
    written = write_outputs(p, further, options.out, {options.anyway, options.replace, {key_of_job_file(options.job)}});
  } catch (const Problem& problem) {
    if (problem.kind() != Problem::Kind::InTheWay) throw;
    throw in_the_way(std::string(problem.what()) + " Name another folder, or add --replace.");
  }
  for (const std::string& name : written.names) std::printf("wrote %s/%s\n", options.out.c_str(), name.c_str());
  say_times(p, further, written.judgement);
  return p.has_stop() || written.spoils ? kStop : kFine;
}

}  // namespace

Command plan_command() {
  return {"plan", "Write G-code, plan.json, proof.png and runsheet.pdf", [](Arguments& a) {
            auto o = std::make_shared<PlanOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--out", o->out, "Folder for the files", Arguments::Needed);
            a.one_of("--unit", o->unit, {"mm", "in"}, "mm or in, for the G-code");
            a.flag("--one-file", o->one_file, "One file with pauses instead of one per bit");
            a.flag("--anyway", o->anyway, "Write although a stop verdict stands");
            a.flag("--replace", o->replace, "Replace files of another job, or that were changed, in that folder");
            return [o] { return run_plan(*o); };
          }};
}

}  // namespace doyen::cli
