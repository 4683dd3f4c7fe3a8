// Going on after a stop, and the look round before: against the moves of the files, read by the letter.
#include "planning/again.hpp"

#include <catch2/catch.hpp>
#include <set>

#include "holding/witness.hpp"
#include "planning/look_round.hpp"
#include "problem.hpp"
#include "random_jobs.hpp"
#include "relief/carve.hpp"
#include "run/gcode.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace workbench;

namespace {

Plan of_many() {
  Job job = board(200, 140, 12);
  add(job, "floor", {kBox, 60, 40}, {50, 90}, cut(Kind::Recess, 3, {"flat-1/4in"}));
  add(job, "one", {kBox, 60, 6}, {50, 40}, cut(Kind::Incise, 1));
  add(job, "two", {PlainShape::Kind::Star, 40, 40}, {140, 90}, cut(Kind::Incise, 1));
  add(job, "out", {kBox, 180, 120}, {100, 70}, cut(Kind::CutOut, 1));
  return planned(job);
}

// What a file leaves of a board that was cut as `before` says.
void carve_file(HeightField& field, const Plan& p, const OutputFile& file, const BitRun& run) {
  const Placement lies = placement_of(p.job, p.machine, run.side);
  for (GcodeSection& section : read_gcode(file.text, file.name, lies.z).sections) {
    for (Pass& pass : section.passes) {
      for (Point3& at : pass.points) at = lies.on_board(at);
    }
    CHECK(section.rapid_in_wood == 0);
    carve(field, section.passes, run.bit, {});
  }
}

double farthest_apart(const HeightField& a, const HeightField& b) {
  double worst = 0;
  for (std::size_t r = 0; r < a.rows(); ++r) {
    for (std::size_t c = 0; c < a.columns(); ++c) worst = std::max<double>(worst, std::abs(a.at(c, r) - b.at(c, r)));
  }
  return worst;
}

}  // namespace

TEST_CASE("a run begun again anywhere leaves, on what was cut before, the same board") {
  const Plan p = of_many();
  for (std::size_t i = 0; i < p.runs.size(); ++i) {
    const BitRun& run = p.runs[i];
    const std::size_t passes = pass_count(run);
    REQUIRE(passes > 0);
    HeightField whole(p.job.blank.box(), 0.4);
    whole.clear();
    for (const Operation* op : run.operations) carve(whole, op->passes, run.bit);
    for (const std::size_t first : {std::size_t{0}, passes / 2, passes - 1}) {
      INFO(run.file << " from " << first << " of " << passes);
      HeightField field(p.job.blank.box(), 0.4);
      field.clear();
      std::size_t number = 0;
      for (const Operation* op : run.operations) {
        for (const Pass& pass : op->passes) {
          if (number++ < first) carve(field, {pass}, run.bit);
        }
      }
      const OutputFile file = again_from(p, i, first);
      carve_file(field, p, file, run);
      CHECK(farthest_apart(field, whole) < 0.02);
      CHECK(file.name.find("again-from-" + std::to_string(first + 1)) != std::string::npos);
      CHECK(file.text.find("M30") != std::string::npos);
    }
    CHECK(seconds_from(p, run, 0) > seconds_from(p, run, passes - 1));
    CHECK(pass_at(p, run, 0) == 0);
    CHECK(pass_at(p, run, 1e6) + 1 == passes);
    const std::size_t middle = pass_at(p, run, seconds_from(p, run, 0) / 2);
    CHECK(seconds_from(p, run, 0) - seconds_from(p, run, middle) <= seconds_from(p, run, 0) / 2 + 1e-6);
    CHECK_THROWS_AS(again_from(p, i, passes), Problem);
  }
  CHECK_THROWS_AS(again_from(p, 99, 0), Problem);
}

TEST_CASE("a bit that goes on comes down at plunge feed all the way, whatever was cut before it") {
  const Plan p = of_many();
  for (std::size_t i = 0; i < p.runs.size(); ++i) {
    const OutputFile file = again_from(p, i, 0);
    const double plunge = p.runs[i].feeds.plunge;
    // By the letter: the first feed move behind each G0 Z is a G1 with no more than the plunge feed.
    bool down = false;
    double feed = 0;
    std::size_t plunges = 0;
    for (std::size_t at = 0; at < file.text.size();) {
      const std::size_t end = file.text.find('\n', at);
      const std::string line = file.text.substr(at, end - at);
      at = end + 1;
      if (const std::size_t f = line.find(" F"); f != std::string::npos) feed = std::stod(line.substr(f + 2));
      if (line.starts_with("G0 Z")) down = true;
      if (line.starts_with("G0 X")) down = false;
      if (line.starts_with("G1") && down) {
        ++plunges;
        CHECK(feed <= plunge + 0.1);
        down = false;
      }
    }
    CHECK(plunges > 0);
  }
}

TEST_CASE("what did not come through is cut out once more, deeper, and nothing else") {
  const Plan p = of_many();
  std::size_t through = 0;
  for (std::size_t i = 0; i < p.runs.size(); ++i) {
    if (!goes_through_in(p.runs[i])) {
      CHECK_THROWS_AS(again_deeper(p, i, 0.3), Problem);
      continue;
    }
    ++through;
    const OutputFile file = again_deeper(p, i, 0.3);
    const GcodeSection section = read_gcode(file.text, file.name).sections.at(0);
    double planned_lowest = 0;
    Box planned_reach, reach;
    for (const Operation* op : p.runs[i].operations) {
      if (op->piece != "out") continue;
      planned_lowest = std::min(planned_lowest, deepest(op->passes));
      for (const Pass& pass : op->passes) {
        for (const Point3& at : pass.points) planned_reach.add(at.flat());
      }
    }
    for (const Pass& pass : section.passes) {
      for (const Point3& at : pass.points) reach.add(at.flat());
    }
    CHECK(section.deepest == Approx(planned_lowest - 0.3).margin(2e-3));
    // All round: as wide and as high as the whole cut-out.
    CHECK(reach.width() == Approx(planned_reach.width()).margin(0.1));
    CHECK(reach.height() == Approx(planned_reach.height()).margin(0.1));
    CHECK_THROWS_AS(again_deeper(p, i, 0), Problem);
    CHECK_THROWS_AS(again_deeper(p, i, 6), Problem);
  }
  CHECK(through == 1);
}

TEST_CASE("the look round goes in the air round everything that any file of the side reaches") {
  for (unsigned seed = 1; seed <= 12; ++seed) {
    INFO("seed " << seed);
    Job job = SignMaker(seed).job();
    job.run.look_round = true;
    const Plan p = planned(job);
    if (p.runs.empty()) continue;
    for (const OutputFile& look : look_round_files(p)) {
      const Side side = look.name.find("back") == std::string::npos ? Side::Front : Side::Back;
      CHECK(look.text.find("M3 ") == std::string::npos);  // the spindle stays off
      CHECK(look.text.find("M5") < look.text.find("G0"));
      // Its words, one by one.
      const double unit = look.text.find("G20") == std::string::npos ? 1 : 25.4;
      Box round;
      std::set<double> heights;
      for (std::size_t at = 0; at < look.text.size();) {
        const std::size_t end = look.text.find('\n', at);
        const std::string line = look.text.substr(at, end - at);
        at = end + 1;
        if (line.starts_with("(")) continue;
        const auto word = [&](char c) { return line.find(std::string(" ") + c); };
        if (word('Z') != std::string::npos) heights.insert(std::stod(line.substr(word('Z') + 2)) * unit);
        if (line.find("G1") != std::string::npos)
          round.add(Point{std::stod(line.substr(word('X') + 2)) * unit, std::stod(line.substr(word('Y') + 2)) * unit});
      }
      REQUIRE(heights.size() == 1);
      CHECK(*heights.begin() - seen_placement_of(job, side).z >= highest_wood(job, side) + 1);
      std::size_t run = 0;
      for (const OutputFile& file : gcode_files(p)) {
        for (const GcodeSection& section : read_gcode(file.text, file.name, seen_placement_of(job, side).z).sections) {
          const BitRun& its = p.runs.at(run++);
          if (its.side != side) continue;
          const double body = its.bit.true_diameter() / 2 - 0.01;
          for (const Pass& pass : section.passes) {
            for (const Point3& at : pass.points) {
              REQUIRE(at.x - body >= round.left);
              REQUIRE(at.x + body <= round.right);
              REQUIRE(at.y - body >= round.bottom);
              REQUIRE(at.y + body <= round.top);
            }
          }
        }
      }
    }
    job.run.look_round = false;
    CHECK(look_round_files(planned(job)).empty());
  }
}

TEST_CASE(
    "the witness mark lies in the waste, clear of every cut, is made before all else, and says when it comes late") {
  Job job = read_job(read_file(data_file("demo/gate-sign.doyen")), "demo");
  const Rack rack = load_rack();
  const BitId first = planned(job).runs.front().bit.id;
  job = with_witness(job, rack, first);
  REQUIRE(is_witness(job.items.back()));
  const Plan p = planned(job);
  const BitRun& run = p.runs.front();
  REQUIRE(run.operations.front()->kind == Operation::Kind::Mark);
  // The first thing that its file does, by the letter; half a millimetre deep.
  const OutputFile file = gcode_files(p).front();
  const GcodeSection section = read_gcode(file.text, file.name).sections.front();
  CHECK(section.passes.front().points.back().z == Approx(-kWitnessDepth).margin(0.01));
  const Point at = section.passes.front().points.front().flat();
  CHECK(distance(at, job.items.back().piece.at) < 0.01);
  // No other file's bit touches it, nor the wood close round it.
  std::size_t number = 0;
  for (const OutputFile& other : gcode_files(p)) {
    for (const GcodeSection& its : read_gcode(other.text, other.name).sections) {
      const BitRun& of = p.runs[number++];
      for (std::size_t i = number == 1 ? 1 : 0; i < its.passes.size(); ++i) {
        for (std::size_t k = 1; k < its.passes[i].points.size(); ++k) {
          const Point a = its.passes[i].points[k - 1].flat(), b = its.passes[i].points[k].flat();
          for (int s = 0; s <= 10; ++s)
            REQUIRE(distance(a + (b - a) * (s / 10.0), at) >
                    of.bit.true_diameter() / 2 + run.bit.true_diameter() / 2 + 1);
        }
      }
    }
  }
  CHECK(p.count(Grade::Stop) == 0);
  CHECK(find(p, "witness-late") == nullptr);
  for (const Verdict& v : p.verdicts) CHECK(v.piece != job.items.back().piece.id);
  // Another bit first: said, and mended by its remedy.
  job.items.back().cut.bit = planned(job).runs.back().bit.id;
  const Plan late = planned(job);
  const Verdict* said = find(late, "witness-late");
  REQUIRE(said != nullptr);
  said->remedies.front().apply(job);
  CHECK(find(planned(job), "witness-late") == nullptr);
  // Once more takes its place; without waste, or anything cut, there is none.
  CHECK(with_witness(job, rack, first).items.size() == job.items.size());
  Job bare = board();
  add(bare, "groove", {kBox, 60, 6}, {60, 60}, cut(Kind::Incise, 1));
  CHECK_THROWS_AS(with_witness(bare, rack, "v60"), Problem);
  CHECK_THROWS_AS(with_witness(job, rack, ""), Problem);
}

TEST_CASE("a witness mark beside marked screws keeps as clear of them as any cut must") {
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  const BitId first = planned(job).runs.front().bit.id;
  for (const double x : {9.0, 600.6}) {
    for (const double y : {9.0, 219.6}) job.blank.keep_outs.push_back({KeepOut::Kind::Screw, x, y, 8, 8});
  }
  const int before = planned(job).count(Grade::Stop);
  CHECK(planned(with_witness(job, load_rack(), first)).count(Grade::Stop) == before);
}

TEST_CASE("on a machine with numbered places what goes on asks for the bit's own number, as the whole file did") {
  Job job = of_many().job;
  job.run.machine = "mm-changer";
  const Plan p = planned(job);
  REQUIRE(p.runs.size() > 1);
  for (std::size_t i = 0; i < p.runs.size(); ++i) {
    const auto number_in = [](const std::string& text) {
      const std::size_t end = text.find(" M6"), at = text.rfind('T', end);
      REQUIRE(end != std::string::npos);
      return text.substr(at, end + 3 - at);
    };
    const std::string whole = number_in(gcode_files(p).at(i).text);
    CHECK(whole == "T" + std::to_string(i + 1) + " M6");
    CHECK(number_in(again_from(p, i, 0).text) == whole);
    if (goes_through_in(p.runs[i])) CHECK(number_in(again_deeper(p, i, 0.3).text) == whole);
  }
}
