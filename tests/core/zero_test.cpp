// Where zero is taken: at a pin on both sides, on a floor that is sunk already; and clamps that stand there while one
// side is up. The turning is done by hand here: about the left edge x runs the other way round the middle of the pins.
#include <catch2/catch.hpp>

#include "holding/turning_pins.hpp"
#include "planning/judged.hpp"
#include "planning/outputs.hpp"
#include "run/gcode.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

double lowest_of(const Pass& pass) {
  double lowest = 1e9;
  for (const Point3& p : pass.points) lowest = std::min(lowest, p.z);
  return lowest;
}

Treatment from_the_back(Treatment cut) {
  cut.back = true;
  return cut;
}

// A hole from each side, in a board that is cut out.
Job both_sides() {
  Job job = workbench::board(320, 180, 18);
  add(job, "out", {kBox, 252, 112}, {160, 90}, cut(Kind::CutOut, 0));
  add(job, "hole", {PlainShape::Kind::Ellipse, 6, 6}, {100, 60}, cut(Kind::Drill, 4, {}, "flat-1/8in"));
  add(job, "back", {PlainShape::Kind::Ellipse, 6, 6}, {130, 110}, from_the_back(cut(Kind::Drill, 4, {}, "flat-1/8in")));
  return job;
}

// Where a piece's first hole lies in the written files of its side.
Point3 first_hole(const Plan& p, const char* piece) {
  for (const Worked& w : worked_by(p, gcode_files(p))) {
    if (w.piece != piece) continue;
    const Point3 on_board = w.passes.at(0).points.at(0);
    return placement_of(p.job, p.machine, w.side).at_machine(on_board);
  }
  FAIL("it is not in the files");
  return {};
}

}  // namespace

TEST_CASE("zero at a pin is one place of the bed, and what is cut from the back lies where the turned wood brings it") {
  for (const OnBed lies : {OnBed::AsDrawn, OnBed::Half}) {
    Job job = with_turning_pins(both_sides(), load_rack());
    job.run.zero_place = ZeroPlace::Pin;
    job.run.on_bed = lies;
    const Plan p = planned(job);
    CHECK(find(p, "zero-without-pin") == nullptr);
    const Point pin = job.find("turning-pin-1")->piece.at, other = job.find("turning-pin-2")->piece.at;
    const double round = lies == OnBed::AsDrawn ? 1 : -1;
    const Point3 hole = first_hole(p, "hole");
    CHECK(hole.x == Approx(round * (100 - pin.x)).margin(2e-3));
    CHECK(hole.y == Approx(round * (60 - pin.y)).margin(2e-3));
    // Turned over, the two holes change places, and x is counted the other way: wood at x comes to lie at
    // pin.x + other.x - x.
    const Point3 back = first_hole(p, "back");
    CHECK(back.x == Approx(round * (pin.x + other.x - 130 - pin.x)).margin(2e-3));
    CHECK(back.y == Approx(round * (110 - pin.y)).margin(2e-3));
    CHECK(read_back(p, gcode_files(p), 0.4).agrees());
    CHECK(zero_in_words(job).find("turning pin") != std::string::npos);
  }
}

TEST_CASE("zero at a pin that is not there is a stop, and each remedy mends it") {
  Job job = both_sides();
  job.run.zero_place = ZeroPlace::Pin;
  const Plan p = planned(job);
  const Verdict* verdict = find(p, "zero-without-pin");
  REQUIRE(verdict != nullptr);
  CHECK(verdict->grade == Grade::Stop);
  REQUIRE(verdict->remedies.size() == 2);
  for (const Remedy& remedy : verdict->remedies) {
    Job mended = job;
    remedy.apply(mended);
    CHECK(find(planned(mended), "zero-without-pin") == nullptr);
  }
}

TEST_CASE("set on a sunk floor, the same cuts stand so much higher in the files") {
  Job job = workbench::board(200, 100, 18);
  job.blank.film = 0.1;
  add(job, "hole", {PlainShape::Kind::Ellipse, 6, 6}, {30, 10}, cut(Kind::Drill, 4, {}, "flat-1/8in"));
  const auto deepest_written = [](const Job& of) {
    double deepest = 1e9;
    const Plan p = planned(of);
    for (const OutputFile& f : gcode_files(p)) {
      for (const GcodeSection& s : read_gcode(f.text, f.name).sections) {
        for (const Pass& pass : s.passes) deepest = std::min(deepest, lowest_of(pass));
      }
    }
    CHECK(read_back(p, gcode_files(p), 0.3).agrees());
    return deepest;
  };
  CHECK(deepest_written(job) == Approx(-4.1).margin(1e-3));  // on the film
  job.run.zero_floor = 6;
  CHECK(deepest_written(job) == Approx(2).margin(1e-3));  // 6 mm down, the hole's end is 2 mm above it
  CHECK(find(planned(job), "zero-floor-first") == nullptr);
  Job sinks = job;
  add(sinks, "ground", {kBox, 60, 40}, {120, 50}, cut(Kind::Recess, 6, {"flat-1/8in"}));
  const Plan first = planned(sinks);
  const Verdict* verdict = find(first, "zero-floor-first");
  REQUIRE(verdict != nullptr);
  verdict->remedies.at(0).apply(sinks);
  CHECK(find(planned(sinks), "zero-floor-first") == nullptr);
  job.run.zero_floor = 18;
  const Plan through = planned(job);
  REQUIRE(find(through, "zero-floor-too-deep") != nullptr);
  CHECK(find(through, "zero-floor-too-deep")->grade == Grade::Stop);
}

TEST_CASE("a clamp stops only the side that is cut while it stands there") {
  // Where the back's hole lies in the wood, and where its bit goes on the bed when it may stay there.
  const Point in_wood{130, 110}, on_bed{320 - 130, 110};
  for (const Point at : {in_wood, on_bed}) {
    for (const auto up : {KeepOut::Up::Whichever, KeepOut::Up::Front, KeepOut::Up::Back}) {
      INFO(at.x << ", " << static_cast<int>(up));
      Job job = both_sides();
      KeepOut clamp;
      clamp.x = at.x;
      clamp.y = at.y;
      clamp.width = clamp.height = 20;
      clamp.up = up;
      job.blank.keep_outs.push_back(clamp);
      const Plan p = planned(job);
      const Verdict* verdict = find(p, "in-keep-out");
      const bool meets = up == KeepOut::Up::Whichever || (up == KeepOut::Up::Back && at == in_wood);
      CHECK((verdict != nullptr) == meets);
      if (verdict == nullptr) continue;
      CHECK(verdict->piece == "back");
      for (const Remedy& remedy : verdict->remedies) {
        INFO(remedy.label);
        Job mended = job;
        remedy.apply(mended);
        CHECK(find(planned(mended), "in-keep-out") == nullptr);
      }
    }
  }
}

TEST_CASE("what comes through ends in the waste board, or is a stop whose remedies mend it") {
  Job job = workbench::board(200, 120, 18);
  Treatment out = cut(Kind::CutOut, 0);
  out.through.over_cut = 4;
  add(job, "out", {kBox, 160, 80}, {100, 60}, out);
  CHECK(find(planned(job), "through-waste-board") == nullptr);  // not said
  job.run.waste_board = 12;
  CHECK(find(planned(job), "through-waste-board") == nullptr);
  CHECK(find(planned(job), "bed-marked")->text.starts_with("The waste board"));
  job.run.waste_board = 3;
  const Plan p = planned(job);
  const Verdict* verdict = find(p, "through-waste-board");
  REQUIRE(verdict != nullptr);
  CHECK(verdict->grade == Grade::Stop);
  REQUIRE(verdict->remedies.size() == 2);
  for (const Remedy& remedy : verdict->remedies) {
    INFO(remedy.label);
    Job mended = job;
    remedy.apply(mended);
    CHECK(find(planned(mended), "through-waste-board") == nullptr);
  }
}

TEST_CASE("a slip of paper is taken off as a plate is, and called what it is") {
  Job job = workbench::board(200, 120, 18);
  add(job, "groove", {kBox, 40, 8}, {100, 60}, cut(Kind::Incise, 1));
  const double without = seen_placement_of(job).z;
  job.run.plate = 0.1;
  CHECK(seen_placement_of(job).z == Approx(without - 0.1));  // zero lies so much above the face
  CHECK(zero_in_words(job).starts_with("a slip of paper"));
  MachineProfile machine = machine_for(job);
  machine.plate = 12;
  CHECK(find(plan(job, load_rack(), machine), "plate-differs") == nullptr);
}
