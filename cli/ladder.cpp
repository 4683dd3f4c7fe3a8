// ladder: a job of small pairs, each a little tighter.
#include "inlay/ladder.hpp"
#include "cli/command.hpp"
#include "measure/length.hpp"
#include "problem.hpp"

namespace doyen::cli {
namespace {

struct LadderOptions {
  std::string job, piece, step, out;
  LadderSettings settings;
};

int run_ladder(const LadderOptions& options) {
  const std::string& piece = options.piece;
  LadderSettings settings = options.settings;
  if (!options.step.empty()) settings.step = parse_length(options.step, Unit::Millimetre);
  const Job job = load_job(options.job);
  const Item* inlay = nullptr;
  for (const Item& item : job.items) {
    const bool wanted = piece.empty() ? inlay == nullptr : item.piece.id == piece;
    if (wanted && item.cut.kind == Treatment::Kind::Inlay) inlay = &item;
  }
  if (inlay == nullptr)
    throw bad_input(options.job + ": there is no inlay " + (piece.empty() ? "in it." : "“" + piece + "” in it."));
  save_job(ladder_job(job, inlay->cut, load_rack(), settings), options.out);
  return kFine;
}

}  // namespace

Command ladder_command() {
  return {"ladder", "A job of small pairs, each a little tighter, for an inlay's woods and bits", [](Arguments& a) {
            auto o = std::make_shared<LadderOptions>();
            a.text("JOB", o->job, {}, Arguments::Needed);
            a.text("--piece", o->piece, "The inlay's id; the first one without it");
            a.whole("--rungs", o->settings.rungs, 2, 12, "How many pairs");
            a.text("--step", o->step, "From one rung to the next, such as 0.1mm");
            a.text("--out", o->out, "The job file to write", Arguments::Needed);
            return [o] { return run_ladder(*o); };
          }};
}

}  // namespace doyen::cli
