// again: a file to go on with, after a run was stopped or did not come through.
#include "planning/again.hpp"

#include <algorithm>
#include <cstdio>

#include "cli/command.hpp"
#include "storage/atomic_file.hpp"

namespace doyen::cli {
namespace {

struct AgainOptions {
  std::string job, out, deeper;
  int file = 1, from = 0;  // from 1; 0: not said
  double minutes = -1;     // not said
};

int run_again(const AgainOptions& options) {
  if ((options.from > 0) + (options.minutes >= 0) + !options.deeper.empty() != 1)
    throw Usage("One of --from, --after and --deeper was expected.");
  const Job job = load_job(options.job);
  const Plan planned = plan_of(job);
  const auto run = static_cast<std::size_t>(options.file) - 1;
  OutputFile file;
  if (!options.deeper.empty()) {
    file = again_deeper(planned, run, parse_length(options.deeper, job.lengths.unit));
  } else {
    auto first = static_cast<std::size_t>(std::max(1, options.from) - 1);
    if (options.minutes >= 0 && run < planned.runs.size()) {
      const std::size_t at = pass_at(planned, planned.runs[run], 60 * options.minutes);
      first = at > 0 ? at - 1 : 0;  // said roughly: a stretch earlier
    }
    file = again_from(planned, run, first);
  }
  write_file_atomically(options.out, file.text);
  std::printf("wrote %s (%s)\n", options.out.c_str(), file.name.c_str());
  return kFine;
}

}  // namespace

Command again_command() {
  return {"again", "The rest of a file after a stop, or what goes through once more and deeper", [](Arguments& a) {
            auto o = std::make_shared<AgainOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.whole("--file", o->file, 1, 1000, "Which of its files, from 1");
            a.whole("--from", o->from, 1, 10'000'000, "From this stretch on, from 1");
            a.number("--after", o->minutes, 0, 100'000,
                     "From what it had reached after so many minutes, and a stretch before it");
            a.text("--deeper", o->deeper, "Only what goes through, its last round, so much deeper, such as 0.3mm");
            a.text("--out", o->out, "The file to write", Arguments::Needed);
            return [o] { return run_again(*o); };
          }};
}

}  // namespace doyen::cli
