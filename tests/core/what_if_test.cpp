// What if: the same as doing it by hand and planning that, and nothing but what was asked.
#include <catch2/catch.hpp>
#include <limits>

#include "planning/judged.hpp"
#include "planning/what_if.hpp"
#include "storage/data_folder.hpp"
#include "treatments/incise/incise_sums.hpp"
#include "workbench.hpp"

namespace {

using namespace doyen;
using Kind = Treatment::Kind;

// A bar of 9 mm incised by a 60° V, a tray, cut out of 18 mm.
Job small_sign() {
  Job job = workbench::board(300, 200, 18);
  job.blank.readings = {17.8, 18.2};
  workbench::add(job, "bar", {workbench::kBox, 80, 9}, {150, 140}, workbench::cut(Kind::Incise, 1));
  workbench::add(job, "tray", {workbench::kBox, 60, 40}, {150, 80},
                 workbench::cut(Kind::Recess, 4, {"flat-1/4in"}, ""));
  workbench::add(job, "edge", {workbench::kBox, 240, 150}, {150, 100}, workbench::cut(Kind::CutOut, 18));
  return job;
}
Job asked(const Job& job, const Supposed& what, const char* piece = "") {
  return what_if(workbench::planned(job), piece, what);
}

}  // namespace

TEST_CASE("asking nothing is the job itself") { CHECK(asked(small_sign(), {}) == small_sign()); }

TEST_CASE("a thicker board is thicker at every reading, and its cut-out goes as much deeper") {
  Supposed what;
  what.thickness = 22.2;
  const Job then = asked(small_sign(), what);
  REQUIRE(then.blank.readings.size() == 2);
  CHECK(then.blank.readings[0] == Approx(21.8));
  CHECK(then.blank.readings[1] == Approx(22.2));
  const Plan was = workbench::planned(small_sign()), is = workbench::planned(then);
  CHECK(what_changes(is, &was).deepest - what_changes(was, nullptr).deepest == Approx(4).margin(1e-6));
  CHECK(is.seconds > was.seconds);
  Supposed thin;
  thin.thickness = 0;
  for (const double reading : asked(small_sign(), thin).blank.readings) CHECK(reading > 0);
}

TEST_CASE("larger is larger about its own middle; the whole job about the middle of all of it") {
  Supposed what;
  what.size = 1.5;
  const Job one = asked(small_sign(), what, "bar");
  CHECK(bounds(one.outlines(*one.find("bar"))).width() == Approx(120));
  CHECK(bounds(one.outlines(*one.find("bar"))).centre().y == Approx(140));
  CHECK(one.find("tray")->piece == small_sign().find("tray")->piece);
  what.size = 0.5;
  const Job all = asked(small_sign(), what);
  CHECK(bounds(all.outlines(*all.find("edge"))).width() == Approx(120));
  // The edge's middle is the middle of all: 150, 100.
  CHECK(bounds(all.outlines(*all.find("bar"))).centre().y == Approx(100 + (140 - 100) * 0.5));
}

TEST_CASE("half the feed takes twice as long where the bit runs at its feed") {
  Job job = workbench::board(300, 200, 18);
  workbench::add(job, "line", {workbench::kBox, 250, 150}, {150, 100}, workbench::cut(Kind::Line, 1));
  Supposed what;
  what.feed = 0.5;
  const Plan was = workbench::planned(job), is = workbench::planned(asked(job, what));
  REQUIRE(is.runs.size() == 1);
  const double cut = 2 * (250 + 150) / was.runs[0].feeds.feed * 60;  // s, at the feed asked
  CHECK(is.seconds - was.seconds == Approx(cut).epsilon(0.1));
  CHECK(is.runs[0].feeds.feed == Approx(was.runs[0].feeds.feed / 2));
  CHECK(is.runs[0].feeds.rpm == was.runs[0].feeds.rpm);
  // Of the bits that cut, and no other: the job keeps figures of its own for none that it does not use.
  CHECK(is.job.run.feeds.size() == 1);
  CHECK(asked(small_sign(), what, "tray").run.feeds.size() == 1);
}

TEST_CASE("a floor limit deeper than where the strokes close changes nothing; a shallower one makes a floor") {
  // 9 mm at 60°: (9 − tip) ÷ 2 ÷ tan 30° (geometry.md).
  const Plan full = workbench::planned(small_sign());
  const double tip = load_rack().find("v60")->tip, closes = (9 - tip) / 2 / std::tan(M_PI / 6);
  CHECK(closing_depth(full, "bar") == Approx(closes).margin(0.02));
  CHECK(closing_depth(full, "tray") == 0);
  Supposed deeper, shallower, none;
  deeper.floor_limit = closes + 1;
  shallower.floor_limit = closes / 2;
  none.floor_limit = std::numeric_limits<double>::infinity();
  const Plan same = workbench::planned(asked(small_sign(), deeper));
  CHECK(same.piece("bar")->cuts.deepest == Approx(full.piece("bar")->cuts.deepest).margin(1e-6));
  CHECK(same.seconds == Approx(full.seconds).epsilon(0.005));
  const Plan flat = workbench::planned(asked(small_sign(), shallower));
  CHECK(flat.piece("bar")->cuts.deepest == Approx(closes / 2).margin(1e-6));
  CHECK_FALSE(flat.piece("bar")->cuts.floor.empty());
  CHECK(asked(asked(small_sign(), shallower), none) == small_sign());
  CHECK(closing_depth(flat, "bar") == Approx(closes).margin(0.02));  // whatever the limit is now
}

TEST_CASE("another V is taken where a V cuts, and what goes wrong then is told, what was wrong before is not") {
  Supposed what;
  what.v = "v90";
  const Job then = asked(small_sign(), what);
  CHECK(then.find("bar")->cut.bit == "v90");
  CHECK(then.find("edge")->cut.bit == small_sign().find("edge")->cut.bit);
  // Thinner than the tray is deep: a stop that was not there.
  Supposed thin;
  thin.thickness = 3;
  const Plan was = workbench::planned(small_sign()), is = workbench::planned(asked(small_sign(), thin));
  const WhatChanges changes = what_changes(is, &was);
  CHECK(changes.stops > 0);
  CHECK(std::any_of(changes.verdicts.begin(), changes.verdicts.end(),
                    [](const Verdict& v) { return v.grade == Grade::Stop; }));
  CHECK(what_changes(was, &was).verdicts.empty());
  CHECK(what_changes(is, &is).verdicts.empty());
}

TEST_CASE("the answer at once is near the one that is planned: feeds exactly, the others to three tenths") {
  for (const char* demo : {"gate-sign", "gate-sign-raised", "fingerpost"}) {
    const Job job = load_job(data_file(std::string("demo/") + demo + ".doyen"));
    const Plan p = workbench::planned(job);
    std::vector<std::pair<const char*, Supposed>> all(7);
    all[0] = {"slower", {}};
    all[0].second.feed = 0.7;
    all[1] = {"thicker", {}};
    all[1].second.thickness = job.blank.thickest() * 1.4;
    all[2] = {"larger", {}};
    all[2].second.size = 1.15;
    all[3] = {"smaller", {}};
    all[3].second.size = 0.8;
    all[4] = {"flatter", {}};
    all[4].second.v = "v90";
    all[5] = {"shallower", {}};
    all[5].second.floor_limit = 3;
    all[6] = {"all", {}};
    all[6].second.size = 0.9;
    all[6].second.feed = 1.3;
    for (const auto& [words, what] : all) {
      const double about = about_seconds(p, "", what), real = workbench::planned(what_if(p, "", what)).seconds;
      INFO(demo << ", " << words << ": about " << about << ", planned " << real << ", as it is " << p.seconds);
      CHECK(about == Approx(real).epsilon(what == all[0].second ? 0.001 : 0.3));
    }
    CHECK(about_seconds(p, "", {}) == Approx(p.seconds));
  }
}

TEST_CASE("the knee of a curve is where it bends most, and straight or level ones have none") {
  // Points of 1 ÷ x: the farthest from the chord of 1 … 9 is nearest to √9 = 3.
  const std::vector<double> at{1, 2, 3, 4, 5, 6, 7, 8, 9};
  std::vector<double> of;
  for (const double x : at) of.push_back(1 / x);
  CHECK(at[knee_of(at, of)] == 3);
  CHECK(knee_of(at, at) == at.size());
  CHECK(knee_of(at, std::vector<double>(9, 5.0)) == at.size());
  CHECK(knee_of({1, 2}, {5, 1}) == 2);
}

TEST_CASE("floor limits are compared by planning each, up to where all has closed") {
  const Plan p = workbench::planned(small_sign());
  const Sum sum = limit_table_sum(p, load_rack(), "bar");
  REQUIRE(sum.lines.size() >= 5);
  // One of its lines by hand: a limit of half the depth leaves a flat of 80 − 4.5 by 9 − 4.5, nearly.
  const double closes = closing_depth(p, "bar"), limit = std::round(closes * 0.5 * 10) / 10;
  const double off = limit * std::tan(M_PI / 6) + load_rack().find("v60")->tip / 2;
  const double flat = (80 - 2 * off) * (9 - 2 * off);
  Job job = small_sign();
  job.find("bar")->cut.incise.floor_limit = limit;
  const bool there = std::any_of(sum.lines.begin(), sum.lines.end(), [&](const std::string& line) {
    return line.find(format_area(flat, job.lengths)) != std::string::npos;
  });
  CHECK(there);
  CHECK(sum.result.find("changes nothing") != std::string::npos);
  CHECK(limit_table_sum(p, load_rack(), "tray").lines.empty());
}

TEST_CASE("ramps are as steep as is asked, on floors and round cut-outs, and the judge agrees with each") {
  for (const double slope : {1.0 / 30, 0.1, 1.0 / 3}) {
    Job job = small_sign();
    for (Item& item : job.items) item.cut.moves.ramp = slope;
    job.find("edge")->cut.through.tabs.wanted = false;  // whose flanks are steeper
    const Plan p = workbench::planned(job);
    double steepest = 0;
    for (const char* piece : {"tray", "edge"}) {
      for (const Operation& op : p.piece(piece)->cuts.operations) {
        for (const Pass& pass : op.passes) {
          for (std::size_t i = 1; i < pass.points.size(); ++i) {
            const double along = distance(pass.points[i - 1].flat(), pass.points[i].flat());
            const double down = pass.points[i - 1].z - pass.points[i].z;
            if (along > 0.5 && down > 0) steepest = std::max(steepest, down / along);
          }
        }
      }
    }
    CHECK(steepest == Approx(slope).epsilon(0.02));
    CHECK(judge_files(p, gcode_files(p), glancing_cell(job.blank)).cut_as_wanted());
  }
}
