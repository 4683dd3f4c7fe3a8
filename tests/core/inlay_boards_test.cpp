// The further boards and the second run in the cases that shops meet: several woods and bits, two rows of rungs, sheets
// of inserts, the user's own order, clamps where marks would go.
#include <numbers>
#include <set>

#include "inlaid.hpp"
#include "inlay/ladder.hpp"
#include "inlay/steps.hpp"
#include "oracle.hpp"
#include "planning/fill.hpp"
#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"
#include "workbench.hpp"

using namespace doyen;
using inlaid::inlay_of;
using inlaid::kRectangle;
using inlaid::walnut;
using workbench::add;
using workbench::board;
using workbench::planned;
using Kind = Treatment::Kind;

namespace {}  // namespace

TEST_CASE("plugs are sorted by wood and grain, each board as thick as its thickest plug asks") {
  Job job = walnut(260, 180);
  add(job, "a", {kRectangle, 40, 20}, {60, 60}, inlay_of());
  add(job, "b", {kRectangle, 30, 20}, {150, 60}, inlay_of());
  add(job, "c", {kRectangle, 30, 20}, {60, 130}, inlay_of(5, 3.8, "sugar-maple", true));
  add(job, "d", {kRectangle, 30, 20}, {150, 130}, inlay_of(5, 3.8, "black-cherry"));
  job.items[1].cut.inlay.thickness = 16;
  const std::vector<FurtherBoard> boards = plug_boards(job);
  REQUIRE(boards.size() == 3);
  CHECK(boards[0].folder == "plugs-sugar-maple");
  CHECK(boards[0].places.size() == 2);
  CHECK(boards[0].job.blank.thickest() == Approx(16));
  CHECK(boards[0].job.blank.grain == Grain::AlongWidth);
  CHECK(boards[1].folder == "plugs-crossed-sugar-maple");
  CHECK(boards[1].job.blank.grain == Grain::AlongHeight);
  CHECK(boards[2].folder == "plugs-black-cherry");
  for (const FurtherBoard& one : boards) {
    CHECK_FALSE(one.job.run.mill_level);
    CHECK(one.job.run.machine == job.run.machine);
    CHECK(read_job(write_job(one.job), "plugs") == one.job);  // it can be kept and opened again
    for (const Item& item : one.job.items) CHECK(item.cut.kind == Kind::Plug);
  }
  // What hangs on the carrying board only: its film, its back, what is cut last.
  job.blank.film = 0.3;
  CHECK(plug_boards(job)[0].job.blank.film == 0);
}

TEST_CASE("many rungs stand in two rows, in inches when the job does") {
  Job like = walnut(260, 180);
  like.lengths.unit = Unit::Inch;
  Treatment cut = inlay_of();
  cut.depth = 0.2 * kMmPerInch;
  cut.inlay.contact = 0.15 * kMmPerInch;
  const Job ladder = ladder_job(like, cut, load_rack(), {8, 0.005 * kMmPerInch});
  std::set<long> rows;
  int rungs = 0;
  for (const Item& item : ladder.items) {
    if (item.cut.kind != Kind::Inlay) continue;
    ++rungs;
    rows.insert(std::lround(item.piece.at.y));
    CHECK(ladder.blank.box().grown(-4).contains(item.piece.at));
  }
  CHECK(rungs == 8);
  CHECK(rows.size() == 2);
  // 0.1325 to 0.1675 in by 0.005: about the 0.150 that was asked.
  CHECK(ladder.find("rung-1")->cut.inlay.contact / kMmPerInch == Approx(0.1325));
  CHECK(ladder.find("rung-8")->cut.inlay.contact / kMmPerInch == Approx(0.1675));
  const Plan p = planned(ladder);
  for (const Verdict& v : p.verdicts) {
    INFO(v.text);
    CHECK(v.grade == Grade::Note);
  }
  // Too few and too many are taken to what makes sense.
  CHECK(ladder_job(like, cut, load_rack(), {0, 0.1}).items.size() == 4);
  CHECK(ladder_job(like, cut, load_rack(), {900, 0.01}).items.size() == 24);
}

TEST_CASE("inserts of one sheet are nested on it, and their corners follow the recess's") {
  Job job = walnut(260, 180);
  Treatment recess = workbench::cut(Kind::Recess, 3, {"flat-1/4in"});
  recess.insert.thickness = 2;
  recess.insert.clearance = 0.1;
  recess.insert.cut = true;
  recess.insert.material = "brass";
  add(job, "a", {kRectangle, 30, 20}, {60, 60}, recess);
  recess.insert.corners = Insert::Corners::Round;  // eased by holes: the insert may stay sharp
  add(job, "b", {kRectangle, 30, 20}, {150, 60}, recess);
  recess.insert.thickness = 3;  // another sheet
  add(job, "c", {PlainShape::Kind::Ellipse, 20, 20}, {60, 130}, recess);
  const Rack rack = load_rack();
  const std::vector<FurtherBoard> sheets = insert_boards(job, rack);
  REQUIRE(sheets.size() == 2);
  REQUIRE(sheets[0].job.items.size() == 2);
  const auto area_of = [&](std::size_t sheet, std::size_t i) {
    return area(sheets[sheet].job.outlines(sheets[sheet].job.items[i]).region);
  };
  const double r = 6.35 / 2 - 0.1, sharp = 29.8 * 19.8;
  CHECK(area_of(0, 0) == Approx(sharp - (4 - std::numbers::pi) * r * r).margin(0.05));
  CHECK(area_of(0, 1) == Approx(sharp).margin(0.01));
  CHECK(area_of(1, 0) == Approx(std::numbers::pi * 9.9 * 9.9).epsilon(0.001));
  // A clearance that eats the insert leaves none, and no empty sheet.
  for (Item& item : job.items) item.cut.insert.clearance = 15;
  CHECK(insert_boards(job, rack).empty());
}

TEST_CASE("the user's own order holds within each run: nothing of the second comes before gluing") {
  Job job = walnut(260, 180);
  add(job, "art", {kRectangle, 40, 20}, {130, 90}, inlay_of());
  Treatment letters;
  letters.kind = Kind::Incise;
  letters.bit = "v90";
  add(job, "words", {kRectangle, 40, 4}, {130, 130}, letters);
  add(job, "lid", {kRectangle, 200, 130}, {130, 90}, workbench::cut(Kind::CutOut, 0));
  job.run.order = {"flat-1/4in#out", "v90", "v60"};
  const Plan p = planned(job);
  REQUIRE(p.has_later());
  CHECK(p.runs.back().later);
  for (std::size_t i = 0; i + 1 < p.runs.size(); ++i) CHECK_FALSE(p.runs[i].later);
  std::size_t v90 = 99, v60 = 99;
  for (std::size_t i = 0; i < p.runs.size(); ++i) {
    if (p.runs[i].bit.id == "v90") v90 = i;
    if (p.runs[i].bit.id == "v60") v60 = i;
  }
  CHECK(v90 < v60);  // as wished
  CHECK(workbench::find(p, "cut-out-early") == nullptr);
  CHECK(read_back(p, gcode_files(p), 0.3).agrees());
}

TEST_CASE("bevels wait with the cut-out, back work comes first, and a back that is cut out comes last") {
  Job job = walnut(260, 180);
  add(job, "art", {kRectangle, 40, 20}, {130, 90}, inlay_of());
  add(job, "edge", {kRectangle, 200, 130}, {130, 90}, workbench::cut(Kind::Bevel, 3));
  add(job, "lid", {kRectangle, 200, 130}, {130, 90}, workbench::cut(Kind::CutOut, 0));
  Treatment back = workbench::cut(Kind::Recess, 4, {"flat-1/4in"});
  back.back = true;
  add(job, "felt", {kRectangle, 60, 40}, {130, 90}, back);
  Plan p = planned(job);
  CHECK(p.runs.front().side == Side::Back);
  CHECK_FALSE(p.runs.front().later);
  CHECK(p.runs.back().later);
  CHECK(read_back(p, gcode_files(p), 0.3).agrees());
  for (const BitRun& run : p.runs) {
    for (const Operation* op : run.operations) CHECK(run.later == (op->piece == "edge" || op->piece == "lid"));
  }
  job.find("lid")->cut.back = true;  // now the back frees it
  p = planned(job);
  CHECK(p.runs.back().side == Side::Back);
  CHECK(p.runs.back().later);
  CHECK(read_back(p, gcode_files(p), 0.3).agrees());
}

TEST_CASE("marks keep clear of clamps, other pieces and the sign, on tall boards and oval ones") {
  const Rack rack = load_rack();
  Job job = walnut(120, 300);
  add(job, "art", {kRectangle, 40, 40}, {60, 150}, inlay_of());
  add(job, "lid", {kRectangle, 90, 220}, {60, 150}, workbench::cut(Kind::CutOut, 0));
  job.blank.keep_outs = {{KeepOut::Kind::Clamp, 60, 12, 50, 24}, {KeepOut::Kind::Screw, 60, 288, 10, 10}};
  REQUIRE(keep_zero_by(job, KeepZero::Marks, rack) == 2);
  const Box first = bounds(job.outlines(*job.find("witness-1"))), second = bounds(job.outlines(*job.find("witness-2")));
  CHECK(first.top < 40);  // one at each end of the longer side
  CHECK(second.bottom > 260);
  for (const KeepOut& place : job.blank.keep_outs) {
    CHECK_FALSE(place.box().meets(first));
    CHECK_FALSE(place.box().meets(second));
  }
  const Plan p = planned(job);
  for (const Verdict& v : p.verdicts) {
    INFO(v.text);
    CHECK(v.grade != Grade::Stop);
    CHECK_FALSE(v.piece.starts_with("witness"));
  }
  job.blank.form = BlankForm::Oval;
  job.blank.keep_outs.clear();
  job.find("lid")->piece.what = PlainShape{PlainShape::Kind::Ellipse, 80, 220};
  const int set = keep_zero_by(job, KeepZero::Marks, rack);
  for (int i = 1; i <= set; ++i) {
    const Box box = bounds(job.outlines(*job.find("witness-" + std::to_string(i))));
    const Region wood = region_of(job.blank);
    for (const Point corner : {Point{box.left, box.bottom}, Point{box.right, box.top}}) CHECK(contains(wood, corner));
  }
  // Without a cut-out there is no waste to mark.
  std::erase_if(job.items, [](const Item& item) { return item.piece.id == "lid"; });
  CHECK(keep_zero_by(job, KeepZero::Pins, rack) == 0);
  CHECK(job.find("witness-1") == nullptr);
}

TEST_CASE("what an upright joint forgives: heights by the glue gap, sideways nothing beyond its play") {
  const inlaid::Both h = inlaid::inlaid_board(inlaid::kBar, {100, 80}, inlaid::wide_rack(), [](Treatment& t) {
    t.inlay.sloped = false;
    t.inlay.allowance = 0.1;
    t.inlay.ease = 1.61;
    t.clearing = {"flat-1/8in"};
  });
  const std::vector<Forgiven> rows = what_it_forgives(halves_of(h.pocket, h.plug, h.place), 0.08);
  CHECK(rows.size() == 5);  // no flank to be blunter, no tip
  for (const Forgiven& row : rows) {
    CHECK(row.fault.angle == 0);
    CHECK(row.fault.tip < 0);
    // The play on each side stands open whatever the zero.
    if (row.fault.tilt == 0) CHECK(row.open_line == Approx(0.1).margin(0.17));
    if (row.fault.pocket_zero != 0) CHECK(row.glue_gap == Approx(1.2 - row.fault.pocket_zero).margin(0.02));
  }
}

TEST_CASE("resin in a line's groove is the groove's own section times its length") {
  Job job = walnut(260, 180);
  Item line{{"line", "Line", PlainShape{PlainShape::Kind::Line, 100, 0}, {130, 90}, 0}, {}};
  line.cut.kind = Kind::Line;
  line.cut.bit = "v90";
  line.cut.depth = 3;
  line.cut.resin = true;
  job.items.push_back(line);
  // A triangle 6 wide and 3 deep over 100 mm, and a cone of radius 3 and depth 3, half at either end.
  const double volume = 9 * 100 + std::numbers::pi * 9 * 3 / 3;
  CHECK(fill_of(planned(job), "line").volume == Approx(volume).epsilon(0.01));
}
