// What is left of a board, how it hangs, its finish on the calendar, its price: against closed forms, moments and cases
// worked out by hand.
#include <unistd.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <numbers>
#include <random>

#include "finish/finish_plan.hpp"
#include "finish/hanging.hpp"
#include "finish/price.hpp"
#include "finish/products.hpp"
#include "own_home.hpp"
#include "problem.hpp"
#include "remedies.hpp"
#include "stock/species.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

constexpr auto kOval = PlainShape::Kind::Ellipse;

FinishStep hand(double minutes, double wait) {
  FinishStep step;
  step.words = "work";
  step.minutes = minutes;
  step.wait = wait;
  return step;
}

ShopTime at_time(const char* words) { return parse_time(words); }

std::string written(ShopTime when) { return time_in_words(when); }

}  // namespace

TEST_CASE("areas, volume and weight of a plain board are those of the box") {
  Job job = board(300, 200, 20);
  job.blank.species = "black-cherry";
  add(job, "pocket", {kBox, 100, 60}, {150, 100}, cut(Kind::Recess, 5, {"flat-1/4in"}));
  const Plan p = planned(job);
  const FinishFigures f = finish_figures(p);
  // By hand: the pocket's corners stay round by the bit, whose radius is 3.175 mm.
  const double floor = 100 * 60 - (4 - std::numbers::pi) * 3.175 * 3.175;
  CHECK(f.volume == Approx(300 * 200 * 20 - floor * 5).epsilon(2e-3));
  CHECK(f.face == Approx(300 * 200 - floor).epsilon(0.01));
  const double walls = (2 * (100 + 60) - (8 - 2 * std::numbers::pi) * 3.175) * 5;
  CHECK(f.carved == Approx(floor + walls).epsilon(0.02));
  CHECK(f.by_piece.at("pocket") == Approx(f.carved).epsilon(0.06));
  CHECK(f.edges == Approx(2 * (300 + 200) * 20).epsilon(1e-6));
  CHECK(f.kilograms == Approx(f.volume * 1e-9 * species_table().find("black-cherry")->density));
  CHECK(f.centre.x == Approx(150).margin(0.2));
  CHECK(f.centre.y == Approx(100).margin(0.2));
}

TEST_CASE("a 90 degree groove's flanks measure root two of what they span") {  // plane geometry
  Job job = board(200, 60, 18);
  add(job, "bar", {kBox, 160, 8}, {100, 30}, cut(Kind::Incise, 4, {}, "v90"));
  const FinishFigures f = finish_figures(planned(job));
  CHECK(f.carved == Approx(160 * 8 * std::numbers::sqrt2).epsilon(0.02));
}

TEST_CASE("what is cut out is all that is left, and balances where moments say") {
  Job job = board(400, 300, 20);
  Treatment out = cut(Kind::CutOut, 20);
  out.through.tabs.wanted = false;
  out.through.taped = true;
  add(job, "disc", {kOval, 200, 200}, {180, 150}, out);
  add(job, "hole", {kBox, 60, 60}, {220, 150}, cut(Kind::Recess, 10, {"flat-1/4in"}));
  const FinishFigures f = finish_figures(planned(job));
  const double disc = std::numbers::pi * 100 * 100 * 20, hole = (3600 - (4 - std::numbers::pi) * 10.08) * 10;
  CHECK(f.volume == Approx(disc - hole).epsilon(3e-3));
  // Moments about the disc's middle: the hole takes its weight away 40 mm to the right.
  CHECK(f.centre.x == Approx(180 - 40 * hole / (disc - hole)).margin(0.1));
  CHECK(f.centre.y == Approx(150).margin(0.1));
  CHECK(f.edges == Approx(std::numbers::pi * 200 * 20).epsilon(1e-3));
}

TEST_CASE("an opening has edges, too") {
  Job job = board(200, 100, 10);
  Treatment through = cut(Kind::Pierce, 10);
  through.pierce.slug = true;
  through.through.taped = true;
  add(job, "window", {kBox, 60, 40}, {100, 50}, through);
  const FinishFigures f = finish_figures(planned(job));
  CHECK(f.edges == Approx((2 * (200 + 100) + 2 * (60 + 40)) * 10));
  CHECK(f.flat == Approx(200 * 100 - 60 * 40).epsilon(0.01));
}

TEST_CASE("what a sign weighs is what is cut from both of its sides less, wherever that lies") {
  Job job = board(300, 200, 20);
  Treatment behind = cut(Kind::Recess, 6, {"flat-1/4in"});
  behind.back = true;
  add(job, "behind", {kBox, 80, 80}, {80, 100}, behind);
  const FinishFigures f = finish_figures(planned(job));
  const double taken = (6400 - (4 - std::numbers::pi) * 10.08) * 6, whole = 300 * 200 * 20;
  CHECK(f.volume == Approx(whole - taken).epsilon(2e-3));
  CHECK(f.centre.x == Approx((150 * whole - 80 * taken) / (whole - taken)).margin(0.3));
}

TEST_CASE("hangers lie level, alike on both sides of where it balances, and carry it by moments") {
  std::mt19937 random(4);
  const auto upto = [&](double most) { return std::uniform_real_distribution<double>(0, most)(random); };
  for (int i = 0; i < 12; ++i) {
    Job job = board(250 + upto(600), 160 + upto(200), 18);
    add(job, "deep", {kBox, 100, 80}, {60 + upto(100), 80}, cut(Kind::Recess, 9, {"flat-1/4in"}));
    const Plan p = planned(job);
    const FinishFigures f = finish_figures(p);
    const Hanging h = hanging_of(p, f);
    REQUIRE_FALSE(h.places.empty());
    CHECK(h.level());
    double carried = 0, moment = 0;
    for (std::size_t k = 0; k < h.places.size(); ++k) {
      CHECK(h.places[k].y > f.centre.y);
      CHECK(h.places[k].y == Approx(h.places[0].y));
      CHECK(job.blank.box().grown(-11.9).contains(h.places[k]));
      carried += h.loads[k];
      moment += h.loads[k] * (h.places[k].x - f.centre.x);
    }
    CHECK(carried == Approx(1));
    CHECK(moment == Approx(0).margin(1e-6));
    CHECK(h.screw <= 18 - 3);
  }
}

TEST_CASE("slots beside the middle hang it askew as gravity says, and are moved level") {
  Job job = board(300, 200, 20);
  Treatment slot;
  slot.kind = Kind::HangerSlot;
  slot.bit = "keyhole-3/8in";
  slot.depth = 10;
  slot.back = true;
  add(job, "slot", {kOval, 10, 10}, {130, 150}, slot);
  const Plan p = planned(job);
  const FinishFigures f = finish_figures(p);
  const Hanging h = hanging_of(p, f);
  REQUIRE(h.slots);
  REQUIRE(h.places.size() == 1);
  // About one point the weight swings below it: tan of the angle is how far it lies beside over how far below.
  const double beside = f.centre.x - h.places[0].x, below = h.places[0].y - f.centre.y;
  CHECK(h.tilt == Approx(-std::atan(beside / below) * 180 / std::numbers::pi));
  CHECK_FALSE(h.level());
  const Job level = with_slots_level(job, h);
  const Plan after = planned(level);
  CHECK(hanging_of(after, finish_figures(after)).level());
}

TEST_CASE("a shop has its own hours and days: cases worked out by hand, words read, and kept for the next job") {
  ShopDay day;
  take_hours(day, "7:30-16");
  day.days = 5;
  CHECK(day.begins == 7.5);
  CHECK(day.ends == 16);
  CHECK(hours_in_words(day) == "7:30-16:00");
  // Friday the 27th of November 2026, 15:30: an hour does not fit, and the next day that is worked is Monday.
  CHECK(written(schedule({hand(60, 0)}, at_time("2026-11-27 15:30"), day)[0].begin) == "2026-11-30 07:30");
  CHECK(written(schedule({hand(30, 0)}, at_time("2026-11-27 15:30"), day)[0].begin) == "2026-11-27 15:30");
  day.days = 6;
  CHECK(written(schedule({hand(60, 0)}, at_time("2026-11-27 15:30"), day)[0].begin) == "2026-11-28 07:30");
  CHECK(written(schedule({hand(10, 0)}, at_time("2026-11-29 10:00"), day)[0].begin) == "2026-11-30 07:30");
  // Ready on a Monday noon with a wait of 24 h, five days a week: begun on Friday, since nobody works on Sunday.
  day.days = 5;
  const std::vector<FinishStep> steps{hand(30, 24), hand(15, 0)};
  const ShopTime start = start_for(steps, at_time("2026-11-30 12:00"), day);
  CHECK(written(start) == "2026-11-27 15:30");
  for (const char* words : {"8:00–18:00", " 8 - 18 ", "8.00-18.00"}) {
    take_hours(day, words);
    CHECK(hours_in_words(day) == "8:00-18:00");
  }
  for (const char* words : {"", "8", "18-8", "8-8", "8-25", "a-b", "8:70-9", "8-18x", "-"}) {
    const ShopDay before = day;
    CHECK_THROWS_AS(take_hours(day, words), Problem);
    CHECK(day == before);
  }
  const OwnHome home;
  CHECK(load_shop_day() == ShopDay{});
  day.days = 5;
  keep_shop_day(day);
  CHECK(load_shop_day() == day);
  CHECK_THROWS_AS(read_shop_day(R"({"opens":18,"closes":8,"daysAWeek":5})", "x"), Problem);
  CHECK_THROWS_AS(read_shop_day(R"({"opens":8,"closes":18,"daysAWeek":9})", "x"), Problem);
}

TEST_CASE("work is done by day and waits go on by night: cases worked out by hand") {
  const std::vector<FinishStep> steps{hand(60, 2), hand(30, 24), hand(45, 0)};
  // 14:30 to 15:30, wait to 17:30, half an hour to 18:00, wait to 18:00 the next day: too late, so 8:00 the day after.
  std::vector<Appointment> when = schedule(steps, at_time("2026-11-30 14:30"));
  REQUIRE(when.size() == 3);
  CHECK(written(when[0].begin) == "2026-11-30 14:30");
  CHECK(written(when[1].begin) == "2026-11-30 17:30");
  CHECK(written(when[1].end) == "2026-11-30 18:00");
  CHECK(written(when[2].begin) == "2026-12-02 08:00");
  // Before the shop opens, and what does not fit into the evening.
  CHECK(written(schedule({hand(30, 0)}, at_time("2026-02-28 05:00"))[0].begin) == "2026-02-28 08:00");
  CHECK(written(schedule({hand(31, 0)}, at_time("2026-02-28 17:30"))[0].begin) == "2026-03-01 08:00");
  // Longer than a day: it begins in the morning.
  CHECK(written(schedule({hand(700, 0)}, at_time("2026-03-01 09:00"))[0].begin) == "2026-03-02 08:00");
  CHECK(schedule({}, at_time("2026-03-01")).empty());
  // To be ready by: that late, and half an hour later would be too late.
  for (const char* ready : {"2026-12-24 12:00", "2026-12-24 03:10", "2027-01-01"}) {
    const ShopTime by = at_time(ready), start = start_for(steps, by);
    CHECK(ready_at(steps, schedule(steps, start)) <= by);
    CHECK(ready_at(steps, schedule(steps, start + std::chrono::minutes(30))) > by);
  }
  for (const char* wrong :
       {"", "tomorrow", "2026-13-01", "2026-02-30", "2026-11-28 25:00", "2026-11-28x", "28.11.2026"})
    CHECK_THROWS_AS(parse_time(wrong), Problem);
}

TEST_CASE("each school's steps come in its order, with waits that products ask for") {  // checks.md: finishes
  Job job = board(300, 200, 19);
  add(job, "word", {kBox, 120, 10}, {150, 100}, cut(Kind::Incise, 4));
  add(job, "leaf", {kBox, 40, 10}, {150, 60}, cut(Kind::Incise, 4));
  job.finish.colour = "black";
  job.finish.colours["leaf"] = "green";
  const ProductTable products = load_products();
  const auto made = [&](FinishSchool school) {
    job.finish.school = school;
    const Plan p = planned(job);
    return finish_plan(p, finish_figures(p), products);
  };
  const auto place = [](const FinishPlan& plan, const std::string& words) {
    for (std::size_t i = 0; i < plan.steps.size(); ++i) {
      if (plan.steps[i].words.find(words) != std::string::npos) return static_cast<int>(i);
    }
    return -1;
  };
  CHECK(made(FinishSchool::None).steps.empty());
  const FinishPlan mask = made(FinishSchool::MaskPaint);
  // Sealed before painting over a mask; film before the run; peeled after the paint.
  CHECK(place(mask, "Masking film") < place(mask, "At the machine"));
  CHECK(place(mask, "At the machine") < place(mask, "the cut wood inside the film"));
  CHECK(place(mask, "the cut wood inside the film") < place(mask, "Paint, black"));
  CHECK(place(mask, "Paint, green") < place(mask, "Peel the film"));
  CHECK_FALSE(mask.warnings.empty());  // no film is said under Blank
  const FinishPlan sand = made(FinishSchool::PaintSand);
  const int back = place(sand, "Sand the face back");
  REQUIRE(back > 0);
  CHECK(sand.steps[static_cast<std::size_t>(back - 1)].wait == products.of("paint").cure_hours);
  CHECK(sand.steps[static_cast<std::size_t>(back)].tools.find("240") != std::string::npos);
  const FinishPlan painted = made(FinishSchool::PaintedBoard);
  CHECK(place(painted, "Paint, black") < place(painted, "At the machine"));
  const int machine = place(painted, "At the machine");
  CHECK(painted.steps[static_cast<std::size_t>(machine - 1)].wait == 24);  // paint cures 24 h before it is cut
  const FinishPlan varnish = made(FinishSchool::Varnish);
  const int first = place(varnish, "coat 1 of 4");
  REQUIRE(first > 0);
  CHECK(varnish.steps[static_cast<std::size_t>(first)].words.find("half and half") != std::string::npos);
  CHECK(varnish.steps[static_cast<std::size_t>(first)].wait == 6);  // six hours apart
  const FinishPlan oil = made(FinishSchool::Oil);
  CHECK(oil.steps.back().caution.find("rags") != std::string::npos);
  CHECK_FALSE(oil.warnings.empty());  // outdoors
  // Quantities by what is carved: a litre covers so many m², a tenth more for the cup.
  const Plan p = planned(job);
  const FinishFigures f = finish_figures(p);
  double litres = 0;
  for (const FinishQuantity& q : sand.quantities) litres += q.product.starts_with("Paint") ? q.litres : 0;
  CHECK(litres == Approx(f.carved * 1e-6 * 2 / 10 * 1.1).epsilon(0.02));
}

TEST_CASE("resin is poured in as many layers as its depth asks, whatever the school") {
  Job job = board(200, 120, 24);
  add(job, "pool", {kBox, 80, 50}, {100, 60}, cut(Kind::Recess, 14, {"flat-1/4in"}));
  job.items[0].cut.resin = true;
  const Plan p = planned(job);
  const FinishPlan plan = finish_plan(p, finish_figures(p), load_products());
  int pours = 0;
  for (const FinishStep& step : plan.steps) pours += step.words.find("pour it level") != std::string::npos ? 1 : 0;
  CHECK(pours == 3);  // 14 mm, at most 6 at once
  // By hand: the pool's volume and a tenth.
  const double volume = (80 * 50 - (4 - std::numbers::pi) * 10.08) * 14 * 1.1;
  double litres = 0;
  for (const FinishQuantity& q : plan.quantities) litres += q.words.find("to mix") != std::string::npos ? q.litres : 0;
  CHECK(litres == Approx(volume * 1e-6).epsilon(0.02));
}

TEST_CASE("a price is the sum of its lines, and one more leaves out what is spent once") {
  Job job = board(500, 400, 20);
  add(job, "word", {kBox, 120, 10}, {150, 100}, cut(Kind::Incise, 4));
  job.finish.design_minutes = 90;
  job.finish.copies = 3;
  const Plan p = planned(job);
  const FinishFigures f = finish_figures(p);
  const FinishPlan none = finish_plan(p, f, load_products());
  Rates rates;
  rates.wood = 2000;
  rates.waste = 25;
  rates.machine = 30;
  rates.hand = 40;
  rates.setup_minutes = 20;
  rates.overhead = 10;
  rates.margin = 20;
  rates.tax = 19;
  const Price price = price_of(p, none, rates);
  // By hand: 0.5 × 0.4 × 0.02 m³ and a quarter at 2000; a third of 90 min of design.
  const double wood = 0.5 * 0.4 * 0.02 * 1.25 * 2000, design = 30.0 / 60 * 40;
  const double machine = p.cutting_seconds() / 3600 * 30,
               by_hand = (20 + (p.seconds - p.cutting_seconds()) / 60) / 60 * 40;
  CHECK(price.cost == Approx(wood + machine + by_hand + design));
  CHECK(price.each == Approx(price.cost * 1.1 * 1.2));
  CHECK(price.tax == Approx(price.each * 0.19));
  CHECK(price.one_more == Approx((price.cost - design) * 1.1 * 1.2));
  double sum = 0;
  for (const PriceLine& line : price.lines) sum += line.money;
  CHECK(sum == Approx(price.each));
  CHECK(money_in_words(1234.5, rates) == "1234.50 €");
}

TEST_CASE("a finish stays in the job's file, and what cannot be is refused") {
  Job job = board();
  job.finish.school = FinishSchool::MaskPaint;
  job.finish.outdoors = false;
  job.finish.colours["name"] = "dark red";
  job.finish.copies = 4;
  CHECK(read_job(write_job(job), "again") == job);
  CHECK(write_job(board()).find("\"finish\"") == std::string::npos);
  std::string text = write_job(job);
  text.replace(text.find("maskPaint"), 9, "dipping!!");
  CHECK_THROWS_WITH(read_job(text, "job"), Catch::Contains("finish") && Catch::Contains("maskPaint"));
}

TEST_CASE("the calendar's file keeps to RFC 5545: lines, folding, escapes, an event a step") {
  FinishPlan plan;
  plan.steps = {hand(20, 2), hand(30, 0)};
  plan.steps[0].words =
      "Seal; then, slowly, brush “all” of it – " + std::string(60, 'x') + " größer ü ä ö " + std::string(40, 'y');
  plan.steps[0].caution = "Gloves.\nMoving air, no flames";
  const auto when = schedule(plan.steps, at_time("2026-11-30 09:00"));
  const std::string file =
      calendar_file(plan, when, "Gate, sign", "key-1", std::chrono::sys_seconds(std::chrono::seconds(1'800'000'000)));
  std::vector<std::string> unfolded;
  for (std::size_t from = 0; from < file.size();) {
    const std::size_t end = file.find("\r\n", from);
    REQUIRE(end != std::string::npos);
    const std::string line = file.substr(from, end - from);
    CHECK(line.size() <= 75);
    CHECK(line.find('\n') == std::string::npos);
    if (!line.empty() && line.front() == ' ')
      unfolded.back() += line.substr(1);
    else
      unfolded.push_back(line);
    from = end + 2;
  }
  const auto has = [&](const std::string& line) { return std::count(unfolded.begin(), unfolded.end(), line); };
  CHECK(unfolded.front() == "BEGIN:VCALENDAR");
  CHECK(unfolded.back() == "END:VCALENDAR");
  CHECK(has("BEGIN:VEVENT") == 2);
  CHECK(has("VERSION:2.0") == 1);
  CHECK(has("DTSTART:20261130T090000") == 1);
  CHECK(has("DTEND:20261130T092000") == 1);
  CHECK(has("DTSTART:20261130T112000") == 1);
  CHECK(has("DTSTAMP:20270115T080000Z") == 2);  // 1,800,000,000 s after 1970
  CHECK(has("SUMMARY:Gate\\, sign: Seal\\; then\\, slowly\\, brush “all” of it – " + std::string(60, 'x') +
            " größer ü ä ö " + std::string(40, 'y')) == 1);
  CHECK(has("DESCRIPTION:Gloves.\\nMoving air\\, no flames") == 1);
}

TEST_CASE("rates are kept for every job, and a file that cannot be read is never overwritten") {
  const OwnHome home;
  CHECK_FALSE(load_rates().said());
  Rates rates;
  rates.hand = 45;
  rates.currency = "CHF";
  keep_rates(rates);
  CHECK(load_rates() == rates);
  write_file_atomically(home.folder + "/doyen/rates.json", "{ broken");
  CHECK_THROWS_AS(load_rates(), Problem);
  keep_rates(rates);
  CHECK(load_rates() == rates);
  int aside = 0;
  for (const auto& each : std::filesystem::directory_iterator(home.folder + "/doyen"))
    aside += each.path().filename() != "rates.json" ? 1 : 0;
  CHECK(aside == 1);
}

TEST_CASE("a product's figures are kept in the user's own file, its name and caution as they stand there") {
  const OwnHome home;
  const ProductTable shipped = load_products();
  Product oil = shipped.of("oil");
  oil.coats = 2;
  oil.cure_hours = 100;
  oil.name = "Öl";  // as a window in another language has it
  keep_product(oil);
  CHECK(load_products().of("oil").coats == 2);
  CHECK(load_products().of("oil").cure_hours == Approx(100));
  CHECK(load_products().of("oil").name == shipped.of("oil").name);
  CHECK(load_products().products.size() == shipped.products.size());
  CHECK(load_products().of("paint") == shipped.of("paint"));
  CHECK(shipped_product("oil").coats == shipped.of("oil").coats);
  // Figures that are left out where they are none, and what the user wrote beside.
  Product varnish = load_products().of("varnish");
  varnish.thinned_coats = 0;
  std::string text = read_file(user_file("finishes.json"));
  text.replace(text.find("\"products\""), 0, "\"mine\": 7, ");
  std::ofstream(user_file("finishes.json")) << text;
  keep_product(varnish);
  CHECK(load_products().of("varnish").thinned_coats == 0);
  CHECK(load_products().of("oil").coats == 2);
  CHECK(read_file(user_file("finishes.json")).find("\"mine\": 7") != std::string::npos);
  oil.coats = 50;  // no such number of coats
  CHECK_THROWS_AS(keep_product(oil), Problem);
  CHECK(load_products().of("oil").coats == 2);
  // A damaged file is put aside, not written over.
  const std::string path = user_file("finishes.json");
  std::ofstream(path) << "{\"products\": [";
  CHECK_THROWS_AS(load_products(), Problem);
  oil.coats = 4;
  keep_product(oil);
  CHECK(load_products().of("oil").coats == 4);
  CHECK(std::filesystem::exists(path + ".damaged-1"));
  CHECK(product_range("coats").most == Approx(20));
  CHECK_THROWS_AS(product_range("name"), Problem);
}

TEST_CASE("what is carved where the edges are rounded over is told, and goes with each remedy") {
  // A sign of 200 × 100 mm, a border 6 mm from its edge and 2 mm wide, a word in the middle.
  Job job = board(240, 140, 18);
  add(job, "sign", {kBox, 200, 100}, {120, 70}, cut(Kind::CutOut, 1));
  PlainShape border{kBox, 188, 88};
  border.band = 2;
  add(job, "border", border, {120, 70}, cut(Kind::Incise, 1));
  add(job, "middle", {kBox, 60, 20}, {120, 70}, cut(Kind::Recess, 2, {"flat-1/8in"}));
  CHECK(find(planned(job), "into-round-over") == nullptr);
  job.finish.round_over = 5;
  CHECK(find(planned(job), "into-round-over") == nullptr);
  job.finish.round_over = 8;
  const Plan p = planned(job);
  const Verdict* v = find(p, "into-round-over");
  REQUIRE(v != nullptr);
  CHECK(v->piece == "border");
  CHECK(v->text.find("6 mm") != std::string::npos);
  CHECK(std::count_if(p.verdicts.begin(), p.verdicts.end(),
                      [](const Verdict& one) { return one.code == "into-round-over"; }) == 1);
  REQUIRE(v->remedies.size() == 2);
  check_remedies_mend(job, "into-round-over");
  Job smaller = job;
  v->remedies[0].apply(smaller);
  CHECK(smaller.finish.round_over == Approx(6));
  // It is a step of the finish whatever the school, 600 mm of edge: 5 minutes and 2 a metre.
  const FinishPlan steps = finish_plan(p, finish_figures(p), load_products());
  const auto rounded = std::find_if(steps.steps.begin(), steps.steps.end(), [](const FinishStep& step) {
    return step.words.find("Round the front edges over by 8 mm") == 0;
  });
  REQUIRE(rounded != steps.steps.end());
  CHECK(rounded->minutes == Approx(std::ceil(5 + 2 * 0.6)));
  CHECK_FALSE(rounded->caution.empty());
  // From the back, and of a board that nothing is cut out of.
  job.find("border")->cut.back = true;
  CHECK(find(planned(job), "into-round-over") == nullptr);
  job.find("border")->cut.back = false;
  job.items.erase(job.items.begin());
  job.find("border")->piece.at = {96, 46};  // 2 mm from the board's left and front
  CHECK(find(planned(job), "into-round-over") != nullptr);
}
