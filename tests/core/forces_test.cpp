// What a bit pushes with and what tabs stand: by hand-worked figures; and delicate strokes by the bit's direction.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "holding/board_hold.hpp"
#include "holding/forces.hpp"
#include "remedies.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

Job sign(double tab_long, double tab_high, const char* wood = "eastern-white-pine") {
  Job job = board(200, 140, 12);
  job.blank.species = wood;
  Treatment out = cut(Kind::CutOut, 0);
  out.through.tabs.length = tab_long;
  out.through.tabs.height = tab_high;
  add(job, "sign", {kBox, 120, 80}, {100, 70}, out);
  return job;
}

}  // namespace

TEST_CASE("the push of a bit and the stand of a tab are those worked out by hand") {
  Bit bit;
  bit.kind = BitKind::Flat;
  bit.diameter = 6;
  bit.feeds["soft"] = {3000, 1000, 18000, 3};
  // 3 × 6 mm at 50 mm/s are 900 mm³/s; the edge runs at π · 6 · 300 = 5655 mm/s; 40 N/mm² three times: 19.1 N.
  CHECK(bit_pushes(bit, "soft") == Approx(3 * 40 * 900 / (std::numbers::pi * 6 * 300)));
  CHECK(bit_pushes(bit, "soft") == Approx(19.1).margin(0.1));
  CHECK(bit_pushes(bit, "hard") == 0);  // no feeds are known
  // 6 mm long and 1 mm high, its ramps take 1.8 mm of that: 4.2 mm² in a wood that stands 5 N/mm².
  Tabs tabs;
  tabs.length = 6;
  tabs.height = 1;
  CHECK(tab_stands(tabs, 12, "soft") == Approx(4.2 * 5));
  LengthStyle inches;
  inches.unit = Unit::Inch;
  CHECK(force_in_words(44.4822, inches) == "10 lbf");
  CHECK(force_in_words(31.83, LengthStyle{}) == "31.8 N");
}

TEST_CASE("tabs that would shear off are told, and each remedy makes them stand") {
  CHECK(find(planned(sign(6.35, 3.175)), "tab-shears") == nullptr);  // what Doyen proposes stands
  const Job thin = sign(3, 0.4);
  const Plan p = planned(thin);
  const Verdict* v = find(p, "tab-shears");
  REQUIRE(v != nullptr);
  CHECK(v->grade == Grade::Mind);
  CHECK(v->remedies.size() == 2);
  check_remedies_mend(thin, "tab-shears");
  // Harder wood stands more than it pushes more.
  const Bit* bit = p.rack.find("flat-1/4in");
  REQUIRE(bit != nullptr);
  Tabs tabs = thin.items.front().cut.through.tabs;
  CHECK(tab_stands(tabs, 12, "hard") > tab_stands(tabs, 12, "soft"));
}

TEST_CASE("what Doyen proposes stands in every wood there is, for every bit that cuts out") {
  for (const char* wood : {"eastern-white-pine", "white-oak", "birch-plywood", "mdf", "acrylic"}) {
    for (const char* bit : {"flat-1/4in", "flat-1/8in"}) {
      Job job = sign(6.35, 3.175, wood);
      job.items.front().cut.bit = bit;
      INFO(wood << ", " << bit);
      CHECK(find(planned(job), "tab-shears") == nullptr);
    }
  }
}

TEST_CASE("strokes stand somewhat higher under a bit that does not lift the chips; such a bit is a remedy") {
  Job job = board(300, 200, 20);
  job.blank.species = "black-walnut";
  Treatment raised = cut(Kind::Raise, 4.6, {"flat-1/4in"});
  raised.raise.sloped = false;
  raised.margin = 20;
  add(job, "bar", {kBox, 120, 4}, {150, 100}, raised);
  Rack rack = load_rack();
  for (Bit& bit : rack.bits) {
    if (bit.id == "flat-1/4in") bit.direction = CutDirection::UpCut;
  }
  Bit down = *rack.find("flat-1/4in");
  down.id = "own-down";
  down.name = "1/4 in down";
  down.direction = CutDirection::DownCut;
  std::erase_if(rack.bits, [&](const Bit& bit) {
    return bit.id != "flat-1/4in" && bit.kind == BitKind::Flat && std::abs(bit.diameter - 6.35) < 0.1;
  });
  rack.bits.push_back(down);
  const auto looked = [&](const Job& of) { return plan(of, rack, machine_for(of)); };
  const Plan p = looked(job);
  const Verdict* thin = find(p, "stands-thin");
  REQUIRE(thin != nullptr);
  REQUIRE(thin->remedies.size() == 3);
  CHECK(thin->remedies.back().label.find("1/4 in down") != std::string::npos);
  for (const Remedy& remedy : thin->remedies) {
    Job after = job;
    remedy.apply(after);
    INFO(remedy.label);
    CHECK(find(looked(after), "stands-thin") == nullptr);
  }
  // Half as high again is too much for either: it is not offered where it would not help.
  job.find("bar")->cut.depth = 6;
  const Plan high = looked(job);
  REQUIRE(find(high, "stands-thin") != nullptr);
  CHECK(find(high, "stands-thin")->remedies.size() == 2);
}

namespace {

KeepOut clamp(double x, double y) {
  KeepOut place;
  place.x = x;
  place.y = y;
  return place;
}

// A long board with a groove at its right end, and a cut-out round all of it.
Job clamped(std::vector<KeepOut> clamps) {
  Job job = board(900, 200, 18);
  job.blank.species = "white-oak";
  add(job, "far", {kBox, 60, 40}, {800, 100}, cut(Kind::Recess, 6, {"flat-1/2in"}));
  job.blank.keep_outs = std::move(clamps);
  return job;
}

}  // namespace

TEST_CASE("what clamps stand is worked out by levers, as by hand") {
  // Two clamps of 300 N, 400 mm apart: 600 N straight; turned about their middle 300 · 200 each, and their pads 40 mm
  // square, (40 + 40) / 6 each (data/strength.json, common practice; levers: any textbook).
  const Holds two = holds_of({clamp(100, 100), clamp(500, 100)});
  CHECK(two.straight == Approx(600));
  CHECK(two.middle.x == Approx(300));
  CHECK(two.turning == Approx(2 * 300 * (200 + 80.0 / 6)));
  CHECK(two.share({60, {300, 100}}) == Approx(0.1));
  CHECK(two.share({60, {900, 100}}) == Approx(0.1 + 60 * 600 / two.turning));
  // A screw stands more, and does not hold a board that turns about it.
  KeepOut screw = clamp(0, 0);
  screw.kind = KeepOut::Kind::Screw;
  CHECK(holds_of({screw}).straight == Approx(800));
  CHECK(holds_of({screw}).turning == 0);
  CHECK(holds_of({}).straight == 0);
}

TEST_CASE("a board that would turn about its one clamp is told, and each remedy holds it") {
  CHECK(find(planned(clamped({})), "held-too-little") == nullptr);  // nobody said how it is held
  CHECK(find(planned(clamped({clamp(20, 100), clamp(880, 100)})), "held-too-little") == nullptr);
  const Job one = clamped({clamp(20, 100)});
  const Plan p = planned(one);
  const Verdict* v = find(p, "held-too-little");
  REQUIRE(v != nullptr);
  CHECK(v->at.x > 700);
  CHECK(v->text.find("turn") != std::string::npos);
  check_remedies_mend(one, "held-too-little");
  for (const Remedy& remedy : v->remedies) {  // and brings nothing else
    Job mended = one;
    remedy.apply(mended);
    const Plan then = planned(mended);
    for (const char* code : {"nut-near-clamp", "in-keep-out"}) CHECK(find(then, code) == nullptr);
  }
  // Against stops it is wedged.
  Job against = one;
  against.run.fixture.kind = Fixture::Kind::Stops;
  CHECK(find(planned(against), "held-too-little") == nullptr);
  // Two side by side at one end still let it turn.
  CHECK(find(planned(clamped({clamp(20, 70), clamp(20, 130)})), "held-too-little") != nullptr);
  // With waste round a cut-out, screws are a remedy, too.
  Job sign = one;
  sign.blank.height = 320;
  add(sign, "sign", {kBox, 760, 120}, {480, 100}, cut(Kind::CutOut, 0));
  const Plan outlined = planned(sign);
  const Verdict* w = find(outlined, "held-too-little");
  REQUIRE(w != nullptr);
  CHECK(w->remedies.size() == 2);
  check_remedies_mend(sign, "held-too-little");
}
