// Jobs of random pieces, treatments and settings: they survive the job file, plan without a throw, and what is written
// cuts what was planned; every remedy leads to a job that plans again.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "inlay/plugs.hpp"
#include "inlay/steps.hpp"
#include "job/job.hpp"
#include "oracle.hpp"
#include "planning/outputs.hpp"
#include "workbench.hpp"

using namespace doyen;
using Kind = Treatment::Kind;

namespace {

class Maker {
 public:
  explicit Maker(unsigned seed) : random_(seed) {}

  Job job() {
    Job job;
    job.name = "Random";
    job.lengths.unit = flip() ? Unit::Inch : Unit::Millimetre;
    job.blank.width = between(120, 320);
    job.blank.height = between(90, 240);
    job.blank.readings = {between(8, 30)};
    if (flip()) job.blank.readings.push_back(job.blank.readings[0] + between(0, 0.6));
    job.blank.species = pick({"western-red-cedar", "black-walnut", "white-oak", "mdf", "birch-plywood", "teak"});
    job.blank.grain = flip() ? Grain::AlongWidth : Grain::AlongHeight;
    job.blank.margin = between(0, 10);
    if (flip(0.2)) job.blank.film = 0.25;
    job.run.one_file = flip(0.3);
    job.run.zero_surface = flip(0.3) ? ZeroSurface::Bed : ZeroSurface::Face;
    job.run.zero_place = flip(0.3) ? ZeroPlace::Centre : ZeroPlace::LeftFront;
    job.run.cut_out_last = flip(0.7);
    job.run.low_travel = flip();
    if (flip(0.2)) job.run.mill_level = between(0.5, 6);
    const auto& machines = machine_table().machines;
    job.run.machine = machines[static_cast<std::size_t>(whole(0, static_cast<int>(machines.size()) - 1))].id;
    const int pieces = whole(1, 4);
    for (int i = 0; i < pieces; ++i) job.items.push_back(item(job, i));
    return job;
  }

 private:
  double between(double least, double most) { return std::uniform_real_distribution<double>(least, most)(random_); }
  int whole(int least, int most) { return std::uniform_int_distribution<int>(least, most)(random_); }
  bool flip(double share = 0.5) { return between(0, 1) < share; }
  std::string pick(const std::vector<std::string>& from) {
    return from[static_cast<std::size_t>(whole(0, static_cast<int>(from.size()) - 1))];
  }

  Item item(const Job& job, int i) {
    Item item;
    item.piece.id = "p" + std::to_string(i);
    item.piece.name = "Piece " + std::to_string(i);
    item.piece.at = {between(20, job.blank.width - 20), between(20, job.blank.height - 20)};
    item.piece.turn = flip(0.3) ? between(-180, 180) : 0;
    const double wide = between(3, job.blank.width / 2), high = between(3, job.blank.height / 2);
    if (flip(0.4)) {
      Region region = clean(
          {oracle::random_ring(random_, {0, 0}, std::min(wide, high) / 4, std::min(wide, high) / 2, whole(3, 12))});
      item.piece.what = frozen({region, {}, {}, {}, {}, {}}, item.piece.name);
    } else {
      item.piece.what = PlainShape{flip() ? PlainShape::Kind::Rectangle : PlainShape::Kind::Ellipse, wide, high};
    }
    item.cut = treatment(job);
    return item;
  }

  Treatment treatment(const Job& job) {
    constexpr Kind kKinds[] = {Kind::None,   Kind::Incise, Kind::CutOut, Kind::Line,  Kind::Raise,      Kind::Recess,
                               Kind::Pierce, Kind::Bevel,  Kind::Drill,  Kind::Plane, Kind::HangerSlot, Kind::Inlay};
    Treatment t;
    t.kind = kKinds[whole(0, 11)];
    const double thick = job.blank.thinnest();
    t.depth = between(0.2, thick * 0.7);
    const WantedBit wanted = wanted_bit(t);
    t.bit = wanted == WantedBit::V         ? pick({"v30", "v60", "v90", "engrave20"})
            : wanted == WantedBit::Flat    ? pick({"flat-1/8in", "flat-1/4in", "flat-3mm"})
            : wanted == WantedBit::Keyhole ? "keyhole-3/8in"
                                           : pick({"v60", "flat-1/8in", "ball-1/8in"});
    if (t.kind == Kind::Incise && flip()) t.floor_limit = between(0.3, thick * 0.6);
    if (flip(0.4)) t.clearing = {pick({"flat-1/8in", "flat-1/4in", "flat-1/2in"})};
    t.sloped = flip();
    t.steps = flip(0.2) ? whole(2, 4) : 1;
    t.terrace = between(1, 6);
    t.slug = flip();
    t.inside = flip();
    t.back = t.kind == Kind::HangerSlot || (t.kind != Kind::Inlay && flip(0.15));
    t.moves.way = flip() ? Moves::Way::Rings : Moves::Way::AlongGrain;
    t.moves.entry = flip() ? Moves::Entry::Ramp : Moves::Entry::Helix;
    t.moves.climb = flip();
    t.moves.stepover = between(0.15, 0.7);
    t.moves.leave_on = flip(0.2) ? 0.2 : 0;
    t.resin = flip(0.2);
    t.v_alone = false;
    t.tabs = usual_tabs(job.blank);
    t.inlay.sloped = flip(0.7);
    if (t.kind == Kind::Inlay && t.inlay.sloped && t.bit != "v30" && t.bit != "v90") t.bit = "v60";
    t.inlay.contact = t.depth * between(0.5, 0.95);
    t.inlay.saw_gap = between(0.5, 2);
    t.inlay.thickness = t.inlay.contact + t.inlay.saw_gap + between(0.5, 10);
    t.inlay.crossed = flip(0.2);
    t.inlay.wood = pick({"sugar-maple", "black-cherry"});
    if (t.kind == Kind::Recess && flip(0.3)) {
      t.insert.thickness = between(0.5, thick * 0.4);
      t.insert.cut = flip();
      t.insert.material = pick({"acrylic", "brass", "shell"});
    }
    return t;
  }

  std::mt19937 random_;
};

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
    const Job job = Maker(seed).job();
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
    const Job job = Maker(seed).job();
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
    const Job job = Maker(seed).job();
    const Plan p = plan(job, rack, machine_for(job));
    for (const Verdict& v : p.verdicts) {
      for (const Remedy& remedy : v.remedies) {
        if (!remedy.apply) continue;
        INFO("seed " << seed << ": " << v.code << ", " << remedy.label);
        CHECK(remedy.label.size() > 3);
        Job after = job;
        REQUIRE_NOTHROW(remedy.apply(after));
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
    const Job job = Maker(seed).job();
    for (const PlugBoard& board : further_boards(job, rack)) {
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
