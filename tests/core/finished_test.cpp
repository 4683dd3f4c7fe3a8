// The sign as it leaves the shop: what is let into it weighs, a step behind its edge, edges rounded over by hand,
// holidays, and the finish of a whole list. Against closed forms, moments and cases worked out by hand.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "finish/finish_plan.hpp"
#include "finish/hanging.hpp"
#include "finish/price.hpp"
#include "own_home.hpp"
#include "planning/finished_look.hpp"
#include "planning/relief_keeper.hpp"
#include "problem.hpp"
#include "rescue/rescue.hpp"
#include "stock/species.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

double density(const char* wood) { return species_table().find(wood)->density; }

Treatment taped_out() {
  Treatment out = cut(Kind::CutOut, 0);
  out.through.tabs.wanted = false;
  out.through.taped = true;
  return out;
}

}  // namespace

TEST_CASE("inserts, plugs and resin weigh what their room holds, and shift where the sign balances") {
  Job job = board(300, 200, 20);
  job.blank.species = "black-cherry";
  const FinishFigures bare = finish_figures(planned(job));
  CHECK(bare.let_in == 0);
  Treatment sheet = cut(Kind::Recess, 5, {"flat-1/8in"});
  sheet.insert.thickness = 5;
  sheet.insert.clearance = 0.15;
  sheet.insert.material = "acrylic";
  add(job, "sheet", {kBox, 100, 60}, {80, 100}, sheet);
  const FinishFigures f = finish_figures(planned(job));
  const double sheet_weighs = (100 - 0.3) * (60 - 0.3) * 5 * 1e-9 * density("acrylic");
  CHECK(f.let_in == Approx(sheet_weighs).epsilon(0.01));
  const double wood = f.volume * 1e-9 * density("black-cherry");
  CHECK(f.kilograms == Approx(wood + sheet_weighs).epsilon(1e-3));
  // By moments: the wood balances without the pocket's, and the sheet lies where that was.
  const double pocket = 300 * 200 * 20 - f.volume, whole = 300 * 200 * 20;
  const double wood_at = (150 * whole - 80 * pocket) / f.volume;
  CHECK(f.centre.x == Approx((wood_at * wood + 80 * sheet_weighs) / (wood + sheet_weighs)).margin(0.3));
  // Resin takes all of a pocket; epoxy weighs 1.1 g a cubic centimetre (from memory).
  Job poured = board(300, 200, 20);
  Treatment resin = cut(Kind::Recess, 5, {"flat-1/8in"});
  resin.resin = true;
  add(poured, "pool", {kBox, 60, 60}, {80, 100}, resin);
  const FinishFigures pool = finish_figures(planned(poured));
  CHECK(pool.let_in == Approx((3600 - (4 - std::numbers::pi) * 1.5875 * 1.5875) * 5 * 1.1e-6).epsilon(0.01));
  // A plug fills its pocket up to the face: what the written files take out, in the plug's wood.
  Job inlaid = board(240, 160, 18);
  Treatment plug = cut(Kind::Inlay, 5, {"flat-1/8in"});
  plug.inlay.wood = "sugar-maple";
  plug.inlay.contact = 4;
  add(inlaid, "plug", {PlainShape::Kind::Ellipse, 80, 50}, {120, 80}, plug);
  const Plan p = planned(inlaid);
  const HeightField front = carved(p, 0.25);
  double taken = 0;
  for (std::size_t r = 0; r < front.rows(); ++r) {
    for (std::size_t c = 0; c < front.columns(); ++c) taken -= front.at(c, r) * 0.25 * 0.25;
  }
  CHECK(finish_figures(p).let_in == Approx(taken * 1e-9 * density("sugar-maple")).epsilon(0.01));
  bool said = false;
  for (const std::string& line : hanging_in_words(p, hanging_of(p, finish_figures(p))))
    said = said || line.find("Of that, plugs, inserts and resin weigh") == 0;
  CHECK(said);
}

TEST_CASE("a step behind the edge is cut all round, corners too, and the middle stays to stand on the wall") {
  Job job = board(280, 180, 18);
  add(job, "sign", {kBox, 220, 120}, {140, 90}, taped_out());
  add(job, "word", {kBox, 80, 20}, {140, 90}, cut(Kind::Incise, 3));
  const Plan before = planned(job);
  const FloatStep step = float_step(before);
  CHECK(step.depth == Approx(6));
  CHECK(step.width == Approx(20));
  const Plan p = planned(with_float_step(before));
  for (const Verdict& v : p.verdicts) {
    INFO(v.code << ": " << v.text);
    CHECK(v.grade != Grade::Stop);
  }
  // From the back's own files, in the back's coordinates: turned over the left edge, x is mirrored.
  const HeightField back = carved(p, 0.25, Side::Back);
  for (const Point inside : {Point{31, 31}, Point{249, 149}, Point{140, 31}, Point{31, 90}, Point{49, 90}})
    CHECK(workbench::at(back, inside) == Approx(-6).margin(0.01));
  for (const Point middle : {Point{51.5, 90}, Point{140, 52}, Point{140, 90}, Point{228, 90}})
    CHECK(workbench::at(back, middle) == Approx(0).margin(0.01));
  const Region stays = grow(p.finished_shape(), -step.width);
  for (const Point hanger : hanging_of(p, finish_figures(p)).places) CHECK(contains(stays, hanger));
  // What ran over its edge is moved within that edge, not within the step's.
  Job over = p.job;
  over.shift("word", {80, 0});
  const Plan moved = planned(moved_within(planned(over)));
  CHECK(bounds(moved.piece("word")->outlines).right == Approx(250 - over.blank.margin).margin(1e-3));
  // One is enough, and it follows the edge.
  CHECK_THROWS_WITH(float_step(p), Catch::Contains("already"));
  Job wider = p.job;
  std::get<PlainShape>(wider.find("sign")->piece.what).width = 240;
  CHECK(bounds(wider.outlines(*wider.find(float_step_of(wider))).region).width() > 240);
  // Of a sign that is not alike on both sides, too: all round its own edge, not a mirrored one's.
  Job askew = board(280, 180, 18);
  Outlines wedge;
  wedge.region = clean({{{40, 40}, {240, 40}, {240, 80}, {90, 150}, {40, 150}}});
  Item sign;
  sign.piece.id = "sign";
  sign.piece.name = "sign";
  sign.piece.what = frozen(wedge, "sign");
  sign.piece.at = bounds(wedge.region).centre();
  sign.cut = taped_out();
  askew.items.push_back(sign);
  const HeightField under = carved(planned(with_float_step(planned(askew))), 0.25, Side::Back);
  for (const Point front : {Point{43, 147}, Point{43, 43}, Point{237, 43}, Point{88, 147}, Point{200, 95}})
    CHECK(workbench::at(under, {280 - front.x, front.y}) == Approx(-6).margin(0.01));
  for (const Point front : {Point{66, 90}, Point{110, 100}, Point{190, 65}})
    CHECK(workbench::at(under, {280 - front.x, front.y}) == Approx(0).margin(0.01));
  // Where it cannot be it is said: nothing cut out, carved deep at the edge, too small.
  Job whole = board();
  CHECK_THROWS_WITH(float_step(planned(whole)), Catch::Contains("cut out"));
  add(job, "deep", {kBox, 20, 20}, {45, 90}, cut(Kind::Recess, 15, {"flat-1/4in"}));
  CHECK_THROWS_WITH(float_step(planned(job)), Catch::Contains("too little wood"));
  Job small = board(60, 60, 18);
  add(small, "tag", {kBox, 16, 16}, {30, 30}, taped_out());
  CHECK_THROWS_WITH(float_step(planned(small)), Catch::Contains("too small"));
}

TEST_CASE("edges rounded over are a quarter of a circle in picture and section, and nowhere in what is judged") {
  Job job = board(120, 100, 18);
  add(job, "deep", {kBox, 30, 30}, {60, 50}, cut(Kind::Recess, 5, {"flat-1/8in"}));
  job.finish.round_over = 6;
  const Plan p = planned(job);
  const HeightField shown = finished_relief_of(p, p.job.blank.box(), 0.1);
  const HeightField judged = relief_of(p, p.job.blank.box(), 0.1);
  for (const double d : {0.25, 1.05, 3.05, 5.55, 7.05}) {
    const double in = std::max(0.0, 6 - d);
    for (const Point at : {Point{d, 50}, Point{120 - d, 50}, Point{60, d}, Point{60, 100 - d}}) {
      CHECK(workbench::at(shown, at) == Approx(std::sqrt(36 - in * in) - 6).margin(0.12));
      CHECK(workbench::at(judged, at) == Approx(0).margin(1e-6));
    }
  }
  CHECK(workbench::at(shown, {60, 50}) == Approx(-5).margin(0.01));
  // The picture that follows edits is the same as one made anew, whatever was said before.
  ReliefKeeper keeper;
  for (const double radius : {0.0, 4.0, 9.0, 2.0, 0.0}) {
    job.finish.round_over = radius;
    job.find("deep")->piece.at.x += 3;
    const Plan now = planned(job);
    (void)keeper.bring_up(now, job.blank.box(), 0.25, Side::Front);
    const HeightField anew = finished_relief_of(now, job.blank.box(), 0.25);
    double off = 0;
    for (std::size_t r = 0; r < anew.rows(); ++r) {
      for (std::size_t c = 0; c < anew.columns(); ++c)
        off = std::max(off, static_cast<double>(std::abs(anew.at(c, r) - keeper.field().at(c, r))));
    }
    CHECK(off < 1e-5);
  }
  // Of a sign that is cut out it is the sign's edge, and the waste keeps its own.
  Job sign = board(160, 120, 18);
  add(sign, "disc", {PlainShape::Kind::Ellipse, 80, 80}, {80, 60}, taped_out());
  sign.finish.round_over = 5;
  const HeightField disc = finished_relief_of(planned(sign), sign.blank.box(), 0.1);
  CHECK(workbench::at(disc, {80 - 39, 60}) == Approx(std::sqrt(25.0 - 16) - 5).margin(0.15));
  CHECK(workbench::at(disc, {1, 60}) == Approx(0).margin(1e-6));
}

TEST_CASE("nobody works on holidays: words read and kept, steps begin after them") {
  ShopDay day;
  take_closed(day, " 2027-05-01 ; 2026-12-24 – 2027-01-02");
  REQUIRE(day.closed.size() == 2);
  CHECK(closed_in_words(day) == "2026-12-24 – 2027-01-02; 2027-05-01");
  take_closed(day, "2026-12-24 to 2027-01-02;2027-05-01");
  CHECK(closed_in_words(day) == "2026-12-24 – 2027-01-02; 2027-05-01");
  FinishStep hour;
  hour.minutes = 60;
  const auto begun = [&](const char* from) { return time_in_words(schedule({hour}, parse_time(from), day)[0].begin); };
  CHECK(begun("2026-12-23 16:30") == "2026-12-23 16:30");
  CHECK(begun("2026-12-23 17:30") == "2027-01-03 08:00");
  CHECK(begun("2027-01-02 09:00") == "2027-01-03 08:00");
  day.days = 5;  // the 3rd of January 2027 is a Sunday
  CHECK(begun("2026-12-24 09:00") == "2027-01-04 08:00");
  // Ready on the morning after: begun before them.
  CHECK(time_in_words(start_for({hour}, parse_time("2027-01-04 08:30"), day)) == "2026-12-23 17:00");
  for (const char* wrong : {"tomorrow", "2026-12-24 – 2026-12-01", "2026-02-30", "2026-01-01 – 2028-01-01", "2026"}) {
    const ShopDay before = day;
    INFO(wrong);
    CHECK_THROWS_AS(take_closed(day, wrong), Problem);
    CHECK(day == before);
  }
  const OwnHome home;
  keep_shop_day(day);
  CHECK(load_shop_day() == day);
  take_closed(day, "");
  CHECK(day.closed.empty());
  CHECK_THROWS_AS(read_shop_day(R"({"opens":8,"closes":18,"daysAWeek":5,"closed":7})", "x"), Problem);
}

TEST_CASE("the finish of a list is that of all its plates; each one costs its share") {
  Job job = board(90, 30, 6);
  job.finish.school = FinishSchool::Varnish;
  add(job, "frame", {kBox, 70, 10}, {45, 15}, cut(Kind::Recess, 1, {"flat-1/8in"}));
  const Plan one = planned(job);
  const FinishPlan alone = finish_plan(one, finish_figures(one), load_products());
  job.plates.columns = {"name"};
  std::vector<ListRow> rows;
  for (int i = 0; i < 12; ++i) rows.push_back({"n" + std::to_string(i)});
  job.plates.rows = rows;
  const Plan many = planned(job);
  const FinishPlan all = finish_plan(many, finish_figures(many), load_products());
  CHECK(all.boards == 12);
  REQUIRE(all.quantities.size() == alone.quantities.size());
  for (std::size_t i = 0; i < all.quantities.size(); ++i) {
    CHECK(all.quantities[i].area == Approx(12 * alone.quantities[i].area).epsilon(1e-6));
    CHECK(all.quantities[i].litres == Approx(12 * alone.quantities[i].litres).epsilon(1e-6));
  }
  CHECK(all.steps.size() == alone.steps.size());
  CHECK(all.hand_minutes() > alone.hand_minutes());
  CHECK(all.hand_minutes() < 12 * alone.hand_minutes());  // brushes are washed once
  Rates rates;
  rates.hand = 60;
  const auto by_hand = [&](const Plan& p, const FinishPlan& f) {
    for (const PriceLine& line : price_of(p, f, rates).lines) {
      if (line.what == "By hand") return line.money;
    }
    return 0.0;
  };
  CHECK(by_hand(many, all) < by_hand(one, alone));
}
