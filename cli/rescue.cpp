// rescue: what can be done with a spoiled board, as a job of its own on the same board and zero.
#include <cstdio>

#include "cli/command.hpp"
#include "measure/length.hpp"
#include "problem.hpp"
#include "rescue/rescue.hpp"

namespace doyen::cli {
namespace {

struct RescueOptions {
  std::string job, how, planed, out;
  std::vector<std::string> pieces;
  int part = 0;  // counted from 1; 0: all of the piece
};

Job mended(const Plan& plan, const RescueOptions& o) {
  CutAnew anew{o.pieces, {}};
  if (o.part > 0) anew.part = static_cast<std::size_t>(o.part - 1);
  if (o.how == "only") return only_these(plan, anew);
  if (o.how == "patch") return patch_for(plan, anew);
  if (o.how == "fill") return fill_piece_for(plan, anew);
  if (o.how == "smaller") return within_margin(plan);
  if (o.how == "moved") return moved_within(plan);
  return planed(plan.job, o.planed.empty() ? kUsuallyPlaned : parse_length(o.planed, plan.job.lengths.unit));
}

int run_rescue(const RescueOptions& o) {
  if (o.part > 0 && o.pieces.size() != 1) throw Usage("--part needs one --piece.");
  const Plan plan = plan_of(load_job(o.job));
  if (o.out.empty()) {
    for (const std::string& id : o.pieces) {
      const std::vector<PartOfPiece> parts = parts_of_piece(plan, id);
      std::printf("%s: %zu parts\n", id.c_str(), parts.size());
      for (const PartOfPiece& part : parts) std::printf("  %s\n", part.name.c_str());
    }
    return kFine;
  }
  const Job job = mended(plan, o);
  save_job(job, o.out);
  std::printf("Written: %s\n", o.out.c_str());
  const Plan p = plan_of(job);
  say_verdicts(p);
  return p.has_stop() ? kStop : kFine;
}

}  // namespace

Command rescue_command() {
  return {
      "rescue",
      "A job that mends a spoiled board: cut only these again, a recess and its patch, a piece that fills it, planed, "
      "smaller, moved",
      [](Arguments& a) {
        auto o = std::make_shared<RescueOptions>();
        o->how = "only";
        a.text("JOB", o->job, {}, Arguments::Needed);
        a.one_of("--how", o->how, {"only", "patch", "fill", "planed", "smaller", "moved"},
                 "What is done; only: cut these again");
        a.texts("--piece", o->pieces, "The id of a piece it is about");
        a.whole("--part", o->part, 1, 100'000, "Of the one piece only this part, such as its 3rd letter");
        a.text("--off", o->planed, "How much is planed off the face; 1.5 mm without it");
        a.text("--out", o->out, "The job file; without it the pieces' parts are told");
        return [o] { return run_rescue(*o); };
      }};
}

}  // namespace doyen::cli
