#include "planning/again.hpp"

#include <algorithm>
#include <list>

#include "problem.hpp"
#include "run/gcode.hpp"
#include "run/plain_words.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// A run's passes from one on, as its operations hold them, kept here as long as the file is being written.
class Rest {
 public:
  Rest(const BitRun& run, int number, std::size_t first) : part_{&run.bit, run.feeds, number, {}, true, {}} {
    for (const Operation* op : run.operations) {
      const std::size_t skipped = std::min(first, op->passes.size());
      first -= skipped;
      add({op->passes.begin() + static_cast<std::ptrdiff_t>(skipped), op->passes.end()}, op->feed_share);
    }
  }
  Rest(const BitRun& run, int number, double deeper) : part_{&run.bit, run.feeds, number, {}, true, {}} {
    for (const Operation* op : run.operations) {
      if (op->kind == Operation::Kind::Profile || op->kind == Operation::Kind::Pierce)
        add(last_round(*op, deeper), op->feed_share);
    }
  }
  [[nodiscard]] const GcodeJob::Part& part() const { return part_; }
  [[nodiscard]] bool empty() const { return passes_.empty(); }

 private:
  // Passes that reach the operation's depth, lower by so much. One that goes down in several rounds is kept from where
  // it last comes to its lowest level, and goes all round there.
  static std::vector<Pass> last_round(const Operation& op, double deeper) {
    std::vector<Pass> out;
    const double floor = deepest(op.passes);
    for (const Pass& pass : op.passes) {
      if (deepest({pass}) > floor + 0.01) continue;
      Pass lower;
      for (const Point3& p : from_last_round(pass, floor)) lower.points.push_back({p.x, p.y, p.z - deeper});
      out.push_back(std::move(lower));
    }
    return out;
  }
  // A pass in rounds: the stretch behind the last point that stands higher than any of its last round, found going
  // back until the way has come back to where it ends. Too much is kept rather than too little.
  static std::vector<Point3> from_last_round(const Pass& pass, double floor) {
    const std::vector<Point3>& p = pass.points;
    if (p.size() < 3) return p;
    // Its length from the end back to the same place, at least a whole round.
    double way = 0;
    for (std::size_t i = p.size() - 1; i > 0; --i) {
      way += distance(p[i].flat(), p[i - 1].flat());
      const bool back = way > 3 && distance(p[i - 1].flat(), p.back().flat()) < 0.05;
      if (back && p[i - 1].z <= floor + 1e-6) return {p.begin() + static_cast<std::ptrdiff_t>(i) - 1, p.end()};
    }
    return p;
  }
  void add(std::vector<Pass> passes, double share) {
    if (passes.empty()) return;
    for (Pass& pass : passes) pass.gone_above = Pass::kFace;  // whether what came before is really gone nobody knows
    passes_.push_back(std::move(passes));
    part_.passes.push_back(&passes_.back());
    part_.feed_shares.push_back(share);
  }

  std::list<std::vector<Pass>> passes_;
  GcodeJob::Part part_;
};

const BitRun& run_of(const Plan& plan, std::size_t run) {
  if (run >= plan.runs.size())
    throw bad_input(say("There is no file {0}; the job has {1}.", run + 1, plan.runs.size()));
  return plan.runs[run];
}

OutputFile written(const Plan& plan, const BitRun& run, const Rest& rest, const std::string& words,
                   const std::string& in_name) {
  GcodeJob job{plan.job.name + ", " + words,
               zero_in_words(plan.job, run.side),
               placement_of(plan.job, plan.machine, run.side),
               {},
               travel_of(plan.job, plan.machine, run.side)};
  job.travel->low = job.travel->high;
  job.parts.push_back(rest.part());
  MachineProfile machine = plan.machine;
  if (machine.bit_change == BitChange::Pause) machine.bit_change = BitChange::None;
  std::string name = run.file;
  const std::size_t dash = name.find('-');
  name.insert(dash == std::string::npos ? 0 : dash + 1, in_name + "-");
  return {name, write_gcode(job, machine)};
}

double seconds_of(const Plan& plan, const BitRun& run, const GcodeJob::Part& part) {
  std::vector<TimedPasses> work;
  for (std::size_t i = 0; i < part.passes.size(); ++i) {
    work.push_back({part.passes[i], run.feeds, run.bit.kind});
    work.back().feeds.feed *= part.feed_shares[i];
  }
  const Travel travel = travel_of(plan.job, plan.machine, run.side);
  const Point zero = placement_of(plan.job, plan.machine, run.side).on_board(Point{0, 0});
  return run_time(work, machine_along_board(plan.machine, plan.job.run.on_bed), zero, &travel).seconds +
         plan.machine.spin_up_seconds;
}

}  // namespace

double seconds_from(const Plan& plan, const BitRun& run, std::size_t first) {
  return seconds_of(plan, run, Rest(run, 1, first).part());
}

std::size_t pass_at(const Plan& plan, const BitRun& run, double seconds) {
  // The later it begins, the less is left: halved until it fits.
  const double whole = seconds_from(plan, run, 0);
  std::size_t low = 0, high = pass_count(run);
  while (low + 1 < high) {
    const std::size_t middle = (low + high) / 2;
    (whole - seconds_from(plan, run, middle) <= seconds ? low : high) = middle;
  }
  return low;
}

OutputFile again_from(const Plan& plan, std::size_t number, std::size_t first) {
  const BitRun& run = run_of(plan, number);
  if (first >= pass_count(run))
    throw bad_input(
        say("File {0} has {1} passes; there is none numbered {2}.", number + 1, pass_count(run), first + 1));
  return written(plan, run, Rest(run, static_cast<int>(number) + 1, first),
                 "again from pass " + std::to_string(first + 1),
                 word_in_file(say("files: again-from")) + "-" + std::to_string(first + 1));
}

bool goes_through_in(const BitRun& run) {
  return std::any_of(run.operations.begin(), run.operations.end(), [](const Operation* op) {
    return op->kind == Operation::Kind::Profile || op->kind == Operation::Kind::Pierce;
  });
}

OutputFile again_deeper(const Plan& plan, std::size_t number, double more) {
  const BitRun& run = run_of(plan, number);
  if (!goes_through_in(run)) throw bad_input(say("File {0} cuts nothing through the board.", number + 1));
  if (!(more > 0 && more <= 5))
    throw bad_input(say("From {0} to {1} deeper was expected.", depth_in_words(0.01, plan.job.lengths),
                        depth_in_words(5, plan.job.lengths)));
  return written(plan, run, Rest(run, static_cast<int>(number) + 1, more),
                 "deeper by " + format_number(more, 2) + " mm", word_in_file(say("files: deeper")));
}

}  // namespace doyen
