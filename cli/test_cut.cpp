// testcut: a job's hardest strokes, small, in the same wood.
#include "planning/test_cut.hpp"

#include "cli/command.hpp"

namespace doyen::cli {
namespace {

struct TestcutOptions {
  std::string job, out;
};

int run_testcut(const TestcutOptions& options) {
  const Job job = load_job(options.job);
  save_job(test_cut_job(plan(job, load_rack(), machine_for(job))), options.out);
  return kFine;
}

}  // namespace

Command testcut_command() {
  return {"testcut", "A job of the narrowest and widest stroke, a corner and the tightest gap, to be cut first",
          [](Arguments& a) {
            auto o = std::make_shared<TestcutOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--out", o->out, "The job file to write", Arguments::Needed);
            return [o] { return run_testcut(*o); };
          }};
}

}  // namespace doyen::cli
