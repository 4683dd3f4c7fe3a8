// Where a board lies on the bed: against corners turned by complex numbers (turning by i: any textbook), and against
// the moves that the written files make, looked at point by point.
#include <catch2/catch.hpp>
#include <complex>
#include <random>

#include "run/bed.hpp"
#include "run/gcode.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

using Turned = std::complex<double>;

// The least and most of the board's corners, turned by so many quarters to the left.
Box turned_box(double wide, double deep, int quarters) {
  Box box;
  for (Turned c : {Turned{0, 0}, Turned{wide, 0}, Turned{0, deep}, Turned{wide, deep}}) {
    for (int i = 0; i < quarters; ++i) c *= Turned{0, 1};
    box.add(Point{c.real(), c.imag()});
  }
  return box;
}

// Zero on the bed when it is taken at the board's left front corner: counted from the corner that is pushed home.
Point zero_on_bed(const Job& job) {
  const Box box = turned_box(job.blank.width, job.blank.height, static_cast<int>(job.run.on_bed));
  const Fixture& f = job.run.fixture;
  const bool right = f.corner == Fixture::Corner::RightFront || f.corner == Fixture::Corner::RightBack;
  const bool back = f.corner == Fixture::Corner::LeftBack || f.corner == Fixture::Corner::RightBack;
  return {*f.x - (right ? box.width() : 0), *f.y - (back ? box.height() : 0)};
}

// Every point that the files drive to, as counted in them.
std::vector<std::pair<Point3, const Bit*>> driven(const Plan& p) {
  std::vector<std::pair<Point3, const Bit*>> points;
  const auto files = gcode_files(p);
  for (std::size_t i = 0; i < files.size(); ++i) {
    for (const GcodeSection& section : read_gcode(files[i].text, files[i].name).sections) {
      for (const Pass& pass : section.passes) {
        for (const Point3& at : pass.points) points.emplace_back(at, &p.runs.at(i).bit);
      }
    }
  }
  return points;
}

Job two_grooves() {
  Job job = board(300, 120);
  add(job, "left", {kBox, 40, 6}, {40, 60}, cut(Kind::Incise, 1));
  add(job, "right", {kBox, 40, 6}, {250, 90}, cut(Kind::Incise, 1));
  return job;
}

}  // namespace

TEST_CASE("where the left front of the board lies follows from the corner that is pushed home") {
  Job job = board(200, 100);
  job.run.on_bed = OnBed::QuarterLeft;  // 100 wide and 200 deep on the bed, by hand
  job.run.fixture.corner = Fixture::Corner::RightBack;
  CHECK_FALSE(left_front_on_bed(job));
  job.run.fixture.x = 500;
  job.run.fixture.y = 400;
  CHECK(*left_front_on_bed(job) == Point{400, 200});
  move_on_bed(job, {-20, 5});
  CHECK(*left_front_on_bed(job) == Point{380, 205});
  // Home at the right back of 800 × 600, zero at the board's left front corner: 420 and 395 short of it, by hand.
  MachineProfile machine = machine_for(job);
  machine.travel = {800, 600, 90};
  CHECK_FALSE(zero_from_home(job, machine));
  machine.home = HomeCorner::RightBack;
  CHECK(*zero_from_home(job, machine) == Point{-420, -395});
  machine.home = HomeCorner::LeftFront;
  CHECK(*zero_from_home(job, machine) == Point{380, 205});
}

TEST_CASE("what a place on the bed is blamed for is what the files' own moves do there, and moving it mends it") {
  std::mt19937 random(11);
  const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  int beyond = 0, fine = 0;
  for (int round = 0; round < 40; ++round) {
    Job job = two_grooves();
    job.run.on_bed = static_cast<OnBed>(random() % 4);
    Fixture& f = job.run.fixture;
    f.corner = static_cast<Fixture::Corner>(random() % 4);
    MachineProfile machine = machine_for(job);
    machine.travel = {400, 380, 90};
    f.x = between(-60, 460);
    f.y = between(-60, 440);
    const auto outside = [&](const Job& where, const Plan& p) {
      const Point zero = zero_on_bed(where);
      Box reach;
      reach.add(zero);
      for (const auto& [at, bit] : driven(p)) reach.add(zero + at.flat());
      return reach.left < -1e-3 || reach.bottom < -1e-3 || reach.right > 400.001 || reach.top > 380.001;
    };
    INFO(round << ": " << *f.x << ", " << *f.y << " turned " << static_cast<int>(job.run.on_bed));
    const Plan p = plan(job, load_rack(), machine);
    REQUIRE(find(p, "past-travel") == nullptr);
    const Verdict* verdict = find(p, "beyond-travel");
    CHECK((verdict != nullptr) == outside(job, p));
    if (verdict == nullptr) {
      ++fine;
      continue;
    }
    ++beyond;
    CHECK(verdict->grade == Grade::Stop);
    REQUIRE(verdict->remedies.size() == 1);
    Job moved = job;
    verdict->remedies[0].apply(moved);
    const Plan after = plan(moved, load_rack(), machine);
    CHECK(find(after, "beyond-travel") == nullptr);
    CHECK_FALSE(outside(moved, after));
  }
  CHECK(beyond > 5);
  CHECK(fine > 3);
}

TEST_CASE("a stop that a cut runs into is found where the files' bit meets it, and each remedy keeps the bit off it") {
  std::mt19937 random(5);
  int hit = 0, clear = 0;
  for (int round = 0; round < 24; ++round) {
    Job job = board(200, 120, 18);
    // Cut out with its outline now and then at the very edge: the bit then stands beside the board.
    const double edge = static_cast<double>(random() % 12);
    add(job, "out", {kBox, 200 - 2 * edge, 120 - 2 * edge}, {100, 60}, cut(Kind::CutOut, 0));
    Fixture& f = job.run.fixture;
    f.kind = static_cast<Fixture::Kind>(1 + random() % 3);
    f.corner = static_cast<Fixture::Corner>(random() % 4);
    f.stands = 4 + static_cast<double>(random() % 12);
    if (random() % 2 == 0) {
      f.part_long = 10 + static_cast<double>(random() % 80);
      f.part_wide = 5 + static_cast<double>(random() % 40);
      f.first = static_cast<double>(random() % 200);
      f.end = static_cast<double>(random() % 120);
    }
    job.run.on_bed = static_cast<OnBed>(random() % 4);
    const auto meets = [&](const Job& of, const Plan& p) {
      const double top = of.run.fixture.stands - 18;
      for (const auto& [at, bit] : driven(p)) {  // an end mill: as wide at every height
        if (at.z >= top) continue;
        for (const FixturePart& part : fixture_parts(of, machine_for(of))) {
          const Point near{std::clamp(at.x, part.box.left, part.box.right),
                           std::clamp(at.y, part.box.bottom, part.box.top)};
          const double apart = part.what == FixturePart::What::Dowel
                                   ? length(at.flat() - part.box.centre()) - part.box.width() / 2
                                   : length(at.flat() - near);
          if (apart < bit->true_diameter() / 2) return true;
        }
      }
      return false;
    };
    INFO(round << ": " << edge << " from the edge, kind " << static_cast<int>(f.kind) << ", stands " << f.stands);
    const Plan p = planned(job);
    const Verdict* verdict = find(p, "into-fixture");
    if (meets(job, p)) CHECK(verdict != nullptr);
    if (verdict == nullptr) {
      ++clear;
      continue;
    }
    ++hit;
    CHECK(verdict->grade == Grade::Stop);
    for (const Remedy& remedy : verdict->remedies) {
      INFO(remedy.label);
      Job mended = job;
      remedy.apply(mended);
      const Plan after = planned(mended);
      CHECK(find(after, "into-fixture") == nullptr);
      CHECK_FALSE(meets(mended, after));
    }
  }
  CHECK(hit > 3);
  CHECK(clear > 3);
}

namespace {
std::string in_words(const Box& b) {
  std::string words;
  for (const double mm : {b.left, b.bottom, b.right, b.top})
    words += (words.empty() ? "" : ", ") + format_number(mm, 2);
  return words;
}
}  // namespace

TEST_CASE("stops stand where they are said to, counted from the corner that is pushed home") {
  Job job = board(200, 120, 18);
  add(job, "groove", {kBox, 40, 8}, {100, 60}, cut(Kind::Incise, 1));
  Fixture& f = job.run.fixture;
  f.kind = Fixture::Kind::Stops;
  f.corner = Fixture::Corner::RightBack;
  f.part_long = 30;
  f.part_wide = 12;
  f.first = 25;
  f.second = 150;
  f.end = 40;
  const auto parts = fixture_parts(job, machine_for(job));
  REQUIRE(parts.size() == 4);  // behind, twice; at the right; the wedge at the left
  CHECK(in_words(parts[0].box) == "160, 120, 190, 132");
  CHECK(in_words(parts[1].box) == "35, 120, 65, 132");
  CHECK(in_words(parts[2].box) == "200, 65, 212, 95");
  CHECK(in_words(parts[3].box) == "-12, 65, 0, 95");
  CHECK(find(planned(job), "stop-beyond-board") == nullptr);
  f.first = 300;
  const Plan beyond = planned(job);
  REQUIRE(find(beyond, "stop-beyond-board") != nullptr);
  find(beyond, "stop-beyond-board")->remedies.at(0).apply(job);
  CHECK(find(planned(job), "stop-beyond-board") == nullptr);
}

TEST_CASE("dowels stand in the holes of the bed, and a board beside them is told how far") {
  Job job = two_grooves();
  job.run.fixture.kind = Fixture::Kind::Dowels;
  MachineProfile machine = machine_for(job);
  machine.hole_pitch = 100;
  machine.hole_wide = 10;
  machine.hole_x = 50;
  machine.hole_y = 30;
  CHECK_FALSE(off_the_holes(job, machine));
  // By hand: dowels' middles 5 mm outside of the corner, so that it lies at 155, 135 when they stand at 150 and 130.
  job.run.fixture.x = 158;
  job.run.fixture.y = 131;
  const Plan p = plan(job, load_rack(), machine);
  const Verdict* verdict = find(p, "off-the-holes");
  REQUIRE(verdict != nullptr);
  verdict->remedies.at(0).apply(job);
  CHECK(*job.run.fixture.x == Approx(155));
  CHECK(*job.run.fixture.y == Approx(135));
  CHECK(find(plan(job, load_rack(), machine), "off-the-holes") == nullptr);
  for (const FixturePart& part : fixture_parts(job, machine)) {
    const Point on_bed = part.box.centre() + *left_front_on_bed(job);
    INFO(on_bed.x << ", " << on_bed.y);
    CHECK(std::remainder(on_bed.x - 50, 100) == Approx(0).margin(1e-6));
    CHECK(std::remainder(on_bed.y - 30, 100) == Approx(0).margin(1e-6));
  }
}

TEST_CASE("stops that stand higher than the board are travelled over") {
  Job job = board(300, 120, 18);
  // From one cut to the other the way leads over the stop at the middle of the left edge.
  add(job, "a", {kBox, 6, 30}, {8, 25}, cut(Kind::Incise, 1));
  add(job, "b", {kBox, 6, 30}, {8, 95}, cut(Kind::Incise, 1));
  job.run.fixture = {Fixture::Kind::Stops, Fixture::Corner::LeftFront, {}, {}, 40};
  MachineProfile machine = machine_for(job);
  const auto highest_between = [&](const Plan& p) {
    double high = -1e9;
    const GcodeProgram program = read_gcode(gcode_files(p).at(0).text, "x");
    for (const GcodeSection::Rapid& rapid : program.sections.at(0).rapids) {
      if (rapid.from.y < 45 && rapid.to.y > 75) high = std::max(high, rapid.from.z);
    }
    return high;
  };
  CHECK(highest_between(plan(job, load_rack(), machine)) >= 40 - 18 + 3 - 1e-6);
  job.run.fixture.stands = 9;
  CHECK(highest_between(plan(job, load_rack(), machine)) < 10);
}

TEST_CASE("a place on the bed is kept with the job; one figure alone is refused with a sentence") {
  Job job = two_grooves();
  job.run.fixture = {Fixture::Kind::Fence, Fixture::Corner::RightFront, 120.5, -3, 12};
  CHECK(read_job(write_job(job), "job") == job);
  std::string text = write_job(job);
  const std::size_t at = text.find("\"y\": -3");
  REQUIRE(at != std::string::npos);
  text.replace(at, 7, "\"z\": -3");
  try {
    (void)read_job(text, "job");
    FAIL("it was read");
  } catch (const Problem& problem) {
    CHECK_THAT(problem.what(), Catch::Contains("fixture: x and y were expected, both or neither"));
  }
}
