// The test cut: the same strokes, bits, wood and depths as in the job, on a board of its own.
#include "planning/test_cut.hpp"
#include <catch2/catch.hpp>
#include <set>

#include "planning/judged.hpp"
#include "problem.hpp"
#include "workbench.hpp"

namespace {

using namespace doyen;
using Kind = Treatment::Kind;

// Bars of 3, 9 and 5 mm, two of them 2 mm apart, incised; in walnut.
Job bars() {
  Job job = workbench::board(300, 200, 20);
  job.blank.species = "black-walnut";
  job.name = "Bars";
  const Treatment v = workbench::cut(Kind::Incise, 1);
  workbench::add(job, "thin", {workbench::kBox, 80, 3}, {100, 150}, v);
  Treatment deep = v;
  deep.incise.floor_limit = 4;
  workbench::add(job, "wide", {workbench::kBox, 80, 9}, {100, 100}, deep);
  Drawing pair;
  pair.page_width = pair.page_height = 40;
  for (const char* data : {"M0 0H40V5H0Z", "M0 7H40V12H0Z"}) {
    Drawing::Part part;
    part.id = std::string("p") + data[3];
    part.data = data;
    pair.parts.edit().push_back(part);
  }
  job.items.push_back({{"pair", "pair", pair, {100, 50}, 0}, v});
  return job;
}

Box box_of(const Job& job, const std::string& name) {
  for (const Item& item : job.items) {
    if (item.piece.name.starts_with(name)) return bounds(job.outlines(item));
  }
  return {};
}
const Item* item_of(const Job& job, const std::string& name) {
  for (const Item& item : job.items) {
    if (item.piece.name.starts_with(name)) return &item;
  }
  return nullptr;
}

}  // namespace

TEST_CASE(
    "a test cut has the job's narrowest and widest stroke, a corner and its tightest gap, cut as they are there") {
  const Plan p = workbench::planned(bars());
  const Job test = test_cut_job(p);
  CHECK(test.blank.species == "black-walnut");
  CHECK(test.blank.readings == p.job.blank.readings);
  CHECK(test.run.test_of == std::vector<BitId>{"v60"});
  // By hand, from the bars as they were drawn.
  CHECK(box_of(test, "Narrowest").height() == Approx(3).margin(0.05));
  CHECK(box_of(test, "Widest").height() == Approx(9).margin(0.05));
  CHECK(box_of(test, "Tightest").height() == Approx(3 + 2 + 3).margin(0.1));
  CHECK(item_of(test, "Widest")->cut.incise.floor_limit == Approx(4));
  CHECK(item_of(test, "Narrowest")->cut.incise.floor_limit == p.job.find("thin")->cut.incise.floor_limit);
  for (const Item& item : test.items) CHECK(item.cut.bit == "v60");
  // It is small, everything lies on it, and its files are as good as any.
  CHECK(test.blank.width < 250);
  CHECK(test.blank.height < 80);
  const Plan planned = workbench::planned(test);
  CHECK(planned.count(Grade::Stop) == 0);
  CHECK(judge_files(planned, gcode_files(planned), glancing_cell(test.blank)).cut_as_wanted());
  // A 60° V at the middle of 3 mm goes 1.5 ÷ tan 30° deep (geometry.md).
  const HeightField wood = workbench::carved(planned, 0.1);
  CHECK(workbench::at(wood, box_of(test, "Narrowest").centre()) == Approx(-1.5 / std::tan(M_PI / 6)).margin(0.1));
  CHECK(read_job(job_text(test), "again") == test);
}

TEST_CASE("raised letters are tested on a ground of their own, each bit in a row of its own") {
  Job job = bars();
  Treatment raised = workbench::cut(Kind::Raise, 3, {"flat-1/8in"}, "v90");
  raised.margin = 9;
  workbench::add(job, "up", {workbench::kBox, 60, 4}, {220, 150}, raised);
  const Plan p = workbench::planned(job);
  CHECK(untested(p).size() == 2);
  const Job test = test_cut_job(p);
  CHECK(test.run.test_of.size() == 2);
  CHECK(test.items.size() >= 7);
  const Plan planned = workbench::planned(test);
  CHECK(planned.count(Grade::Stop) == 0);
  CHECK(judge_files(planned, gcode_files(planned), glancing_cell(test.blank)).cut_as_wanted());
}

TEST_CASE("what came out well is kept in the rack for that wood, and asked no more") {
  const Plan p = workbench::planned(bars());
  CHECK(untested(p) == std::vector<BitId>{"v60"});
  Rack rack = load_shipped_rack();
  const Job test = test_cut_job(p);
  CHECK(keep_tested(rack, test));
  CHECK_FALSE(keep_tested(rack, test));
  CHECK(rack.find("v60")->tested == std::vector<WoodId>{"black-walnut"});
  CHECK(read_rack(write_rack(rack), "again").find("v60")->tested == std::vector<WoodId>{"black-walnut"});
  CHECK(untested(plan(bars(), rack, machine_for(bars()))).empty());
  Job cherry = bars();
  cherry.blank.species = "black-cherry";
  CHECK(untested(plan(cherry, rack, machine_for(cherry))).size() == 1);
}

TEST_CASE("floors, openings, lines, holes and parts cut out are tried, each set of bits as deep as in the job") {
  Job job = workbench::board(400, 300, 12);
  job.blank.species = "black-walnut";
  workbench::add(job, "tray", {workbench::kBox, 80, 60}, {80, 80},
                 workbench::cut(Kind::Recess, 3, {"flat-1/4in", "flat-1/8in"}, ""));
  workbench::add(job, "shallow", {workbench::kBox, 60, 30}, {80, 150},
                 workbench::cut(Kind::Recess, 2, {"flat-1/4in", "flat-1/8in"}, ""));
  workbench::add(job, "slot", {workbench::kBox, 40, 20}, {200, 80}, workbench::cut(Kind::Pierce, 0));
  workbench::add(job, "rule", {workbench::kBox, 100, 20}, {200, 150}, workbench::cut(Kind::Line, 1.5, {}, "v90"));
  Treatment hole = workbench::cut(Kind::Drill, 6, {}, "flat-1/8in");
  workbench::add(job, "peg", {workbench::kBox, 6, 6}, {300, 80}, hole);
  workbench::add(job, "sign", {workbench::kBox, 340, 240}, {190, 140}, workbench::cut(Kind::CutOut, 0));
  const Plan p = workbench::planned(job);
  const std::vector<BitId> asked = untested(p);
  for (const char* bit : {"flat-1/4in", "flat-1/8in", "v90"})
    CHECK(std::find(asked.begin(), asked.end(), BitId(bit)) != asked.end());
  const Job test = test_cut_job(p);
  for (const BitId& bit : asked)
    CHECK(std::find(test.run.test_of.begin(), test.run.test_of.end(), bit) != test.run.test_of.end());
  CHECK(test.items.size() == 5);  // both trays are one
  REQUIRE(item_of(test, "Floor") != nullptr);
  CHECK(item_of(test, "Floor")->cut.depth == 3);
  CHECK(item_of(test, "Line")->cut.depth == 1.5);
  CHECK(item_of(test, "Hole")->cut.depth == 6);
  // Small, in the same wood as thick; its files cut what is asked, by the same bits as the job's.
  CHECK(test.blank.width < 320);
  CHECK(test.blank.height < 160);
  const Plan planned = workbench::planned(test);
  CHECK(planned.count(Grade::Stop) == 0);
  for (const Verdict& v : planned.verdicts) {  // round corners are those of the job
    INFO(v.text);
    if (v.grade == Grade::Mind) CHECK(v.code == "unreached");
  }
  CHECK(judge_files(planned, gcode_files(planned), glancing_cell(test.blank)).cut_as_wanted());
  std::set<BitId> there, here;
  for (const BitRun& run : p.runs) there.insert(run.bit.id);
  for (const BitRun& run : planned.runs) here.insert(run.bit.id);
  CHECK(here == there);
  // The part with its tabs is cut right through, as in the job.
  const HeightField wood = workbench::carved(planned, 0.2);
  CHECK(workbench::at(wood, item_of(test, "Opening")->piece.at) < -12);
  CHECK(workbench::at(wood, item_of(test, "Floor")->piece.at) == Approx(-3).margin(0.02));
  CHECK(workbench::at(wood, Point{box_of(test, "Cut out").left, box_of(test, "Cut out").bottom} + Point{4, 4}) == 0);
  Rack rack = load_shipped_rack();
  CHECK(keep_tested(rack, test));
  CHECK(untested(plan(job, rack, machine_for(job))).empty());
}

TEST_CASE("where nothing is cut that could be tried, it is said so") {
  Job job = workbench::board();
  workbench::add(job, "edge", {workbench::kBox, 60, 40}, {120, 80}, workbench::cut(Kind::Bevel, 3, {}, "v90"));
  CHECK(untested(workbench::planned(job)).empty());
  CHECK_THROWS_WITH(test_cut_job(workbench::planned(job)), Catch::Contains("a test could try"));
}
