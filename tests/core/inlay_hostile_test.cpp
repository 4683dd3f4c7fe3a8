// Inlays of anything: thin, tiny, many, impossible figures, odd grounds; and every machine profile. Nothing crashes,
// nothing is written that does not fit, and what cannot be is said in a sentence.
#include "inlaid.hpp"
#include "inlay/ladder.hpp"
#include "inlay/nest.hpp"
#include "inlay/schools.hpp"
#include "inlay/steps.hpp"
#include "json_reading.hpp"
#include "oracle.hpp"
#include "planning/fill.hpp"
#include "planning/further_boards.hpp"
#include "planning/outputs.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "stock/species.hpp"
#include "workbench.hpp"

using namespace doyen;
using inlaid::inlay_of;
using inlaid::kRectangle;
using inlaid::walnut;
using workbench::add;
using workbench::board;
using workbench::planned;
using Kind = Treatment::Kind;

namespace {

Item drawn(const std::string& id, const Region& region, Point at, const Treatment& cut) {
  return {{id, id, frozen({region, {}, {}, {}, {}, {}}, id), at, 0}, cut};
}

// Both boards of everything in the job, mated; checks that none of it throws.
int mated(const Job& job, const Rack& rack, const std::function<void(const Fit&, const Item&)>& look) {
  const Plan pocket = plan(job, rack, machine_for(job));
  int n = 0;
  for (const FurtherBoard& one : plug_boards(job)) {
    const Plan plug = plan(one.job, rack, machine_for(one.job));
    for (const PlugPlace& place : one.places) {
      look(fit_of(pocket, plug, place, 0.1), *job.find(place.piece));
      ++n;
    }
  }
  return n;
}

}  // namespace

TEST_CASE("cells inside a region are those whose middles lie in it") {  // brute force, cell by cell
  std::mt19937 random(19);
  for (int i = 0; i < 6; ++i) {
    Region region = clean({oracle::random_ring(random, {20, 15}, 4, 14, 5 + 4 * i)});
    if (i % 2 == 1) region = subtract(region, clean({oracle::random_ring(random, {20, 15}, 1, 3.5, 6)}));
    const HeightField field({-3.3, -2.1, 41, 33}, 0.37);
    const std::vector<unsigned char> inside = cells_inside(region, field);
    std::size_t wrong = 0;
    for (std::size_t r = 0; r < field.rows(); ++r) {
      for (std::size_t c = 0; c < field.columns(); ++c)
        wrong += (inside[r * field.columns() + c] != 0) != contains(region, {field.x_of(c), field.y_of(r)});
    }
    CHECK(wrong == 0);
  }
  // Corners that lie on the rows' very middles, as near as figures can tell.
  const HeightField even({0, 0, 30, 30}, 0.1);
  for (int i = 0; i < 40; ++i) {
    const double y = even.y_of(static_cast<std::size_t>(20 + 5 * i)), x = 3 + 0.31 * i;
    Region spike;
    spike.islands.push_back({{Ring{{x, y - 1.7}, {x + 9, y}, {x + 4, y + 2.3}, {x - 2, y}}}});
    const std::vector<unsigned char> inside = cells_inside(spike, even);
    for (const std::size_t r :
         {std::size_t{19} + 5 * static_cast<std::size_t>(i), std::size_t{20} + 5 * static_cast<std::size_t>(i)}) {
      CHECK(inside[r * even.columns() + even.columns() - 1] == 0);  // nothing runs on past the last corner
      CHECK(inside[r * even.columns()] == 0);
    }
  }
  const HeightField small({0, 0, 2, 2}, 0.5);
  for (const unsigned char cell : cells_inside({}, small)) CHECK(cell == 0);
  for (const unsigned char cell : cells_inside(oracle::rectangle(-5, -5, 20, 20), small)) CHECK(cell == 1);
  for (const unsigned char cell : cells_inside(oracle::rectangle(50, 50, 20, 20), small)) CHECK(cell == 0);
}

TEST_CASE("random shapes are nested without touching") {
  std::mt19937 random(101);
  std::uniform_int_distribution<int> corners(3, 9);
  std::uniform_real_distribution<double> size(4, 40);
  for (int round = 0; round < 6; ++round) {
    std::vector<Region> shapes;
    for (int i = 0; i < 4 + 5 * round; ++i) {
      const double r = size(random);
      shapes.push_back(clean({oracle::random_ring(random, {0, 0}, r * 0.4, r, corners(random))}));
    }
    const double clear = 2 + round;
    const SetOut nested = nest(shapes, clear, round % 2 == 0);
    REQUIRE(nested.places.size() == shapes.size());
    std::vector<Region> laid;
    double used = 0;
    for (std::size_t i = 0; i < shapes.size(); ++i) {
      if (round % 2 == 1) CHECK_FALSE(nested.places[i].half_turn);
      const Point middle = bounds(shapes[i]).centre();
      const double turn = nested.places[i].half_turn ? -1 : 1;
      laid.push_back(grow(transformed(shapes[i], Transform{turn, 0, 0, turn, nested.places[i].at.x - turn * middle.x,
                                                           nested.places[i].at.y - turn * middle.y}),
                          clear - 0.03));
      const Box box = bounds(laid.back());
      CHECK(box.left > -0.01);
      CHECK(box.bottom > -0.01);
      CHECK(box.right < nested.width + 0.01);
      CHECK(box.top < nested.height + 0.01);
      used += area(laid.back());
      for (std::size_t k = 0; k < i; ++k) CHECK(intersect(laid[i], laid[k]).empty());
    }
    INFO("round " << round << ": " << used << " of " << nested.width * nested.height);
    CHECK(used > 0.4 * nested.width * nested.height);  // boxes in rows would use about a third
  }
}

TEST_CASE("sanding never opens what a sharp tip closes, and the plug's face only grows smaller") {
  std::mt19937 random(7);
  for (int i = 0; i < 3; ++i) {
    const Region art = clean({oracle::random_ring(random, {120, 80}, 10, 26, 6 + i)});
    Job job = walnut();
    job.items.push_back(drawn("art", art, {120, 80}, inlay_of()));
    mated(job, inlaid::wide_rack(), [](const Fit& fit, const Item&) {
      std::size_t last = fit.pocket.columns() * fit.pocket.rows();
      for (const double sanded : {0.0, 0.2, 0.5, 1.0, 2.0}) {
        const Face face = face_after(fit, sanded);
        INFO("sanded " << sanded);
        CHECK(face.widest_gap <= 0.11);
        CHECK(face.open.empty());
        const auto plug = static_cast<std::size_t>(std::count(face.cells.begin(), face.cells.end(), FaceWood::Plug));
        CHECK(plug <= last);
        CHECK(plug > 0);
        last = plug;
      }
    });
  }
}

TEST_CASE("art of many islands, hairlines and dust makes an inlay or says why not") {
  const Rack rack = load_rack();
  // Forty dots and a hairline in one piece.
  Region dots;
  for (int i = 0; i < 40; ++i)
    dots = unite(dots, oracle::rectangle(40 + 14.0 * (i % 10), 40 + 18.0 * (i / 10), 3 + 0.1 * i, 2 + 0.2 * (i % 7)));
  dots = unite(dots, oracle::rectangle(40, 120, 150, 0.15));
  Job job = walnut();
  job.items.push_back(drawn("dots", dots, bounds(dots).centre(), inlay_of()));
  CHECK(mated(job, rack, [](const Fit& fit, const Item&) {
          CHECK(std::abs(fit.rides_up) < 0.02);
          CHECK(fit.overlap == 0);
        }) == 1);
  // Easing that swallows everything leaves no moves, and both the plan and the proof say so.
  job.items[0].cut.inlay.ease = 15;
  const Plan gone = plan(job, rack, machine_for(job));
  CHECK(gone.pieces[0]->cuts.operations.empty());
  CHECK(workbench::find(gone, "eased-away") != nullptr);
  const std::vector<FurtherBoard> boards = plug_boards(job);
  REQUIRE(boards.size() == 1);
  const Plan plug = plan(boards[0].job, rack, machine_for(boards[0].job));
  CHECK_THROWS_WITH(fit_of(gone, plug, boards[0].places[0], 0.1), Catch::Contains("no moves"));
}

TEST_CASE("impossible figures are stops or notes, never a crash or a senseless fit") {
  const Rack rack = load_rack();
  const struct {
    double depth, contact, saw, thickness, allowance;
    bool sloped;
  } odd[] = {{0.05, 0.05, 0, 0.5, 0, true},  {500, 200, 100, 300, 5, true}, {5, 4.99, 0, 5, 0, true},
             {5, 0.05, 100, 200, 0, true},   {19.9, 19, 0.5, 25, 0, true},  {5, 3.8, 1.2, 12, 5, false},
             {0.05, 0.05, 0, 0.5, 0, false}, {30, 20, 20, 300, 0, false}};
  for (const auto& figures : odd) {
    Job job = walnut();
    Treatment t = inlay_of(figures.depth, figures.contact);
    t.inlay.saw_gap = figures.saw;
    t.inlay.thickness = figures.thickness;
    t.inlay.allowance = figures.allowance;
    t.inlay.sloped = figures.sloped;
    add(job, "art", {kRectangle, 40, 8}, {120, 80}, t);
    INFO("depth " << figures.depth << ", contact " << figures.contact << ", saw " << figures.saw);
    const Plan p = plan(job, rack, machine_for(job));
    for (const Verdict& v : p.verdicts) CHECK(v.text.size() > 10);
    const bool sound = figures.contact < figures.depth - 0.02 && figures.depth < 15 &&
                       figures.contact + figures.saw < figures.thickness - 1 &&
                       figures.contact + figures.saw < rack.find("v60")->body_depth();
    if (!sound) CHECK((p.has_stop() || p.count(Grade::Mind) > 0));
    try {
      for (const FurtherBoard& one : plug_boards(job)) {
        const Plan plug = plan(one.job, rack, machine_for(one.job));
        const Fit fit = fit_of(p, plug, one.places.at(0), 0.2);
        CHECK(std::isfinite(fit.rides_up));
        CHECK(std::isfinite(fit.glue_gap));
        CHECK(std::isfinite(fit.saw_gap));
        CHECK(std::isfinite(face_after(fit, 0.5).widest_gap));
      }
    } catch (const Problem& problem) {
      CHECK(std::string(problem.what()).size() > 20);  // no moves, or an allowance that eats the plug: in words
    }
    CHECK_NOTHROW(inlay_steps(p));
    CHECK_NOTHROW(ways_to_inlay(job, "art", rack));
    CHECK_NOTHROW(ladder_job(job, t, rack));
  }
}

TEST_CASE("an inlay on a floor starts there, closes there, and is told to lie below the face") {
  Job job = walnut();
  add(job, "tray", {kRectangle, 160, 100}, {120, 80}, workbench::cut(Kind::Recess, 3, {"flat-1/4in"}));
  add(job, "art", {kRectangle, 50, 24}, {120, 80}, inlay_of(4, 3));
  const Rack rack = load_rack();
  const Plan p = plan(job, rack, machine_for(job));
  CHECK(p.piece("art")->cuts.ground == Approx(3));
  CHECK(p.piece("art")->cuts.deepest == Approx(7));
  CHECK(workbench::find(p, "inlay-below-face") != nullptr);
  CHECK(mated(job, rack, [](const Fit& fit, const Item&) {
          CHECK(std::abs(fit.rides_up) < 0.01);
          CHECK(fit.glue_gap == Approx(1).margin(0.01));
          CHECK(fit.saw_gap == Approx(1.2).margin(0.06));
          CHECK(face_after(fit, 0).widest_gap <= 0.11);
        }) == 1);
}

TEST_CASE("inlays made from other pieces and lettering on an arc keep both halves together") {
  Job job = walnut(320, 220);
  const Rack rack = load_rack();
  Lettering words;
  words.words = "Thyme";
  words.face = {"EB Garamond", "Bold"};
  words.cap_height = 30;
  words.arc_radius = 120;
  job.items.push_back({{"words", "Thyme", words, {160, 140}, 0}, inlay_of()});
  add(job, "oval", {PlainShape::Kind::Ellipse, 60, 40}, {160, 70}, {});
  Derived grown;
  grown.how = Derived::How::Grow;
  grown.from = {"oval"};
  grown.distance = 4;
  Item made{{"made", "Made", grown, {0, 0}, 0}, inlay_of()};
  made.cut.inlay.wood = "black-cherry";
  job.items.push_back(made);
  int seen = 0;
  CHECK(mated(job, rack, [&](const Fit& fit, const Item& item) {
          INFO(item.piece.name);
          CHECK(std::abs(fit.rides_up) < 0.02);
          CHECK(fit.overlap == 0);
          ++seen;
        }) == 2);
  CHECK(seen == 2);
  CHECK(plug_boards(job).size() == 2);
  // A lettering that cannot be set is told, and takes no board with it.
  std::get<Lettering>(job.items[0].piece.what).face = {"No such face", "Regular"};
  const Plan unset = planned(job);
  std::vector<InlayStep> steps;
  CHECK_NOTHROW(steps = inlay_steps(unset));  // the Run ticket asks for them whatever the job is like
  CHECK(steps.size() > 4);
}

TEST_CASE("every machine profile gets both boards and the second run, in its own words and units") {
  Job job = walnut();
  add(job, "art", {kRectangle, 40, 20}, {120, 80}, inlay_of());
  add(job, "lid", {kRectangle, 180, 110}, {120, 80}, workbench::cut(Kind::CutOut, 0));
  job.run.mill_level = 3;
  const Rack rack = load_rack();
  for (const MachineProfile& machine : machine_table().machines) {
    for (const bool one_file : {false, true}) {
      for (const ZeroSurface zero : {ZeroSurface::Face, ZeroSurface::Bed}) {
        job.run.machine = machine.id;
        job.run.one_file = one_file;
        job.run.zero_surface = zero;
        INFO(machine.id << (one_file ? ", one file" : "") << (zero == ZeroSurface::Bed ? ", bed" : ""));
        const Plan p = plan(job, rack, machine_for(job));
        CHECK_FALSE(p.has_stop());
        CHECK(p.has_later());
        CHECK(read_back(p, gcode_files(p), 0.5).agrees());
        for (const FurtherBoard& one : further_boards(job, rack)) {
          INFO(one.folder);
          CHECK(one.job.run.machine == machine.id);
          const Plan further = plan(one.job, rack, machine_for(one.job));
          CHECK_FALSE(further.has_stop());
          CHECK(read_back(further, gcode_files(further), 0.5).agrees());
        }
        // The proof goes by the files, whatever they look like.
        const FurtherBoard plugs = plug_boards(job).at(0);
        const Fit fit = fit_of(p, plan(plugs.job, rack, machine_for(plugs.job)), plugs.places[0], 0.2);
        CHECK(std::abs(fit.rides_up) < 0.01);
      }
    }
  }
}

TEST_CASE("job files and racks with senseless inlay figures are refused with the place") {
  Job job = walnut();
  add(job, "art", {kRectangle, 40, 20}, {120, 80}, inlay_of());
  job.items[0].cut.inlay.crossed = true;
  job.items[0].cut.inlay.moisture = 8;
  job.items[0].cut.inlay.v_alone = true;
  job.run.keep_zero = KeepZero::Pins;
  job.run.mill_level = 2.5;
  job.run.cut_out_last = false;
  const std::string text = write_job(job);
  const Job again = read_job(text, "job");
  CHECK(again.items[0].cut == job.items[0].cut);
  CHECK(again.run == job.run);
  CHECK(write_job(again) == text);
  const auto refused = [&](const std::function<void(Json&)>& change, const char* place) {
    Json document = parse_json(text, "job");
    change(document);
    INFO(place);
    CHECK_THROWS_WITH(read_job(document.dump(), "job"), Catch::Contains(place));
  };
  refused([](Json& j) { j["pieces"][0]["cut"]["inlay"]["contact"] = -1; }, "contact");
  refused([](Json& j) { j["pieces"][0]["cut"]["inlay"]["moisture"] = 90; }, "moisture");
  refused([](Json& j) { j["pieces"][0]["cut"]["inlay"]["rung"] = "much"; }, "rung");
  refused([](Json& j) { j["pieces"][0]["cut"]["inlay"]["crossed"] = 3; }, "crossed");
  refused([](Json& j) { j["run"]["keepZero"] = "memory"; }, "keepZero");
  refused([](Json& j) { j["run"]["millLevel"] = -4; }, "millLevel");
  refused([](Json& j) { j["run"]["zeroBelow"] = 1e9; }, "zeroBelow");
  refused([](Json& j) { j["run"]["cutOutLast"] = "no"; }, "cutOutLast");

  Rack rack = load_rack();
  rack.bits[0].ladder_contact = -0.2;
  rack.bits[1].ladder_allowance = 0.07;
  CHECK(read_rack(write_rack(rack), "rack") == rack);
  Json document = parse_json(write_rack(rack), "rack");
  document["bits"][0]["ladderContact"] = 50;
  CHECK_THROWS_WITH(read_rack(document.dump(), "rack"), Catch::Contains("ladderContact"));
}

// Ring-porous and semi-ring-porous woods, from memory of the Wood Handbook (USDA FPL), chapter 3: oaks, ash and walnut
// have pores that are seen; maple, cherry, basswood and poplar do not, softwoods have none.
TEST_CASE("the table of woods says which pores are open and which woods are resinous") {
  const auto& table = species_table();
  for (const char* id : {"white-oak", "red-oak", "white-ash", "black-walnut", "mahogany"}) {
    INFO(id);
    REQUIRE(table.find(id) != nullptr);
    CHECK(table.find(id)->open_pores);
  }
  for (const char* id : {"sugar-maple", "red-maple", "black-cherry", "basswood", "yellow-poplar", "western-red-cedar",
                         "eastern-white-pine", "mdf", "brass", "acrylic"}) {
    INFO(id);
    REQUIRE(table.find(id) != nullptr);
    CHECK_FALSE(table.find(id)->open_pores);
  }
  CHECK(table.find("teak")->resinous);
  CHECK(table.find("ponderosa-pine")->resinous);
  CHECK_FALSE(table.find("sugar-maple")->resinous);
  // Handbooks of plastics: acrylic 1170 to 1200 kg/m³; it does not move with moisture.
  CHECK(table.find("acrylic")->density > 1165);
  CHECK(table.find("acrylic")->density < 1205);
  CHECK(table.find("acrylic")->change_tangential == 0);
}

TEST_CASE("resin of nothing, of a through cut's neighbour and of a nested groove") {
  Job job = walnut();
  add(job, "tray", {kRectangle, 160, 100}, {120, 80}, workbench::cut(Kind::Recess, 3, {"flat-1/4in"}));
  Treatment groove;
  groove.kind = Kind::Incise;
  groove.bit = "v90";
  groove.resin = true;
  add(job, "in-tray", {kRectangle, 60, 8}, {120, 80}, groove);
  const Plan p = planned(job);
  // Filled to the tray's floor, not to the board's face: w²/4·(L − w) + w³/6 (any handbook of mathematics).
  CHECK(fill_of(p, "in-tray").volume == Approx(64.0 / 4 * 52 + 512.0 / 6).epsilon(0.01));
  Treatment none;
  add(job, "none", {kRectangle, 10, 10}, {30, 30}, none);
  CHECK(fill_of(planned(job), "none").volume == 0);
}
