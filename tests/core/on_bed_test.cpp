// The board turned on the bed, zero at any of nine places: the files against turning by complex numbers, and the relief
// that a file leaves against the board's own relief turned cell by cell. (Turning by i: any textbook.)
#include <catch2/catch.hpp>
#include <complex>

#include "planning/outputs.hpp"
#include "random_jobs.hpp"
#include "relief/carve.hpp"
#include "run/gcode.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

using Turned = std::complex<double>;

// A quarter to the left is a factor of i; so many of them.
Turned turned(Point p, int quarters) {
  Turned z{p.x, p.y};
  for (int i = 0; i < quarters; ++i) z *= Turned{0, 1};
  return z;
}

}  // namespace

TEST_CASE("a hole lies where turning the board by hand puts it, from any zero") {
  const double wide = 200, deep = 100;
  const std::map<ZeroPlace, Point> shares = {
      {ZeroPlace::LeftFront, {0, 0}},    {ZeroPlace::Centre, {0.5, 0.5}},    {ZeroPlace::RightFront, {1, 0}},
      {ZeroPlace::LeftBack, {0, 1}},     {ZeroPlace::RightBack, {1, 1}},     {ZeroPlace::MiddleFront, {0.5, 0}},
      {ZeroPlace::MiddleLeft, {0, 0.5}}, {ZeroPlace::MiddleRight, {1, 0.5}}, {ZeroPlace::MiddleBack, {0.5, 1}}};
  for (int quarters = 0; quarters < 4; ++quarters) {
    for (const auto& [place, share] : shares) {
      INFO(quarters << " quarters, zero at " << share.x << ", " << share.y);
      Job job = board(wide, deep, 18);
      job.run.on_bed = static_cast<OnBed>(quarters);
      job.run.zero_place = place;
      add(job, "hole", {PlainShape::Kind::Ellipse, 6, 6}, {30, 10}, cut(Kind::Drill, 4, {}, "flat-1/8in"));
      const Plan p = planned(job);
      REQUIRE(p.runs.size() == 1);
      const GcodeProgram read = read_gcode(gcode_files(p).at(0).text, "x.nc");
      const Point3 at = read.sections.at(0).passes.at(0).points.at(0);
      // Its corners turned: from the least of them zero is counted.
      double left = 1e9, front = 1e9, right = -1e9, back = -1e9;
      for (const Point corner : {Point{0, 0}, Point{wide, 0}, Point{0, deep}, Point{wide, deep}}) {
        const Turned c = turned(corner, quarters);
        left = std::min(left, c.real());
        right = std::max(right, c.real());
        front = std::min(front, c.imag());
        back = std::max(back, c.imag());
      }
      const Turned hole = turned({30, 10}, quarters);
      CHECK(at.x == Approx(hole.real() - left - share.x * (right - left)).margin(1e-3));
      CHECK(at.y == Approx(hole.imag() - front - share.y * (back - front)).margin(1e-3));
    }
  }
  // By hand, once: a quarter to the left, zero at the left front corner. What is drawn left lies in front.
  Job job = board(wide, deep, 18);
  job.run.on_bed = OnBed::QuarterLeft;
  const Point3 at = placement_of(job, *machine_table().find(job.run.machine)).at_machine(Point3{30, 10, -2});
  CHECK(at == Point3{90, 30, -2});
}

TEST_CASE("what a turned board's files leave is the board's own relief, turned cell by cell") {
  for (int quarters = 1; quarters < 4; ++quarters) {
    INFO(quarters << " quarters");
    Job job = board(90, 60, 18);
    job.run.zero_place = ZeroPlace::LeftFront;
    add(job, "round", {PlainShape::Kind::Ellipse, 30, 30}, {25, 30}, cut(Kind::Recess, 3, {"flat-1/8in"}));
    add(job, "groove", {kBox, 30, 8}, {65, 40}, cut(Kind::Incise, 1));
    const Plan drawn = planned(job);
    job.run.on_bed = static_cast<OnBed>(quarters);
    const Plan p = planned(job);
    const auto files = gcode_files(p);
    CHECK((files.at(0).text.find("G2 ") != std::string::npos || files.at(0).text.find("G3 ") != std::string::npos));
    const bool quarter = quarters % 2 == 1;
    const double cell = 0.25;
    HeightField lying({0, 0, quarter ? 60.0 : 90.0, quarter ? 90.0 : 60.0}, cell);
    lying.clear();
    for (std::size_t i = 0; i < files.size(); ++i) {
      for (const GcodeSection& section : read_gcode(files[i].text, files[i].name).sections)
        carve(lying, section.passes, p.runs[i].bit, {});
    }
    const HeightField board = relief_of(drawn, {0, 0, 90, 60}, cell);
    double worst = 0;
    for (std::size_t r = 0; r < board.rows(); ++r) {
      for (std::size_t c = 0; c < board.columns(); ++c) {
        std::size_t across = c, up = r;
        if (quarters == 1) across = board.rows() - 1 - r, up = c;
        if (quarters == 2) across = board.columns() - 1 - c, up = board.rows() - 1 - r;
        if (quarters == 3) across = r, up = board.columns() - 1 - c;
        // A wall that falls a hair to either side of a cell's middle: the neighbours' heights count, too.
        double least = 1e9;
        for (int dr = -1; dr <= 1; ++dr) {
          for (int dc = -1; dc <= 1; ++dc) {
            const auto rr = static_cast<std::size_t>(
                std::clamp<int>(static_cast<int>(up) + dr, 0, static_cast<int>(lying.rows()) - 1));
            const auto cc = static_cast<std::size_t>(
                std::clamp<int>(static_cast<int>(across) + dc, 0, static_cast<int>(lying.columns()) - 1));
            least = std::min<double>(least, std::abs(lying.at(cc, rr) - board.at(c, r)));
          }
        }
        worst = std::max(worst, least);
      }
    }
    CHECK(worst < 0.15);
    CHECK(read_back(p, files, 0.3).agrees());
  }
}

TEST_CASE("a machine that counts x to the left or y towards you gets the same cuts, each figure the other way round") {
  std::mt19937 random(16);
  for (int round = 0; round < 6; ++round) {
    Job job = board(90, 60, 18);
    job.run.on_bed = static_cast<OnBed>(random() % 4);
    job.run.zero_place = static_cast<ZeroPlace>(random() % 9);
    add(job, "round", {PlainShape::Kind::Ellipse, 30, 30}, {25, 30}, cut(Kind::Recess, 3, {"flat-1/8in"}));
    add(job, "groove", {kBox, 30, 8}, {65, 40}, cut(Kind::Incise, 1));
    MachineProfile usual = machine_for(job);
    usual.arcs = round % 2 == 0;
    const Plan seen = plan(job, load_rack(), usual);
    for (int other = 1; other < 4; ++other) {
      INFO("round " << round << ", counting " << other);
      MachineProfile machine = usual;
      machine.x_left = (other & 1) != 0;
      machine.y_near = (other & 2) != 0;
      const Plan p = plan(job, load_rack(), machine);
      const auto files = gcode_files(p), as_seen = gcode_files(seen);
      REQUIRE(files.size() == as_seen.size());
      for (std::size_t i = 0; i < files.size(); ++i) {
        const GcodeProgram here = read_gcode(files[i].text, "x.nc"), there = read_gcode(as_seen[i].text, "y.nc");
        REQUIRE(here.sections.size() == there.sections.size());
        double worst = 0;
        for (std::size_t s = 0; s < here.sections.size(); ++s) {
          REQUIRE(here.sections[s].passes.size() == there.sections[s].passes.size());
          for (std::size_t k = 0; k < here.sections[s].passes.size(); ++k) {
            const auto &a = here.sections[s].passes[k].points, &b = there.sections[s].passes[k].points;
            REQUIRE(a.size() == b.size());
            for (std::size_t j = 0; j < a.size(); ++j) {
              worst = std::max({worst, std::abs(a[j].x - b[j].x * (machine.x_left ? -1 : 1)),
                                std::abs(a[j].y - b[j].y * (machine.y_near ? -1 : 1)), std::abs(a[j].z - b[j].z)});
            }
          }
        }
        CHECK(worst < 2e-4);  // a last place rounded the other way
      }
      CHECK(read_back(p, files, 0.3).agrees());
      // From the plan's own words and the files' alone.
      std::map<std::string, std::string> texts;
      for (const OutputFile& f : files) texts[f.name] = f.text;
      const HeightField left = carve_files(plan_json(p), "plan", texts, 0.3);
      const HeightField meant = relief_of(seen, {0, 0, 90, 60}, 0.3);
      int unlike = 0;  // cells; a few whose middle a wall just meets
      for (std::size_t r = 0; r < left.rows(); ++r) {
        for (std::size_t c = 0; c < left.columns(); ++c)
          unlike += std::abs(meant.at(c, r) - left.at(c, r)) > 0.1 ? 1 : 0;
      }
      CHECK(unlike < 100);
    }
  }
  // By hand: counted to the left and towards you from the right back corner, all is above zero.
  Job job = board(200, 100, 18);
  job.run.zero_place = ZeroPlace::RightBack;
  MachineProfile machine = machine_for(job);
  machine.x_left = machine.y_near = true;
  CHECK(placement_of(job, machine).at_machine(Point3{30, 10, -2}) == Point3{170, 90, -2});
}

TEST_CASE("a board too long for the machine one way is turned by a remedy, and then the files stay in its travel") {
  Job job = board(700, 300, 18);
  job.run.machine = "mm-plain";  // 800 × 600
  add(job, "left", {kBox, 40, 6}, {40, 150}, cut(Kind::Incise, 1));
  add(job, "right", {kBox, 40, 6}, {660, 150}, cut(Kind::Incise, 1));
  MachineProfile machine = machine_for(job);
  machine.travel = {400, 750, 90};
  const Plan stuck = plan(job, load_rack(), machine);
  const Verdict* past = find(stuck, "past-travel");
  REQUIRE(past != nullptr);
  CHECK(past->remedies.size() == 2);
  for (const Remedy& remedy : past->remedies) {
    INFO(remedy.label);
    Job turned = job;
    remedy.apply(turned);
    const Plan p = plan(turned, load_rack(), machine);
    CHECK(find(p, "past-travel") == nullptr);
    Box reach;
    reach.add(Point{0, 0});
    for (const OutputFile& file : gcode_files(p)) {
      for (const GcodeSection& section : read_gcode(file.text, file.name).sections) {
        for (const Pass& pass : section.passes) {
          for (const Point3& at : pass.points) reach.add(at.flat());
        }
      }
    }
    CHECK(reach.width() <= 400);
    CHECK(reach.height() <= 750);
  }
}

TEST_CASE(
    "a machine that is slow in x is as slow along the board's width as drawn, and across it when that lies turned") {
  Job job = board(300, 60);
  add(job, "line", {kBox, 260, 4}, {150, 30}, cut(Kind::Incise, 1));
  job.run.zero_place = ZeroPlace::Centre;  // as far to begin with, however it lies
  MachineProfile slow = machine_for(job);
  slow.feed_most = {300, 6000, 2000};
  slow.rapid = {300, 6000, 2000};
  const auto seconds = [&](OnBed turn) {
    job.run.on_bed = turn;
    return plan(job, load_rack(), slow).seconds;
  };
  const double drawn = seconds(OnBed::AsDrawn), turned = seconds(OnBed::QuarterLeft);
  CHECK(drawn > 260.0 / 300 * 60);  // once along at 300 mm/min, by hand
  CHECK(turned < drawn / 2);
  CHECK(seconds(OnBed::Half) == Approx(drawn).epsilon(0.05));
  CHECK(seconds(OnBed::QuarterRight) == Approx(turned).epsilon(0.05));
}
