// What goes round an inlay: where its figures start, the second boards, nesting, the ladder, the order of work, the
// woods, inserts and resin.
#include <numbers>

#include "inlaid.hpp"
#include "inlay/ladder.hpp"
#include "inlay/nest.hpp"
#include "inlay/schools.hpp"
#include "inlay/steps.hpp"
#include "json_reading.hpp"
#include "oracle.hpp"
#include "planning/fill.hpp"
#include "planning/sums.hpp"
#include "rack/own_rack.hpp"
#include "run/gcode.hpp"
#include "stock/species.hpp"
#include "treatments/inlay/figures.hpp"
#include "workbench.hpp"

using namespace doyen;
using inlaid::inlaid_board;
using inlaid::kBar;
using inlaid::kRectangle;
using inlaid::wide_rack;
using workbench::add;
using workbench::board;
using workbench::planned;
using Kind = Treatment::Kind;

namespace {

Job lid_job() {
  Job job = board(240, 140, 19);
  job.blank.species = "black-walnut";
  Treatment inlay;
  inlay.kind = Kind::Inlay;
  inlay.bit = "v60";
  inlay.depth = 5;
  add(job, "sprig", {kRectangle, 50, 30}, {120, 70}, inlay);
  Treatment bevel = workbench::cut(Kind::Bevel, 3);
  add(job, "edge", {kRectangle, 150, 80}, {120, 70}, bevel);
  add(job, "lid", {kRectangle, 150, 80}, {120, 70}, workbench::cut(Kind::CutOut, 0));
  return job;
}

bool has(const Plan& p, const char* code) { return workbench::find(p, code) != nullptr; }

}  // namespace

// 5.0, 3.8, 1.2 mm and 0.200, 0.150, 0.050 in (walks.md, checks.md); a stroke of 0.200 in closes at 0.1732 in at 60°.
TEST_CASE("an inlay's figures start from the usual ones, the strokes, the board and the ladder") {
  const Rack rack = load_rack();
  Bit v60 = *rack.find("v60");
  Blank blank;
  blank.readings = {19};
  LengthStyle mm, inch;
  mm.unit = Unit::Millimetre;
  inch.unit = Unit::Inch;
  InlayStart start = inlay_start(20, v60, blank, mm);
  CHECK(start.depth == Approx(5.0));
  CHECK(start.contact == Approx(3.8));
  CHECK(start.saw_gap == Approx(1.2));
  start = inlay_start(20, v60, blank, inch);
  CHECK(start.depth / kMmPerInch == Approx(0.200));
  CHECK(start.contact / kMmPerInch == Approx(0.150));
  CHECK(start.saw_gap / kMmPerInch == Approx(0.050));
  start = inlay_start(0.2 * kMmPerInch, v60, blank, inch);
  CHECK(start.depth / kMmPerInch == Approx(0.170));  // 0.1732, down to five thousandths
  CHECK(start.contact < start.depth);
  blank.readings = {6};
  CHECK(inlay_start(20, v60, blank, mm).depth == Approx(3.0));
  blank.readings = {19};
  v60.ladder_contact = 0.1;
  start = inlay_start(20, v60, blank, mm);
  CHECK(start.contact == Approx(3.9));
  CHECK(start.saw_gap == Approx(1.2));
  v60.ladder_contact = 9;  // nothing bottoms out by it
  CHECK(inlay_start(20, v60, blank, mm).contact < 5);
}

TEST_CASE("changing one figure says what moved") {
  LengthStyle mm;
  mm.unit = Unit::Millimetre;
  const Bit v = *load_rack().find("v60");
  Treatment before;
  before.kind = Kind::Inlay;
  before.bit = "v60";
  before.depth = 5;
  Treatment after = before;
  CHECK(what_moved(before, after, &v, mm).empty());
  after.inlay.contact = 3.5;
  const std::vector<std::string> lines = what_moved(before, after, &v, mm);
  REQUIRE(lines.size() == 4);
  CHECK(lines[0] == "glue gap 1.2 mm → 1.5 mm (+0.3 mm)");
  CHECK(lines[1] == "plug smaller by, each side 2.19 mm → 2.02 mm (−0.17 mm)");  // 3.8 and 3.5 × tan 30°
  after = before;
  after.inlay.saw_gap = 2;
  CHECK(what_moved(before, after, &v, mm).size() == 3);
}

TEST_CASE("shapes are nested without touching, and with less waste than rows") {
  std::mt19937 random(5);
  std::vector<Region> shapes;
  double rows_area = 0, x = 0, row = 0, y = 0, widest = 0;
  const double clear = 4;
  for (int i = 0; i < 9; ++i) {
    // Long triangles and angles, that waste most in rows.
    const double w = 30 + 5 * i, h = 20 + 3 * i;
    shapes.push_back(i % 2 == 0 ? clean({{{0, 0}, {w, 0}, {0, h}}})
                                : clean({{{0, 0}, {w, 0}, {w, 8}, {8, 8}, {8, h}, {0, h}}}));
    if (x + w + 2 * clear > 240) {
      y += row;
      x = row = 0;
    }
    x += w + 2 * clear;
    row = std::max(row, h + 2 * clear);
    widest = std::max(widest, x);
  }
  rows_area = widest * (y + row);
  const SetOut nested = nest(shapes, clear);
  CHECK(nested.width * nested.height < rows_area);
  std::vector<Region> laid;
  for (std::size_t i = 0; i < shapes.size(); ++i) {
    const Point middle = bounds(shapes[i]).centre();
    const double turn = nested.places[i].half_turn ? -1 : 1;
    laid.push_back(transformed(shapes[i], Transform{turn, 0, 0, turn, nested.places[i].at.x - turn * middle.x,
                                                    nested.places[i].at.y - turn * middle.y}));
    const Box box = bounds(laid.back());
    CHECK(box.left >= clear - 0.01);
    CHECK(box.bottom >= clear - 0.01);
    CHECK(box.right <= nested.width - clear + 0.01);
    CHECK(box.top <= nested.height - clear + 0.01);
    for (std::size_t k = 0; k < i; ++k) CHECK(intersect(grow(laid[i], 2 * clear - 0.05), laid[k]).empty());
  }
  CHECK(nest({shapes[0]}, clear).width == Approx(30 + 2 * clear).margin(3));
}

TEST_CASE("plugs that lie turned by half on their board still close") {
  Job job = board(300, 200, 20);
  job.blank.species = "black-walnut";
  Treatment inlay;
  inlay.kind = Kind::Inlay;
  inlay.bit = "v60";
  inlay.depth = 4;
  inlay.inlay.contact = 3;
  for (int i = 0; i < 4; ++i) {
    const Region wedge = clean({{{0, 0}, {60, 0}, {0, 34}}});
    Item item{{"w" + std::to_string(i), "W", frozen({wedge, {}, {}, {}, {}, {}}, "w"), {60.0 + 60 * i, 100}, 0}, inlay};
    job.items.push_back(item);
  }
  const Rack rack = wide_rack();
  const Plan pocket = plan(job, rack, machine_for(job));
  const std::vector<FurtherBoard> boards = plug_boards(job);
  REQUIRE(boards.size() == 1);
  int turned = 0;
  const Plan plug = plan(boards[0].job, rack, machine_for(boards[0].job));
  CHECK_FALSE(plug.has_stop());
  for (const PlugPlace& place : boards[0].places) {
    turned += place.half_turn;
    const Fit fit = fit_of(pocket, plug, place, 0.1);
    INFO(place.piece << (place.half_turn ? " turned" : ""));
    CHECK(std::abs(fit.rides_up) < 0.02);
    CHECK(fit.overlap == 0);
    CHECK(fit.glue_gap == Approx(1).margin(0.02));
  }
  CHECK(turned > 0);  // wedges lie head to tail
  CHECK(turned < 4);
}

TEST_CASE("the ladder steps the contact, labels both boards, and its answer is kept in the rack") {
  Rack rack = load_rack();
  Job like = board(200, 100, 19);
  like.blank.species = "black-walnut";
  Treatment cut;
  cut.kind = Kind::Inlay;
  cut.bit = "v60";
  cut.depth = 5;
  const Job ladder = ladder_job(like, cut, rack);
  std::vector<double> contacts;
  int labels = 0;
  for (const Item& item : ladder.items) {
    if (item.cut.kind == Kind::Inlay) contacts.push_back(item.cut.inlay.contact);
    labels += item.cut.kind == Kind::Line;
  }
  REQUIRE(contacts.size() == 5);
  CHECK(labels == 5);
  for (int i = 0; i < 5; ++i) CHECK(contacts[static_cast<std::size_t>(i)] == Approx(3.6 + 0.1 * i));
  const Plan p = plan(ladder, rack, machine_for(ladder));
  CHECK_FALSE(p.has_stop());
  CHECK(p.count(Grade::Mind) == 0);
  const std::vector<FurtherBoard> boards = plug_boards(ladder);
  REQUIRE(boards.size() == 1);
  int on_plugs = 0;
  for (const Item& item : boards[0].job.items) {
    if (item.cut.kind != Kind::Line) continue;
    ++on_plugs;
    CHECK(std::get<Lettering>(item.piece.what).words.size() >= 1);
  }
  CHECK(on_plugs == 5);
  const Plan plugs = plan(boards[0].job, rack, machine_for(boards[0].job));
  CHECK_FALSE(plugs.has_stop());
  for (const PlugPlace& place : boards[0].places) CHECK_FALSE(place.half_turn);  // figures stay upright
  // Each rung really sits so much deeper: the glue gap says it.
  for (std::size_t i = 0; i < 5; i += 2) {
    const Fit fit = fit_of(p, plugs, boards[0].places[i], 0.1);
    const Item* rung = ladder.find(boards[0].places[i].piece);
    CHECK(fit.glue_gap == Approx(5 - rung->cut.inlay.contact).margin(0.01));
    CHECK(std::abs(fit.rides_up) < 0.01);
  }
  // The job file keeps the rungs, the rack the answer, and the next ladder starts from there.
  const Job again = read_job(write_job(ladder), "ladder");
  CHECK(again.find("rung-4")->cut == ladder.find("rung-4")->cut);
  CHECK(keep_answer(rack, ladder.find("rung-4")->cut) == rack.find("v60")->name);
  CHECK(*read_rack(write_rack(rack), "rack").find("v60")->ladder_contact == Approx(0.1));
  cut.inlay.contact = 3.9;
  const Job next = ladder_job(like, cut, rack);
  CHECK(*next.find("rung-3")->cut.inlay.rung == Approx(0.1));
  CHECK(keep_answer(rack, cut).empty());  // no rung
  // Upright: allowances from none upwards, kept for the flat bit.
  cut.inlay.sloped = false;
  cut.clearing = {"flat-1/8in"};
  const Job upright = ladder_job(like, cut, rack, {4, 0.1});
  CHECK(upright.find("rung-1")->cut.inlay.allowance == 0);
  CHECK(upright.find("rung-4")->cut.inlay.allowance == Approx(0.15));
  CHECK(keep_answer(rack, upright.find("rung-2")->cut) == rack.find("flat-1/8in")->name);
  CHECK(*rack.find("flat-1/8in")->ladder_allowance == Approx(0.05));
}

TEST_CASE("bevels and cut-outs wait for the second run, and what is cut over a plug, too") {
  Job job = lid_job();
  Treatment letters;
  letters.kind = Kind::Incise;
  letters.bit = "v60";
  add(job, "on-plug", {kRectangle, 20, 4}, {120, 70}, letters);
  add(job, "beside", {kRectangle, 20, 4}, {60, 40}, letters);
  const Plan p = planned(job);
  REQUIRE_FALSE(p.has_stop());
  REQUIRE(p.has_later());
  bool second = false;
  for (const BitRun& run : p.runs) {
    if (second) CHECK(run.later);
    second = run.later;
    for (const Operation* op : run.operations) {
      const bool waits = op->piece != "sprig" && op->piece != "beside";
      INFO(op->piece);
      CHECK(run.later == waits);
    }
    CHECK((run.file.find("glued") != std::string::npos) == run.later);
  }
  CHECK(read_back(p, gcode_files(p), 0.2).agrees());
  CHECK(has(p, "second-run"));
  CHECK(plan_json(p)["files"].back()["afterGluing"] == true);
  // One file a run where one is asked for.
  job.run.one_file = true;
  const Plan one = planned(job);
  const std::vector<OutputFile> files = gcode_files(one);
  REQUIRE(files.size() == 2);
  CHECK(files[0].name == "01-new-sign-all-bits.nc");
  CHECK(files[1].name == "02-new-sign-glued-all-bits.nc");
  CHECK(read_back(one, files, 0.2).agrees());
  // In one run it is told what clamping does then, and one button mends it.
  job.run.cut_out_last = false;
  Plan early = planned(job);
  CHECK_FALSE(early.has_later());
  const Verdict* told = workbench::find(early, "after-gluing");
  REQUIRE(told != nullptr);
  CHECK_THAT(told->why + workbench::find(early, "after-gluing")->text, Catch::Contains("glued"));
  REQUIRE_FALSE(told->remedies.empty());
  told->remedies[0].apply(job);
  CHECK(planned(job).has_later());
  // Without inlays there is one run as ever.
  job.items.erase(job.items.begin());
  CHECK_FALSE(planned(job).has_later());
}

TEST_CASE("the steps from two boards to one name boards, files and cautions in the order of the trade") {
  Job job = lid_job();
  const Plan p = planned(job);
  const std::vector<InlayStep> steps = inlay_steps(p);
  std::string all;
  for (const InlayStep& step : steps) all += step.board + ": " + step.words + " " + step.caution + "\n";
  std::size_t at = 0;
  for (const char* word : {"pockets", "Plugs of Sugar maple", "plugs-sugar-maple", "mirrored", "Glue", "Clamp", "Wait",
                           "Saw the plugs off", "Sand", "Second run", "glued-"}) {
    INFO(word);
    const std::size_t next = all.find(word, at);
    CHECK(next != std::string::npos);
    if (next != std::string::npos) at = next;
  }
  CHECK_THAT(all, Catch::Contains("Fingers clear of the saw"));
  CHECK(inlay_steps(planned(board())).empty());

  const Rack rack = load_rack();
  for (const KeepZero how : {KeepZero::Marks, KeepZero::Pins}) {
    REQUIRE(keep_zero_by(job, how, rack) == 2);
    const Plan marked = planned(job);
    for (const Verdict& v : marked.verdicts) {
      INFO(v.text);
      CHECK(v.grade != Grade::Stop);
    }
    const Region lid = job.outlines(*job.find("lid")).region;
    for (const char* id : {"witness-1", "witness-2"}) {
      const Box box = bounds(job.outlines(*job.find(id)));
      CHECK(intersect(
                grow(lid, 3),
                clean({{{box.left, box.bottom}, {box.right, box.bottom}, {box.right, box.top}, {box.left, box.top}}}))
                .empty());
      CHECK(job.blank.box().grown(-2.5).contains({box.left, box.bottom}));
    }
    for (const BitRun& run : marked.runs) {
      for (const Operation* op : run.operations) {
        if (op->piece.starts_with("witness")) CHECK_FALSE(run.later);  // there before the board leaves the machine
      }
    }
    CHECK_THAT(inlay_steps(marked).back().words, Catch::Contains(how == KeepZero::Marks ? "witness marks" : "pins"));
    CHECK(read_job(write_job(job), "j").run == job.run);
  }
  CHECK(keep_zero_by(job, KeepZero::Corner, rack) == 0);
  CHECK(job.find("witness-1") == nullptr);
  for (const char* id : {"edge", "lid"})  // no waste at the ends
    job.find(id)->piece.what = PlainShape{kRectangle, 232, 132};
  CHECK(keep_zero_by(job, KeepZero::Marks, rack) == 0);
}

TEST_CASE("plugs are milled level from a zero on the board's own face, a hair above it") {
  Job job = lid_job();
  job.run.mill_level = 4;
  const Rack rack = load_rack();
  const std::vector<FurtherBoard> boards = levelling_boards(job, rack);
  REQUIRE(boards.size() == 1);
  const Plan p = plan(boards[0].job, rack, machine_for(boards[0].job));
  CHECK_FALSE(p.has_stop());
  REQUIRE(p.runs.size() == 1);
  CHECK_THAT(zero_in_words(boards[0].job), Catch::Contains("own face"));
  // In the file's own figures the deepest move is 0.1 mm above zero, the carrying board's face.
  double lowest = 1e300;
  for (const OutputFile& file : gcode_files(p)) {
    for (const GcodeSection& section : read_gcode(file.text, file.name, 4).sections) {
      for (const Pass& pass : section.passes) {
        for (const Point3& at : pass.points) lowest = std::min(lowest, at.z);
      }
    }
  }
  CHECK(lowest == Approx(0.1).margin(0.001));
  // All of the plug's background lies under it.
  const HeightField f = relief_of(p, p.job.blank.box(), 0.5);
  for (const Point at : {Point{120, 70}, Point{120 + 25 + 7.5, 70}, Point{120, 70 - 15 - 7.5}})
    CHECK(workbench::at(f, at) == Approx(-3.9).margin(0.001));
  CHECK(read_back(p, gcode_files(p), 0.3).agrees());
  job.run.mill_level.reset();
  CHECK(levelling_boards(job, rack).empty());
}

// ΔW = W·C·ΔM (geometry.md); coefficients from the table of woods.
TEST_CASE("woods that fight are told: movement by stated moisture, crossed grain, hardness, pores, resin") {
  const auto told = [](const std::function<void(Job&)>& change) {
    Job job = board(400, 300, 20);
    job.blank.species = "black-walnut";
    Treatment inlay;
    inlay.kind = Kind::Inlay;
    inlay.bit = "v60";
    inlay.depth = 5;
    add(job, "art", {kRectangle, 120, 100}, {200, 150}, inlay);
    change(job);
    return planned(job);
  };
  const Species &maple = *species_table().find("sugar-maple"), &walnut = *species_table().find("black-walnut");
  CHECK(maple.change_tangential > walnut.change_tangential);
  // Along the board's grain on both: only the difference over the 100 mm across it.
  const double alike = 100 * (maple.change_tangential - walnut.change_tangential) * 4;
  CHECK(has(told([](Job&) {}), "woods-move-apart") == (alike > 0.15));
  const Plan wet = told([](Job& j) { j.items[0].cut.inlay.moisture = 20; });
  const Verdict* v = workbench::find(wet, "woods-move-apart");
  REQUIRE(v != nullptr);
  CHECK_THAT(v->text, Catch::Contains("20 %") && Catch::Contains(depth_in_words(5 * alike, wet.job.lengths)));
  CHECK_FALSE(has(told([](Job& j) { j.items[0].cut.inlay.moisture = 0; }), "woods-move-apart"));
  // Crossed, the maple moves by all of its own along the board's width, where the walnut does not.
  Plan crossed = told([](Job& j) { j.items[0].cut.inlay.crossed = true; });
  v = workbench::find(crossed, "woods-move-apart");
  REQUIRE(v != nullptr);
  CHECK_THAT(v->text, Catch::Contains(depth_in_words(120 * maple.change_tangential * 4, crossed.job.lengths)));
  REQUIRE_FALSE(v->remedies.empty());
  Job mended = crossed.job;
  v->remedies[0].apply(mended);
  CHECK_FALSE(mended.items[0].cut.inlay.crossed);
  CHECK(plug_boards(crossed.job)[0].job.blank.grain == Grain::AlongHeight);
  CHECK(has(told([](Job&) {}), "pores-take-dust"));  // pale maple in open-pored walnut
  CHECK_FALSE(has(told([](Job& j) { j.blank.species = "black-cherry"; }), "pores-take-dust"));
  CHECK(has(told([](Job& j) { j.items[0].cut.inlay.wood = "basswood"; }), "hardness-differs"));
  CHECK(has(told([](Job& j) { j.blank.species = "teak"; }), "resin-keeps-glue-off"));
  // Easing that swallows a thin stroke says so; rounding a square's corners does not.
  CHECK_FALSE(has(told([](Job& j) { j.items[0].cut.inlay.ease = 2; }), "eased-away"));
  const Plan thin = told([](Job& j) {
    j.items[0].piece.what = PlainShape{kRectangle, 60, 3};
    j.items[0].cut.inlay.ease = 2;
  });
  CHECK(has(thin, "eased-away"));
}

TEST_CASE("ways to make an inlay: what is lost, how exact, what snaps, how long") {
  Job job = board(200, 140, 20);
  job.blank.species = "black-walnut";
  Treatment inlay;
  inlay.kind = Kind::Inlay;
  inlay.bit = "v60";
  inlay.depth = 5;
  // A bar with a thin stem: 2 mm wide, standing 5 mm high when upright.
  const Region art = unite(oracle::rectangle(80, 60, 40, 20), oracle::rectangle(120, 69, 30, 2));
  Item item{{"art", "Art", frozen({art, {}, {}, {}, {}, {}}, "a"), {115, 70}, 0}, inlay};
  job.items.push_back(item);
  const Rack rack = load_rack();
  const std::vector<InlayWay> ways = ways_to_inlay(job, "art", rack);
  const InlayWay *alone = nullptr, *upright = nullptr;
  for (const InlayWay& way : ways) {
    INFO(way.name);
    CHECK(way.problem.empty());
    CHECK(way.seconds > 0);
    if (way.cut.inlay.v_alone) alone = &way;
    if (!way.cut.inlay.sloped && upright == nullptr) upright = &way;
  }
  REQUIRE(alone != nullptr);
  REQUIRE(upright != nullptr);
  CHECK(alone->bit_changes == 0);
  CHECK(alone->lost < 0.01);
  CHECK(alone->seconds > ways[0].seconds);  // floors by the V's tip take long
  CHECK(alone->snapping == 0);
  CHECK(alone->play == 0);
  // A 1/8 in bit does not go into a 2 mm stem: all 60 mm² of it and the bar's corners are lost.
  CHECK(upright->lost > 55);
  CHECK(upright->snapping == 0);
  // A 1/16 in bit makes it, and it stands thinner than high.
  CHECK(ways.back().lost < 5);
  CHECK(ways.back().snapping == 1);
  CHECK(ways.back().thinnest == Approx(2).margin(0.3));
  CHECK(upright->play == Approx(0.16));
  double shown = 0;
  for (const Region& r : upright->lost_where) shown += area(r);
  CHECK(shown == Approx(upright->lost).epsilon(0.01));
  CHECK_THAT(upright->exact, Catch::Contains("sideways"));
  CHECK(ways_to_inlay(job, "nothing", rack).empty());
}

TEST_CASE("the least easing lets a tip flat seat, and no less does") {
  Rack rack = wide_rack();
  for (Bit& bit : rack.bits) {
    if (bit.id == "v60") bit.tip = 0.4;
  }
  Job job = board(120, 90, 20);
  job.blank.species = "black-walnut";
  Treatment inlay;
  inlay.kind = Kind::Inlay;
  inlay.bit = "v60";
  inlay.depth = 3;
  inlay.inlay.contact = 2;
  add(job, "art", {kRectangle, 24, 16}, {60, 45}, inlay);
  const double ease = least_ease(job, "art", rack, 0.02);
  CHECK(ease > 0.1);
  CHECK(ease <= ease_that_seats(inlay.inlay, *rack.find("v60")) + 0.011);
  const auto rides = [&](double radius) {
    job.items[0].cut.inlay.ease = radius;
    const Plan pocket = plan(job, rack, machine_for(job));
    const FurtherBoard plugs = plug_boards(job).at(0);
    return fit_of(pocket, plan(plugs.job, rack, machine_for(job)), plugs.places[0], 0.03).rides_up;
  };
  CHECK(rides(ease) < 0.025);
  CHECK(rides(ease * 0.7) > 0.025);
  for (Bit& bit : rack.bits) bit.tip = 0;
  job.items[0].cut.inlay.ease = 0;
  CHECK(least_ease(job, "art", rack) == 0);
}

TEST_CASE("an insert is cut from its own sheet, smaller by the clearance and as round as its recess") {
  Job job = board(200, 140, 18);
  Treatment recess = workbench::cut(Kind::Recess, 3, {"flat-1/8in"});
  recess.insert.thickness = 3;
  recess.insert.clearance = 0.2;
  recess.insert.cut = true;
  recess.insert.material = "acrylic";
  add(job, "badge", {kRectangle, 40, 25}, {80, 70}, recess);
  const Rack rack = load_rack();
  const std::vector<FurtherBoard> sheets = insert_boards(job, rack);
  REQUIRE(sheets.size() == 1);
  CHECK(sheets[0].folder == "inserts-acrylic-3-mm");
  CHECK(sheets[0].job.blank.thickest() == Approx(3));
  const Plan p = plan(sheets[0].job, rack, machine_for(sheets[0].job));
  for (const Verdict& v : p.verdicts) {
    INFO(v.text);
    CHECK(v.grade != Grade::Stop);
  }
  const Region piece = sheets[0].job.outlines(sheets[0].job.items[0]).region;
  CHECK(bounds(piece).width() == Approx(39.6).margin(0.005));
  CHECK(bounds(piece).height() == Approx(24.6).margin(0.005));
  // Corners of radius r − clearance: (4 − π) of it squared are missing (geometry.md).
  const double r = 3.175 / 2 - 0.2;
  CHECK(area(piece) == Approx(39.6 * 24.6 - (4 - std::numbers::pi) * r * r).margin(0.02));
  // It goes in: the recess as carved has room all round it.
  const Plan carrying = planned(job);
  const HeightField f = workbench::carved(carrying, 0.05);
  const Region lying =
      transformed(piece, Transform::move(80 - bounds(piece).centre().x, 70 - bounds(piece).centre().y));
  std::size_t stands = 0;
  for (std::size_t rr = 0; rr < f.rows(); ++rr) {
    for (std::size_t c = 0; c < f.columns(); ++c)
      stands += f.at(c, rr) > -2.999F && contains(lying, {f.x_of(c), f.y_of(rr)});
  }
  CHECK(stands == 0);
  job.items[0].cut.insert.cut = false;
  CHECK(insert_boards(job, rack).empty());
  const Job again = read_job(write_job(carrying.job), "again");
  CHECK(again.items[0].cut == carrying.job.items[0].cut);
}

// A roof over a rectangle: w²/4·(L − w) + w³/6 for flanks of 45° (any handbook of mathematics).
TEST_CASE("resin: the volume under the surface from the carved relief") {
  Job job = board(200, 140, 18);
  Treatment groove;
  groove.kind = Kind::Incise;
  groove.bit = "v90";
  groove.resin = true;
  add(job, "bar", {kRectangle, 60, 10}, {100, 40}, groove);
  Treatment recess = workbench::cut(Kind::Recess, 4, {"flat-1/8in"});
  recess.insert.thickness = 2.5;
  recess.insert.clearance = 0;
  recess.insert.cover = 1.5;
  add(job, "coin", {PlainShape::Kind::Ellipse, 30, 30}, {100, 100}, recess);
  const Plan p = planned(job);
  const ResinFill bar = fill_of(p, "bar");
  CHECK(bar.volume == Approx(100.0 / 4 * 50 + 1000.0 / 6).epsilon(0.005));
  CHECK(bar.insert == 0);
  const ResinFill coin = fill_of(p, "coin");
  const double disc = std::numbers::pi * 15 * 15;
  CHECK(coin.volume == Approx(disc * 4).epsilon(0.005));
  CHECK(coin.insert == Approx(disc * 2.5).epsilon(0.002));
  CHECK(coin.resin() == Approx(disc * 1.5).epsilon(0.01));
  const Sum sum = resin_sum(p, "bar");
  CHECK(sum.result == "= " + format_number(bar.volume * 1.1 / 1000, 1) + " ml to mix");
  CHECK(fill_of(p, "nothing").volume == 0);
  CHECK(read_job(write_job(job), "j").items[0].cut.resin);
}
