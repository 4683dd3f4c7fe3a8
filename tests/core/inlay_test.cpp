// Inlays: pocket and plug from the written G-code, mated; the worked figures, closed forms, random art, what goes
// wrong.
#include <catch2/catch.hpp>
#include <numbers>

#include "inlaid.hpp"
#include "oracle.hpp"
#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"

using namespace doyen;

using namespace inlaid;

// P = 0.200, S = 0.150, F = 0.050 in at 60°: glue gap 0.050, saw gap 0.050, land shrunk by 0.0866 in (geometry.md);
// walks.md: 5.0, 3.8, 1.2 mm: glue gap 1.2, land shrunk by 2.194 mm.
TEST_CASE("the worked inlay: glue gap, saw gap and the land's shrinking are found in the mated reliefs") {
  const struct {
    double pocket, contact, saw, glue, shrunk;
  } cases[] = {{5.0, 3.8, 1.2, 1.2, 2.194},
               {0.2 * kMmPerInch, 0.15 * kMmPerInch, 0.05 * kMmPerInch, 0.05 * kMmPerInch, 0.0866 * kMmPerInch}};
  for (const auto& one : cases) {
    const Both h = inlaid_board(kBar, {100, 80}, wide_rack(), [&](Treatment& t) {
      t.depth = one.pocket;
      t.inlay.contact = one.contact;
      t.inlay.saw_gap = one.saw;
    });
    const Fit fit = fit_of(h.pocket, h.plug, h.place, 0.05);
    CHECK(fit.glue_gap == Approx(one.glue).margin(0.01));
    CHECK(fit.saw_gap == Approx(one.saw).margin(0.06));  // ridges of the V's tip stay under 0.05
    CHECK(std::abs(fit.rides_up) < 0.01);
    CHECK(fit.overlap == 0);
    // The land, from the plug's own board: the bar less the shrinking on each side.
    const HeightField own = relief_of(h.plug, h.plug.job.blank.box(), 0.05);
    int across = 0;
    for (std::size_t c = 0; c < own.columns(); ++c)
      across += own.at(c, static_cast<std::size_t>(h.place.plug.y / 0.05)) > -0.001F;
    double frame = 0;  // the uncut rim of the plug's blank does not count
    for (std::size_t c = 0; c < own.columns() && own.at(c, static_cast<std::size_t>(h.place.plug.y / 0.05)) > -0.001F;
         ++c)
      frame += 0.05;
    CHECK(across * 0.05 - 2 * frame == Approx(60 - 2 * one.shrunk).margin(0.15));
    const Face face = face_after(fit, 0);
    CHECK(face.widest_gap < 0.06);  // closed, to the cell
  }
}

TEST_CASE("flanks of pocket and plug coincide on a disc, a cross, words and random art") {  // exact: one medial axis
  std::mt19937 random(31);
  const Region cross = unite(oracle::rectangle(70, 75, 130, 85), oracle::rectangle(95, 50, 105, 110));
  const Region blob = clean({oracle::random_ring(random, {100, 80}, 16, 34, 11)});
  const Region holed = subtract(clean({oracle::random_ring(random, {100, 80}, 24, 36, 12)}),
                                clean({oracle::random_ring(random, {100, 80}, 6, 10, 7)}));
  const auto drawing = [](const Region& r) { return frozen({r, {}, {}, {}, {}, {}}, "d"); };
  const Piece words = oracle::lettering("Sage", "EB Garamond", "Bold", 30);
  const std::vector<std::pair<const char*, decltype(Piece::what)>> arts{
      {"disc", PlainShape{PlainShape::Kind::Ellipse, 40, 40}},
      {"cross", drawing(cross)},
      {"blob", drawing(blob)},
      {"blob with a hole", drawing(holed)},
      {"words", words.what}};
  for (const auto& [name, what] : arts) {
    INFO(name);
    const Both h = inlaid_board(what, {100, 80}, wide_rack());
    const Fit fit = fit_of(h.pocket, h.plug, h.place, 0.1);
    INFO("binds at " << fit.binds_at.x << ", " << fit.binds_at.y);
    // Within 0.01 mm across the flank, which is 0.01 / sin(30°) up and down.
    CHECK(std::abs(fit.rides_up) < 0.02);
    CHECK(fit.overlap == 0);
    CHECK(face_after(fit, 0).widest_gap <= 0.11);  // a cell
    // The pocket is the art's own, the plug's outline too: read back from their files they fit the same.
    CHECK(read_back(h.pocket, gcode_files(h.pocket), 0.2).agrees());
    CHECK(read_back(h.plug, gcode_files(h.plug), 0.2).agrees());
  }
}

TEST_CASE("mirrored twice is the art, and a place goes to the plug's board and its like") {
  const Piece words = oracle::lettering("Lf", "EB Garamond", "Bold", 30);
  const Both h = inlaid_board(words.what, {100, 80}, wide_rack());
  const Region art = h.pocket.pieces[0]->outlines.region, plug = h.plug.pieces[0]->outlines.region;
  const Region back =
      transformed(plug, Transform{-1, 0, 0, 1, h.place.plug.x + h.place.pocket.x, h.place.pocket.y - h.place.plug.y});
  CHECK(area(subtract(art, grow(back, 0.002))) < 1e-6);
  CHECK(area(subtract(back, grow(art, 0.002))) < 1e-6);
  CHECK_FALSE(area(subtract(art, grow(transformed(plug, Transform::move(h.place.pocket.x - h.place.plug.x,
                                                                        h.place.pocket.y - h.place.plug.y)),
                                      0.002))) < 1);  // it really is mirrored
}

// An angle error ε opens a wedge: gap at depth h ≈ h·(tan((α+ε)/2) − tan(α/2)) (geometry.md).
TEST_CASE("what may go wrong is told: a blunter bit, another zero, a tip flat, and easing mends the last") {
  const Both h = inlaid_board(kBar, {100, 80}, wide_rack());
  WhatIf shallow;
  shallow.pocket_zero = 0.1;  // the pocket too shallow by 0.1: the flanks meet 0.1 higher
  CHECK(fit_of(h.pocket, h.plug, h.place, 0.05, shallow).rides_up == Approx(0.1).margin(0.01));
  WhatIf both;
  both.pocket_zero = 0.1;
  both.plug_zero = -0.1;
  CHECK(fit_of(h.pocket, h.plug, h.place, 0.05, both).rides_up == Approx(0.0).margin(0.01));
  // A tip flat leaves the pocket's corners round by half of it, where the plug's are sharp: it binds there.
  Rack blunt = wide_rack();
  for (Bit& bit : blunt.bits) {
    if (bit.id == "v60") bit.tip = 0.2;
  }
  const Both tipped = inlaid_board(kBar, {100, 80}, blunt);
  const Fit binds = fit_of(tipped.pocket, tipped.plug, tipped.place, 0.02);
  CHECK(binds.rides_up > 0.03);
  const Point at = binds.binds_at;
  CHECK(std::abs(std::abs(at.x - 100) - 30) < 3);  // in a corner
  CHECK(std::abs(std::abs(at.y - 80) - 15) < 3);
  // 0.1·(√2 − 1) / (√2·tan 30°) = 0.0507 mm.
  const double tan30 = std::tan(std::numbers::pi / 6), root2 = std::numbers::sqrt2;
  CHECK(binds.rides_up == Approx(0.1 * (root2 - 1) / (root2 * tan30)).margin(0.008));
  const double ease = ease_that_seats(tipped.job.items[0].cut.inlay, *blunt.find("v60"));
  CHECK(ease == Approx(3.8 * tan30 + 0.1));
  const Both mended = inlaid_board(kBar, {100, 80}, blunt, [&](Treatment& t) { t.inlay.ease = ease; });
  CHECK(fit_of(mended.pocket, mended.plug, mended.place, 0.02).rides_up < 0.01);
}

TEST_CASE("sanding further moves the visible line by s·tan(alpha/2)") {  // geometry.md
  const Both h = inlaid_board(kBar, {100, 80}, wide_rack());
  const Fit fit = fit_of(h.pocket, h.plug, h.place, 0.05);
  const auto wide = [&](double sanded) {
    const Face face = face_after(fit, sanded);
    const std::size_t r = fit.pocket.rows() / 2;
    int n = 0;
    for (std::size_t c = 0; c < fit.pocket.columns(); ++c)
      n += face.cells[r * fit.pocket.columns() + c] != FaceWood::Board;
    return n * 0.05;
  };
  const double tan30 = std::tan(std::numbers::pi / 6);
  CHECK(wide(0) == Approx(60).margin(0.11));
  for (const double s : {0.2, 0.5, 1.0}) CHECK(wide(s) == Approx(60 - 2 * s * tan30).margin(0.11));
}

TEST_CASE("upright halves carry the bit's corners on both and leave the allowance on each side") {
  const Both h = inlaid_board(kBar, {100, 80}, wide_rack(), [](Treatment& t) {
    t.inlay.sloped = false;
    t.inlay.allowance = 0.1;
    t.inlay.ease = 1.6;  // the 1/8 in bit's radius and a little
    t.clearing = {"flat-1/8in"};
  });
  CHECK(h.pocket.pieces[0]->cuts.unreached.area < 0.1);
  const Fit fit = fit_of(h.pocket, h.plug, h.place, 0.04);
  CHECK(fit.overlap == 0);
  CHECK(fit.glue_gap == Approx(1.2).margin(0.01));
  CHECK(face_after(fit, 0).widest_gap == Approx(0.1).margin(0.09));  // to two cells
}

TEST_CASE("plugs of several woods get a board each, with room round every one") {
  Job job;
  job.blank.width = 400;
  job.blank.height = 200;
  job.blank.species = "black-walnut";
  const char* woods[] = {"sugar-maple", "black-cherry", "sugar-maple", "sugar-maple"};
  for (int i = 0; i < 4; ++i) {
    Item item{{"p" + std::to_string(i),
               "P",
               PlainShape{PlainShape::Kind::Ellipse, 30.0 + 10 * i, 25},
               {60.0 + 90 * i, 100},
               0},
              {}};
    item.cut.kind = Kind::Inlay;
    item.cut.bit = "v60";
    item.cut.depth = 5;
    item.cut.inlay.wood = woods[i];
    job.items.push_back(item);
  }
  const std::vector<FurtherBoard> boards = plug_boards(job);
  REQUIRE(boards.size() == 2);
  CHECK(boards[0].job.blank.species == "sugar-maple");
  REQUIRE(boards[0].places.size() == 3);
  CHECK(boards[1].places.size() == 1);
  std::vector<Box> boxes;
  for (const Item& item : boards[0].job.items) {
    const Box box = bounds(outlines_of(item.piece).region);
    for (const Box& other : boxes) CHECK_FALSE(box.grown(8).meets(other.grown(8)));
    CHECK(boards[0].job.blank.box().contains({box.left - 12, box.bottom - 12}));
    CHECK(boards[0].job.blank.box().contains({box.right + 12, box.top + 12}));
    boxes.push_back(box);
  }
  // The job file keeps both halves' figures.
  const Job again = read_job(write_job(boards[0].job), "plugs");
  for (std::size_t i = 0; i < again.items.size(); ++i) CHECK(again.items[i].cut == boards[0].job.items[i].cut);
}

TEST_CASE("halves that cannot close and woods that fight are told before cutting") {
  const auto codes = [](const std::function<void(Job&)>& change) {
    Job job;
    job.blank.width = 300;
    job.blank.height = 200;
    job.blank.readings = {20};
    job.blank.species = "black-walnut";
    Item item{{"art", "Art", kBar, {150, 100}, 0}, {}};
    item.cut.kind = Kind::Inlay;
    item.cut.bit = "v60";
    item.cut.depth = 5;
    job.items.push_back(item);
    change(job);
    std::string all;
    for (const Verdict& v : plan(job, load_rack(), machine_for(job)).verdicts) all += v.code + " ";
    return all;
  };
  using Catch::Contains;
  CHECK_THAT(codes([](Job&) {}), !Contains("plug") && !Contains("woods"));
  CHECK_THAT(codes([](Job& j) { j.items[0].cut.inlay.contact = 5; }), Contains("plug-bottoms-out"));
  CHECK_THAT(codes([](Job& j) { j.items[0].cut.inlay.saw_gap = 10; }),
             Contains("plug-deeper-than-bit") && Contains("plug-too-thin"));
  CHECK_THAT(codes([](Job& j) { j.items[0].cut.inlay.wood = "black-walnut"; }), Contains("woods-alike"));
  CHECK_THAT(codes([](Job& j) { j.items[0].cut.inlay.wood = "glass"; }), Contains("unknown-plug-wood"));
  CHECK_THAT(codes([](Job& j) {
               Item lid{{"lid", "Lid", PlainShape{PlainShape::Kind::Rectangle, 250, 150}, {150, 100}, 0}, {}};
               lid.cut.kind = Kind::CutOut;
               lid.cut.bit = "flat-1/4in";
               j.items.push_back(lid);
             }),
             Contains("second-run"));
}
