// Damaged jobs with every kind of piece, and pieces with figures at their limits: refused or set, never worse.
#include <catch2/catch.hpp>
#include <chrono>
#include <numbers>
#include <random>
#include <thread>

#include "job/job.hpp"
#include "json_reading.hpp"
#include "oracle.hpp"
#include "planning/outputs.hpp"
#include "planning/plan.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;

namespace {

// Everything that may be set is set or refused; nothing that is set has a coordinate that is none.
void set_all(const Job& job) {
  for (const Item& item : job.items) {
    try {
      const Outlines o = outlines_of(item.piece, job.source());
      for (const Island& island : o.region.islands) {
        for (const Ring& ring : island.rings) {
          REQUIRE(ring.size() >= 3);
          for (const Point& p : ring) REQUIRE(std::isfinite(p.x + p.y));
        }
      }
      for (const Line2& line : o.lines) {
        for (const Point& p : line) REQUIRE(std::isfinite(p.x + p.y));
      }
    } catch (const Problem& problem) {
      CHECK(std::string(problem.what()).size() > 10);
    }
  }
}

}  // namespace

TEST_CASE("a job of made pieces with changed figures is refused or set") {
  Json job = Json::parse(read_file(data_file("demo/heron-plaque.doyen")));
  job["pieces"].erase(2);  // the photograph's data would drown the rest
  for (const char* how : {"grow", "join", "takeAway", "overlap", "split", "mirror", "grid", "round", "along"})
    job["pieces"].push_back(
        {{"id", std::string("made-") + how}, {"madeFrom", {{"how", how}, {"from", {"plaque", "arch"}}}}});
  for (const char* form : {"archTop", "polygon", "star", "ribbon", "line"})
    job["pieces"].push_back({{"id", form}, {"shape", {{"form", form}, {"width", 60}, {"height", 40}}}});
  const std::string text = job.dump();
  set_all(read_job(text, "x"));
  std::mt19937 random(29);
  std::uniform_int_distribution<std::size_t> place(0, text.size() - 1);
  int read = 0;
  for (int round = 0; round < 70; ++round) {
    std::string broken = text;
    for (int k = 0; k < 2; ++k) {  // digits for digits: most of them stay JSON
      std::size_t at = place(random);
      for (std::size_t look = 0; look < 200 && !(broken[at] >= '0' && broken[at] <= '9'); ++look)
        at = (at + 1) % broken.size();
      broken[at] = static_cast<char>('0' + random() % 10);
    }
    try {
      set_all(read_job(broken, "x"));
      ++read;
    } catch (const Problem& problem) {
      CHECK(std::string(problem.what()).size() > 10);
    }
  }
  CHECK(read > 15);
}

TEST_CASE("copies that lie on each other are made or refused, never waited for") {
  Piece wave;  // a round outline of 6,000 points
  wave.id = "wave";
  Drawing drawing;
  std::string data;
  for (int i = 0; i < 6000; ++i) {
    const double a = 2 * std::numbers::pi * i / 6000, r = 50 + std::sin(a * 90);
    data += (i == 0 ? "M" : "L") + std::to_string(60 + r * std::cos(a)) + " " + std::to_string(60 + r * std::sin(a));
  }
  drawing.page_width = drawing.page_height = 120;
  drawing.parts.edit().push_back({"w", "", data + "Z"});
  wave.what = drawing;
  Piece copies;
  copies.id = "copies";
  const auto made = [&](Derived d) {
    d.from = {"wave"};
    copies.what = d;
    return outlines_of(copies, [&](const std::string&) { return &wave; }).region;
  };
  Derived round;
  round.how = Derived::How::Round;
  round.count = 12;
  round.radius = 20;  // each lies on all the others
  const std::size_t all = 12 * point_count(outlines_of(wave).region);
  REQUIRE(all > 55'000);
  CHECK_THROWS_WITH(made(round), Catch::Contains("lie on each other have " + std::to_string(all) + " points together"));
  round.count = 5;
  CHECK(made(round).islands.size() == 1);
  Derived grid;
  grid.how = Derived::How::Grid;
  grid.columns = 12;
  grid.step_x = 110;  // apart: as many points as there are
  CHECK(point_count(made(grid)) == all);
}

TEST_CASE("figures at their limits neither hang nor overflow") {
  using How = Derived::How;
  Job job;
  job.items.push_back({{"s", "S", PlainShape{PlainShape::Kind::Star, 50, 50}, {100, 100}, 0}, {}});
  const auto add = [&](How how, const std::function<void(Derived&)>& change) {
    Derived d;
    d.how = how;
    d.from = {"s", "s"};
    change(d);
    job.items.push_back({{"d" + std::to_string(job.items.size()), "D", d, {0, 0}, 33}, {}});
  };
  add(How::Grow, [](Derived& d) { d.distance = -5000; });
  add(How::Grow, [](Derived& d) {
    d.distance = 5000;
    d.steps = 50;
  });
  add(How::Grid, [](Derived& d) { d.columns = d.rows = 500; });
  add(How::Grid, [](Derived& d) {
    d.columns = 40;
    d.step_x = 0;
  });
  add(How::Round, [](Derived& d) {
    d.count = 300;
    d.radius = 0;
  });
  add(How::Along, [](Derived& d) {
    d.count = 0;
    d.distance = 0;
  });
  add(How::Split, [](Derived& d) { d.share = 0; });
  add(How::Mirror, [](Derived& d) { d.angle = 3600; });
  set_all(job);
  Piece arc = oracle::lettering("Far", "Cabin", "Bold", 10);
  std::get<Lettering>(arc.what).arc_radius = 50'000;
  CHECK(bounds(outlines_of(arc).region).height() < 14);
  std::get<Lettering>(arc.what).arc_radius = 0.6;
  set_all([&] {
    Job j;
    j.items.push_back({arc, {}});
    return j;
  }());
}

TEST_CASE("a job with a thousand pieces plans, remembers, and stops when it is told") {
  Job job;
  job.blank.width = 1200;
  job.blank.height = 900;
  for (int i = 0; i < 1000; ++i) {
    PlainShape s{PlainShape::Kind::Ellipse, 12, 12};
    Item item{{"p" + std::to_string(i), "P", s, {20.0 + 28 * (i % 40), 20.0 + 30 * (i / 40)}, 0}, {}};
    item.cut.kind = Treatment::Kind::Incise;
    item.cut.bit = "v60";
    job.items.push_back(item);
  }
  const std::string path = data_file("rack.json");
  const Rack rack = read_rack(read_file(path), path);
  PlanCache cache;
  const Plan p = plan(job, rack, machine_for(job), &cache);
  CHECK(p.runs.size() == 1);
  CHECK(p.runs[0].operations.size() == 1000);
  // Operations are travelled nearest next, not in the order of the list's rows from left to right each time.
  CHECK(p.runs[0].time.travel < 1000 * 60.0);
}

namespace {

// A jagged closed outline of so many points round a circle, neighbouring points a few hundredths of a millimetre apart.
Ring jagged(std::size_t points, Point middle, double radius, double teeth) {
  Ring ring;
  ring.reserve(points);
  for (std::size_t i = 0; i < points; ++i) {
    const double a = 2 * 3.14159265358979 * static_cast<double>(i) / static_cast<double>(points);
    const double r = radius + (i % 2 == 0 ? teeth : -teeth) + 0.2 * radius * std::sin(7 * a);
    ring.push_back({snap_to_grid(middle.x + r * std::cos(a)), snap_to_grid(middle.y + r * std::sin(a))});
  }
  return ring;
}

// As a tracing of rough ink comes: four outlines of 25,000 points each that tremble by some micrometres.
Region rough_tracing() {
  std::vector<Ring> rings;
  for (const Point at : {Point{90, 90}, Point{210, 90}, Point{90, 210}, Point{210, 210}})
    rings.push_back(jagged(25'000, at, 42, 0.003));
  return clean(rings);
}

Plan planned_as(const Region& region, Treatment::Kind kind, const Cancel& cancel = {}, const Progress& progress = {}) {
  Job job;
  job.blank.width = job.blank.height = 300;
  job.blank.readings = {20};
  Item item{{"j", "Jagged", frozen({region, {}, {}, {}, {}, {}}, "j"), bounds(region).centre(), 0}, {}};
  item.cut.bit = "v60";
  item.cut.kind = kind;
  item.cut.depth = 3;
  if (goes_through(kind)) item.cut.bit = "flat-1/4in";
  job.items.push_back(item);
  return plan(job, load_rack(), machine_for(job), nullptr, cancel, progress);
}

}  // namespace

TEST_CASE("a drawing of a hundred thousand points is planned by every treatment, with progress", "[heavy]") {
  const Region region = rough_tracing();
  for (const Treatment::Kind kind : {Treatment::Kind::Incise, Treatment::Kind::Recess, Treatment::Kind::CutOut}) {
    int told = 0;
    const Plan p = planned_as(region, kind, {}, {[&](int done, int of) { told += done == of; }});
    INFO(to_word(kind));
    CHECK(told == 1);
    CHECK(p.pieces[0]->problem.empty());
    CHECK_FALSE(p.pieces[0]->cuts.operations.empty());
  }
}

TEST_CASE("an outline of a million points is refused with a sentence that says what to do") {
  CHECK_THROWS_WITH(clean({jagged(1'000'000, {150, 150}, 100, 0.01)}),
                    Catch::Contains("points") && Catch::Contains("thin it"));
}

TEST_CASE("work on a huge outline can be cancelled") {
  const Region region = rough_tracing();
  Cancel cancel;
  std::thread later([&] {
    std::this_thread::sleep_for(std::chrono::milliseconds(60));
    cancel.request();
  });
  CHECK_THROWS_AS(planned_as(region, Treatment::Kind::Recess, cancel), Cancelled);
  later.join();
}

TEST_CASE("outlines that touch themselves, slivers, doubled points and widths under the bit never gouge") {
  const std::vector<std::pair<const char*, std::vector<Ring>>> cases{
      {"a figure of eight that meets in one point",
       {{{100, 100}, {150, 150}, {200, 100}, {200, 200}, {150, 150}, {100, 200}}}},
      {"a sliver", {{{50, 150}, {250, 150.005}, {250, 150.01}, {50, 150.004}}}},
      {"doubled points", {{{100, 100}, {100, 100}, {200, 100}, {200, 100}, {200, 200}, {100, 200}, {100, 200}}}},
      {"a neck narrower than any bit",
       {{{50, 100},
         {140, 100},
         {140, 149.9},
         {160, 149.9},
         {160, 100},
         {250, 100},
         {250, 200},
         {160, 200},
         {160, 150.1},
         {140, 150.1},
         {140, 200},
         {50, 200}}}},
      {"a spike folded back on itself",
       {{{100, 100}, {200, 100}, {200, 150}, {290, 150}, {200, 150}, {200, 200}, {100, 200}}}},
      {"two holes that touch",
       {{{60, 60}, {240, 60}, {240, 240}, {60, 240}},
        {{100, 100}, {100, 150}, {150, 150}, {150, 100}},
        {{150, 150}, {150, 200}, {200, 200}, {200, 150}}}}};
  for (const auto& [name, rings] : cases) {
    INFO(name);
    const Region region = clean(rings);
    if (region.empty()) continue;
    for (const Treatment::Kind kind :
         {Treatment::Kind::Incise, Treatment::Kind::Recess, Treatment::Kind::Pierce, Treatment::Kind::Bevel}) {
      INFO(to_word(kind));
      const Plan p = planned_as(region, kind);
      CHECK(p.pieces[0]->problem.empty());
      if (kind == Treatment::Kind::Bevel) continue;  // it falls outwards
      const HeightField f = relief_of(p, p.job.blank.box(), 0.5);
      const Region wide = grow(region, 0.36);
      int gouged = 0;
      for (std::size_t r = 0; r < f.rows(); ++r) {
        for (std::size_t c = 0; c < f.columns(); ++c)
          gouged += f.at(c, r) < -0.005 && !contains(wide, {f.x_of(c), f.y_of(r)});
      }
      CHECK(gouged == 0);
    }
  }
}
