// Jobs of random pieces, treatments and settings: they survive the job file, plan without a throw, and what is written
// cuts what was planned; every remedy leads to a job that plans again.
#include <catch2/catch.hpp>
#include <cmath>

#include "inlay/steps.hpp"
#include "job/job.hpp"
#include "planning/further_boards.hpp"
#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"
#include "random_jobs.hpp"
#include "workbench.hpp"

using namespace doyen;
using workbench::JobMaker;
using Kind = Treatment::Kind;

namespace {

void check_sane(const Plan& p) {
  CHECK(std::isfinite(p.seconds));
  CHECK(p.seconds >= 0);
  bool later = false;
  for (const BitRun& run : p.runs) {
    if (run.side == Side::Front) {
      CHECK((!later || run.later));  // the second run comes second
      later = later || run.later;
    }
    CHECK(run.time.seconds > 0);
    CHECK_FALSE(run.operations.empty());
    for (const Operation* op : run.operations) {
      CHECK(op->bit == run.bit.id);
      CHECK(op->feed_share > 0);
      CHECK(op->feed_share <= 1);
      std::size_t wrong = 0;
      for (const Pass& pass : op->passes) {
        wrong += pass.points.empty();
        for (const Point3& q : pass.points) wrong += !std::isfinite(q.x + q.y + q.z) || q.z > 1e-6;
      }
      CHECK(wrong == 0);  // no move below the face's height stands in the air, none is no number
    }
  }
  for (const Verdict& v : p.verdicts) {
    CHECK(v.text.size() > 10);
    CHECK(std::isfinite(v.at.x + v.at.y));
    CHECK_THAT(v.text + v.why, !Catch::Contains("nan") && !Catch::Contains("inf "));
  }
}

}  // namespace

TEST_CASE("random jobs survive their file to the last figure, and the plan with them") {
  for (unsigned seed = 1; seed <= 30; ++seed) {
    INFO("seed " << seed);
    const Job job = JobMaker(seed).job();
    const std::string text = write_job(job);
    const Job again = read_job(text, "random");
    CHECK(write_job(again) == text);
    CHECK(again.run == job.run);
    CHECK(again.blank == job.blank);
    REQUIRE(again.items.size() == job.items.size());
    // What a treatment does not use need not be kept; what it cuts must be the same.
    const Rack rack = load_rack();
    const Plan a = plan(job, rack, machine_for(job)), b = plan(again, rack, machine_for(again));
    CHECK(a.seconds == Approx(b.seconds).epsilon(1e-9));
    CHECK(a.runs.size() == b.runs.size());
    CHECK(a.verdicts.size() == b.verdicts.size());
  }
}

TEST_CASE("random jobs plan to sane moves, and their files cut what was planned") {
  const Rack rack = load_rack();
  int written = 0;
  for (unsigned seed = 100; seed < 130; ++seed) {
    INFO("seed " << seed);
    const Job job = JobMaker(seed).job();
    const Plan p = plan(job, rack, machine_for(job));
    check_sane(p);
    if (p.runs.empty()) continue;
    const ReadBack check = read_back(p, gcode_files(p), 0.4);
    INFO("off by " << check.worst << " at " << check.at.x << ", " << check.at.y);
    CHECK(check.agrees());
    ++written;
  }
  CHECK(written > 15);
}

TEST_CASE("every remedy of a random job's verdicts leaves a job that plans, and most are mended by it") {
  const Rack rack = load_rack();
  int taken = 0, mended = 0;
  for (unsigned seed = 200; seed < 225; ++seed) {
    const Job job = JobMaker(seed).job();
    const Plan p = plan(job, rack, machine_for(job));
    for (const Verdict& v : p.verdicts) {
      for (const Remedy& remedy : v.remedies) {
        if (!remedy.apply) continue;
        INFO("seed " << seed << ": " << v.code << ", " << remedy.label);
        CHECK(remedy.label.size() > 3);
        Job after = job;
        REQUIRE_NOTHROW(remedy.apply(after));
        // A depth that is set is the one that is said, to the last figure.
        if (const Item* was = job.find(v.piece), *is = after.find(v.piece); was != nullptr && is != nullptr &&
                                                                            was->cut.depth != is->cut.depth &&
                                                                            remedy.label.starts_with("Make it ")) {
          const std::string words = depth_in_words(is->cut.depth, job.lengths);
          CHECK(remedy.label.find(words) != std::string::npos);
          CHECK(parse_length(words, job.lengths.unit) == Approx(is->cut.depth).margin(1e-9));
        }
        const Plan again = plan(after, rack, machine_for(after));
        check_sane(again);
        ++taken;
        bool still = false;
        for (const Verdict& w : again.verdicts) still = still || (w.code == v.code && w.piece == v.piece);
        mended += !still;
        break;  // the first is the one that one key takes
      }
    }
  }
  INFO(mended << " of " << taken);
  CHECK(taken > 30);
  CHECK(mended > 0.75 * taken);
}

TEST_CASE("further boards of random jobs plan, or say what is wrong in words") {
  const Rack rack = load_rack();
  int boards = 0;
  for (unsigned seed = 300; seed < 340; ++seed) {
    INFO("seed " << seed);
    const Job job = JobMaker(seed).job();
    for (const FurtherBoard& board : further_boards(job, rack)) {
      ++boards;
      CHECK_FALSE(board.folder.empty());
      CHECK(board.folder.find('/') == std::string::npos);
      const Plan p = plan(board.job, rack, machine_for(board.job));
      check_sane(p);
      if (!p.runs.empty()) CHECK(read_back(p, gcode_files(p), 0.4).agrees());
      // A board for plugs holds every one of them, and what is left over does not cut into the edge.
      for (const auto& piece : p.pieces) {
        const Box box = bounds(piece->outlines);
        CHECK(board.job.blank.box().grown(0.01).contains({box.left, box.bottom}));
        CHECK(board.job.blank.box().grown(0.01).contains({box.right, box.top}));
      }
    }
    const Plan p = plan(job, rack, machine_for(job));
    for (const InlayStep& step : inlay_steps(p)) CHECK(step.words.size() > 10);
  }
  CHECK(boards > 8);
}
