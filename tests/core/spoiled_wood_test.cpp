// What once spoiled boards without a word, one case each: the judge finds the wood as wanted, or a sentence says why
// not.
#include <catch2/catch.hpp>
#include <cmath>

#include "inlay/riding.hpp"
#include "planning/further_boards.hpp"
#include "planning/judged.hpp"
#include "rack/own_rack.hpp"
#include "random_jobs.hpp"
#include "relief/carve.hpp"
#include "run/gcode.hpp"
#include "storage/data_folder.hpp"
#include "verdicts/accepted.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

Judgement judged(const Plan& p, double cell = 0.15) { return judge_files(p, gcode_files(p), cell); }

// The gravest sentence of this code goes with its first remedy that works, and brings no stop of its own.
bool mended(const Job& job, const std::string& code) {
  Plan p = planned(job);
  for (const Verdict& v : with_tried_remedies(p, load_rack())) {
    if (v.code != code) continue;
    for (const Remedy& remedy : v.remedies) {
      if (remedy.says_of_shop) continue;
      Job after = job;
      remedy.apply(after);
      return find(planned(after), code) == nullptr;
    }
  }
  return false;
}

}  // namespace

TEST_CASE("rows of the V on a floor never cross the raised shape, wherever its points lie") {
  Job job = board(140, 140, 16);
  PlainShape star{PlainShape::Kind::Star, 70, 70};
  star.points = 6;
  PlainShape panel{PlainShape::Kind::Ellipse, 120, 120};
  add(job, "panel", panel, {70, 70}, {});
  Treatment raise = cut(Kind::Raise, 4, {"flat-1/4in", "flat-1/16in"});
  raise.raise.panel = "panel";
  add(job, "star", star, {70, 70}, raise);
  const Plan p = planned(job);
  CHECK(at(carved(p, 0.2), {70, 70}) == 0);
  CHECK(judged(p).cut_as_wanted());
}

TEST_CASE("every row enters and leaves a shape as often, also through its points") {
  // Points at the very heights of rows, as far as doubles can say.
  for (int k = 1; k < 200; ++k) {
    const double step = 0.1 + 0.0137 * k, high = step * (7 + k % 5);
    const Region region = clean(
        {{{0, 0}, {20, 0}, {20, high}, {12, snap_to_grid(high * 3 / 7)}, {6, high}, {0, snap_to_grid(high * 4 / 7)}}});
    for (const Line2& row : hatch(region, step)) {
      const Point middle = (row.front() + row.back()) * 0.5;
      CHECK((contains(region, middle) || distance_to_outline(region, middle) < 1e-3));
    }
  }
}

TEST_CASE("a stroke that just closes at its limit is carved like one that has no limit") {
  // common practice, no source: a groove once deep enough for its stroke does not change when the limit is raised
  // further
  for (const auto& [bit, across, limit] :
       {std::tuple{"v90", 6.0, 3.0}, std::tuple{"v60", 4.0, 2 / std::tan(M_PI / 6)}}) {
    Job job = board();
    Treatment t = cut(Kind::Incise, 1, {}, bit);
    t.incise.floor_limit = limit;
    add(job, "bar", {kBox, 80, across}, {120, 80}, t);
    const Plan p = planned(job);
    const float deep = at(carved(p, 0.05), {120, 80});
    CHECK(deep == Approx(-limit).margin(0.06));
    CHECK(judged(p).cut_as_wanted());
    job.items[0].cut.incise.floor_limit.reset();
    CHECK(at(carved(planned(job), 0.05), {120, 80}) == Approx(deep).margin(0.02));
  }
}

TEST_CASE("one bit's work keeps the order of grounds") {
  Job job = board(200, 140, 24);
  add(job, "deep", {kBox, 120, 90}, {100, 70}, cut(Kind::Recess, 8, {"flat-1/4in"}));
  add(job, "level", {kBox, 60, 50}, {100, 70}, cut(Kind::Plane, 2, {"flat-1/4in"}));
  const Plan p = planned(job);
  CHECK(p.pieces[1]->around.ground.below == Approx(8));
  const Judgement j = judged(p);
  CHECK_FALSE(j.has(Fault::Kind::Bite));
  CHECK(j.cut_as_wanted());
}

TEST_CASE("after a tab the cut is at full over-cut within a ramp as steep as the one that led up") {
  Job job = board(240, 160, 18);
  add(job, "plate", {kBox, 160, 100}, {120, 80}, cut(Kind::CutOut, 1));
  job.items[0].cut.through.over_cut = 0.3;
  const Plan p = planned(job);
  const HeightField f = carved(p, 0.1);
  for (const PlacedTab& tab : p.pieces[0]->cuts.cut_out->tabs) {
    const Point out{tab.along.y, -tab.along.x};
    const TabShape shape = tab_shape(job.items[0].cut.through.tabs, 18);
    for (const double side : {-1.0, 1.0}) {
      const double foot = shape.length / 2 + 6.35 / 2 + 0.3 * shape.ramp / shape.height;
      CHECK(at(f, tab.at + out * 0.3 + tab.along * (side * (foot + 0.5))) == Approx(-18.3).margin(0.001));
    }
  }
  CHECK(judged(p, 0.2).cut_as_wanted());
}

TEST_CASE("a V that would cut the wall beside its floor is a stop, with room, a slimmer V or a move that mend it") {
  Job job = board(240, 160, 18);
  add(job, "floor", {kBox, 120, 80}, {120, 80}, cut(Kind::Recess, 6));
  add(job, "groove", {kBox, 40, 4}, {120, 118},
      cut(Kind::Incise, 1, {}, "v90"));  // 1 mm from the wall: 6 mm are needed
  const Plan p = planned(job);
  const Verdict* v = find(p, "cuts-wall");
  REQUIRE(v != nullptr);
  CHECK(v->grade == Grade::Stop);
  CHECK(judged(p).has(Fault::Kind::Gouge));  // the judge agrees, in its own way
  CHECK(mended(job, "cuts-wall"));
  job.items[1].piece.at.y = 80;
  CHECK(find(planned(job), "cuts-wall") == nullptr);
  CHECK(judged(planned(job)).cut_as_wanted());
}

TEST_CASE("slits against neighbours, tabs that hold on nothing, overlapping cut-outs") {
  Job job = board(240, 160, 12);
  const auto plate = [&](const char* id, Point where) {
    Treatment t = cut(Kind::CutOut, 1);
    t.bit = "flat-6mm";
    add(job, id, {kBox, 60, 60}, where, t);
  };
  plate("a", {60, 80});
  plate("b", {124, 80});  // 4 mm apart, with a 6 mm bit
  const Plan near = planned(job);
  REQUIRE(find(near, "slit-in-neighbour") != nullptr);
  CHECK(find(near, "slit-in-neighbour")->grade == Grade::Stop);
  CHECK(judged(near, 0.25).has(Fault::Kind::Gouge));
  CHECK(mended(job, "slit-in-neighbour"));
  job.items[1].piece.at.x = 100;
  CHECK(find(planned(job), "cut-outs-overlap") != nullptr);
  job.items[1].piece.at.x = 150;
  CHECK(find(planned(job), "slit-in-neighbour") == nullptr);
  job.items[0].piece.at.x = 31;  // the slit breaks through the board's edge
  CHECK(find(planned(job), "tab-holds-nothing") != nullptr);
  CHECK(mended(job, "tab-holds-nothing"));
}

TEST_CASE("a tab keeps away from the slit on the other side of a narrow place") {
  // A notch 9 mm wide between two arms: a 6 mm bit runs down one side and up the other, and cuts what stands between.
  Job job = board(240, 160, 12);
  job.items.push_back({{"fork", "fork", oracle::drawing("M0 0 h120 v80 h-55 v-60 h-9 v60 h-56 z"), {110, 80}, 0},
                       cut(Kind::CutOut, 1)});
  job.items[0].cut.bit = "flat-6mm";
  job.items[0].cut.through.tabs.count = 8;
  const Plan p = planned(job);
  const auto& tabs = p.pieces[0]->cuts.cut_out->tabs;
  REQUIRE(tabs.size() >= 2);
  const Region& fork = p.pieces[0]->outlines.region;
  const Box notch{105, 65, 116, 125};
  for (const PlacedTab& tab : tabs) CHECK_FALSE(notch.contains(tab.at));
  CHECK(find(p, "tab-badly-placed") == nullptr);
  CHECK(judged(p).cut_as_wanted());
  // One that a hand put there is told, and the remedy takes it away.
  const Ring& ring = fork.islands.front().rings.front();
  const Box all = bounds(fork);
  job.items[0].cut.through.tabs.placed = {{0, share_nearest(ring, {all.left + 56, all.top - 25})},
                                          {0, share_nearest(ring, {all.left, all.centre().y})}};
  const Plan by_hand = planned(job);
  REQUIRE(find(by_hand, "tab-badly-placed") != nullptr);
  CHECK(mended(job, "tab-badly-placed"));
}

TEST_CASE("a flat bit that clears a groove's floor deeper than its flutes is a stop") {
  Job job = board(240, 160, 28);
  add(job, "groove", {kBox, 120, 60}, {120, 80}, cut(Kind::Incise, 1, {"flat-1/8in"}));
  job.items[0].cut.incise.floor_limit = 15;
  const double flutes = load_rack().find("flat-1/8in")->flute_length;
  REQUIRE(flutes < 15);
  const Plan p = planned(job);
  REQUIRE(find(p, "flutes-too-short") != nullptr);
  CHECK(find(p, "flutes-too-short")->grade == Grade::Stop);
  CHECK(mended(job, "flutes-too-short"));
}

TEST_CASE("heaps, doubles and rims are said, and what lies on two grounds is cut part by part") {
  Job job = board(240, 160, 18);
  add(job, "one", {kBox, 60, 8}, {80, 80}, cut(Kind::Incise, 3));
  add(job, "two", {kBox, 60, 8}, {120, 84}, cut(Kind::Incise, 2));
  CHECK(find(planned(job), "heaped") != nullptr);
  CHECK(mended(job, "heaped"));
  job.items[1].piece.at = {80, 80};
  job.items[1].cut = job.items[0].cut;
  CHECK(find(planned(job), "same-place-twice") != nullptr);
  CHECK(mended(job, "same-place-twice"));

  // Three bars as one drawing: on the floor, beside it, and one across its wall.
  Job words = board(240, 160, 18);
  add(words, "floor", {kBox, 100, 100}, {70, 80}, cut(Kind::Recess, 4));
  Piece bars{"bars", "bars", oracle::drawing("M10 0 h40 v6 h-40 z M130 0 h40 v6 h-40 z"), {110, 80}, 0};
  words.items.push_back({bars, cut(Kind::Incise, 1, {}, "v90")});
  const Plan apart = planned(words);
  CHECK(find(apart, "half-on-ground") == nullptr);
  const HeightField f = carved(apart, 0.2);
  CHECK(at(f, {50, 80}) == Approx(-7).margin(0.1));
  CHECK(at(f, {170, 80}) == Approx(-3).margin(0.1));
  CHECK(judged(apart).cut_as_wanted());
  words.items[1].piece.at.x += 65;  // the left one now lies across the wall
  const Plan across = planned(words);
  REQUIRE(find(across, "half-on-ground") != nullptr);
  CHECK(find(across, "half-on-ground")->grade == Grade::Stop);

  Job raised = board(240, 160, 18);
  add(raised, "panel", {kBox, 120, 80}, {120, 80}, {});
  Treatment t = cut(Kind::Raise, 3);
  t.raise.panel = "panel";
  add(raised, "shape", {PlainShape::Kind::Ellipse, 60, 40}, {160, 80}, t);
  CHECK(find(planned(raised), "runs-into-rim") != nullptr);
  CHECK(mended(raised, "runs-into-rim"));
}

TEST_CASE("rapids stay above the highest wood and film, and a bit is changed with room for hands") {
  Job job = board(200, 120, 18);
  job.blank.readings = {18, 18.9};
  job.blank.bed_unevenness = 0.2;
  job.blank.film = 0.8;
  add(job, "groove", {kBox, 60, 6}, {60, 60}, cut(Kind::Incise, 1));
  add(job, "floor", {kBox, 40, 40}, {140, 60}, cut(Kind::Recess, 2));
  CHECK(highest_wood(job, Side::Front) == Approx(0.9 + 0.2 + 0.8));
  job.run.one_file = true;
  const Plan p = planned(job);
  const std::string text = gcode_files(p).at(0).text;
  const double shift = seen_placement_of(job).z;
  double lowest_rapid = 1e9, at_pause = 0, z = 0;
  for (std::size_t i = 0; i < text.size();) {
    const std::size_t end = text.find('\n', i);
    const std::string line = text.substr(i, end - i);
    i = end + 1;
    if (line.starts_with("G0 Z")) {
      z = std::stod(line.substr(4)) - shift;
      lowest_rapid = std::min(lowest_rapid, z);
    }
    if (line == "M0") at_pause = z;
  }
  CHECK(lowest_rapid >= 1.9);
  CHECK(at_pause >= 40);
  CHECK_FALSE(judged(p).has(Fault::Kind::Rapid));
  job.run.zero_surface = ZeroSurface::Bed;  // then z counts from the thickest place
  CHECK(highest_wood(job, Side::Front) == Approx(0.2 + 0.8));
}

TEST_CASE("no file is written with a guessed feed; lines and holes mind the flutes; a bit has one profile") {
  Job job = board();
  job.blank.species = "brass";
  add(job, "groove", {kBox, 60, 6}, {60, 60}, cut(Kind::Incise, 1, {}, "v30"));
  const Plan p = planned(job);
  CHECK(find(p, "no-feeds") != nullptr);
  CHECK_THROWS_WITH(gcode_files(p), Catch::Contains("no feeds"));
  for (const Kind kind : {Kind::Line, Kind::Drill}) {
    Job deep = board(200, 120, 30);
    add(deep, "deep", {PlainShape::Kind::Ellipse, 6, 6}, {60, 60}, cut(kind, 14, {}, "flat-1/8in"));
    REQUIRE(find(planned(deep), "flutes-too-short") != nullptr);
    CHECK(mended(deep, "flutes-too-short"));
  }
  Bit taper;
  taper.kind = BitKind::Taper;
  taper.diameter = 6;
  taper.angle = 20;
  taper.tip = 1;
  taper.flute_length = 20;
  for (double d = 0.05; d < 12; d += 0.13) {
    const double half = taper.half_width_at(d);
    if (half < 3 - 1e-9) CHECK(taper.profile(half) == Approx(d).margin(1e-6));
  }
  // A plunge carves the profile itself.
  HeightField field({0, 0, 8, 8}, 0.05);
  field.clear();
  carve(field, {Pass{{{4, 4, -5}}}}, taper);
  for (std::size_t c = 0; c < field.columns(); c += 3) {
    const double away = std::hypot(field.x_of(c) - 4, field.y_of(80) - 4);
    CHECK(field.at(c, 80) == Approx(std::min(0.0, away > 3 ? 0.0 : taper.profile(away) - 5)).margin(1e-4));
  }
}

TEST_CASE("floors that the V makes alone keep their ridges under 0.05 mm, with a tip flat or without") {
  for (const char* bit : {"v60", "engrave20", "v90"}) {
    Job job = board(120, 90, 16);
    Treatment t = cut(Kind::Incise, 1, {}, bit);
    t.incise.floor_limit = 1.0;
    PlainShape star{PlainShape::Kind::Star, 50, 40};
    star.points = 5;
    add(job, "star", star, {60, 45}, t);
    const Judgement j = judged(planned(job), 0.08);
    INFO(bit);
    CHECK_FALSE(j.has(Fault::Kind::Missed));
    CHECK(j.within <= 0.05 + 1e-6);
  }
}

TEST_CASE(
    "what is no fault is no stop: helpers past the edge, planing, holes right through, a hole of the bit's size") {
  Job job = board(240, 160, 12);
  add(job, "sign", {kBox, 160, 100}, {120, 80}, cut(Kind::CutOut, 1));
  add(job, "helper", {kBox, 400, 10}, {120, 80}, {});
  add(job, "level", {kBox, 250, 170}, {120, 80}, cut(Kind::Plane, 0.5));
  add(job, "peg", {PlainShape::Kind::Ellipse, 6, 6}, {80, 80}, cut(Kind::Drill, 12.3, {}, "flat-1/4in"));
  add(job, "hole", {PlainShape::Kind::Ellipse, 6.35, 6.35}, {160, 80}, cut(Kind::Pierce, 1));
  const Plan p = planned(job);
  for (const Verdict& v : p.verdicts) {
    INFO(v.code << ": " << v.text);
    CHECK(v.grade != Grade::Stop);
    CHECK(v.code != "unreached");
  }
  CHECK(at(carved(p, 0.2), {160, 80}) < -12);
  CHECK(judged(p).cut_as_wanted());
  // But words in the waste are a stop, and so is work that the machine cannot reach from where zero is taken.
  add(job, "words", {kBox, 30, 6}, {20, 80}, cut(Kind::Incise, 1));
  CHECK(find(planned(job), "in-the-waste") != nullptr);
  Job far = board(900, 100, 12);
  add(far, "end", {kBox, 30, 6}, {860, 50}, cut(Kind::Incise, 1));
  CHECK(find(planned(far), "past-travel") != nullptr);
}

TEST_CASE("a plug that a blunt V leaves high is a stop, with the easing that comes nearest and what then remains",
          "[heavy]") {
  Job job = board(160, 110, 20);
  job.blank.species = "black-walnut";
  Treatment t = cut(Kind::Inlay, 5, {}, "v60");
  t.inlay.contact = 3.8;
  PlainShape star{PlainShape::Kind::Star, 60, 60};
  star.points = 5;
  add(job, "star", star, {80, 55}, t);
  Rack rack = load_rack();
  CHECK(riding_inlays(plan(job, rack, machine_for(job)), rack).empty());  // a sharp V
  for (Bit& bit : rack.bits) {
    if (bit.id == "v60") bit.tip = 0.8;
  }
  const auto found = riding_inlays(plan(job, rack, machine_for(job)), rack);
  REQUIRE(found.size() == 1);
  CHECK(found[0].grade == Grade::Stop);
  REQUIRE_FALSE(found[0].remedies.empty());
  Job taken = job;
  accept(taken, acceptance_name(found[0]), "scraped by hand");
  const auto as_accepted = riding_inlays(plan(taken, rack, machine_for(taken)), rack);
  REQUIRE(as_accepted.size() == 1);
  CHECK(as_accepted[0].accepted);
  CHECK(as_accepted[0].grade == Grade::Mind);
  Job after = job;
  found[0].remedies[0].apply(after);
  const auto then = riding_inlays(plan(after, rack, machine_for(after)), rack);
  if (!then.empty()) {
    CHECK(then[0].grade < Grade::Stop);
    CHECK_THAT(found[0].remedies[0].label, Catch::Contains("remain"));
  } else {
    CHECK_THAT(found[0].remedies[0].label, Catch::Contains("seats"));
  }
}

TEST_CASE("every remedy that is shown lifts its verdict, brings no stop, and says what it does to the time",
          "[heavy]") {
  const Rack rack = load_rack();
  int shown = 0;
  for (unsigned seed = 400'000; seed < 400'008; ++seed) {
    const Job job = SignMaker(seed).job();
    const Plan p = plan(job, rack, machine_for(job));
    PlanCache cache;
    for (const Verdict& v : with_tried_remedies(p, rack, &cache)) {
      for (const Remedy& remedy : v.remedies) {
        if (!remedy.apply) continue;
        ++shown;
        Job after = job;
        remedy.apply(after);
        const Plan then = plan(after, rack, machine_for(after));
        INFO("seed " << seed << ": " << v.code << ", " << remedy.label);
        for (const Verdict& w : then.verdicts) {
          const bool same = w.code == v.code && w.piece == v.piece && w.grade >= v.grade;
          CHECK_FALSE(same);
        }
        CHECK(then.count(Grade::Stop) <= p.count(Grade::Stop));
        if (std::abs(then.seconds - p.seconds) >= 60)
          CHECK_THAT(remedy.label, Catch::Contains(then.seconds > p.seconds ? "longer" : "shorter"));
      }
    }
  }
  CHECK(shown > 5);
}

TEST_CASE("every demo is cut as wanted, with its further boards", "[heavy]") {
  const Rack rack = load_rack();
  for (const char* name : {"gate-sign", "gate-sign-raised", "heron-plaque", "inlaid-lid", "fingerpost", "seed-drawer",
                           "sundial-plate", "test-ladder", "dibber-board", "glasshouse-sign"}) {
    const Job job = load_job(data_file("demo/" + std::string(name) + ".doyen"));
    std::vector<Job> jobs{job};
    for (FurtherBoard& further : further_boards(job, rack)) jobs.push_back(std::move(further.job));
    for (const Job& each : jobs) {
      const Plan p = plan(each, rack, machine_for(each));
      if (p.runs.empty()) continue;
      INFO(name << ", " << each.name);
      CHECK_FALSE(p.has_stop());
      CHECK(judge_files(p, gcode_files(p), glancing_cell(each.blank)).cut_as_wanted());
    }
  }
}
