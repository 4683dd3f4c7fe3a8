// Screws that hold the board: where they go, that their holes come first, and that nothing meets their heads.
#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "holding/screws.hpp"
#include "planning/judged.hpp"
#include "problem.hpp"
#include "run/gcode.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

namespace {

using namespace doyen;
using workbench::at;
using workbench::board;
using workbench::carved;
using workbench::cut;
using workbench::find;
using workbench::kBox;
using workbench::planned;

// A sign cut out of a board with waste all round it, and a recess in it.
Job sign(double width = 380, double height = 300) {
  Job job = board(width, height);
  workbench::add(job, "sign", {kBox, width - 120, height - 120}, {width / 2, height / 2},
                 cut(Treatment::Kind::CutOut, 18));
  workbench::add(job, "tray", {kBox, 60, 40}, {width / 2, height / 2},
                 cut(Treatment::Kind::Recess, 4, {"flat-1/4in"}, ""));
  return job;
}

Job screwed(const Job& job) { return with_screws(job, load_rack(), kScrewHead); }

}  // namespace

TEST_CASE("screws go into the waste, one to each corner, none farther than 400 mm along an edge from the next") {
  // 400 mm: common practice, no source.
  for (const auto& [w, h] : {std::pair{500.0, 300.0}, std::pair{1200.0, 300.0}, std::pair{300.0, 1000.0}}) {
    const Job job = screwed(sign(w, h));
    std::vector<ScrewHead> heads = screw_heads(job);
    CHECK(static_cast<double>(heads.size()) == 4 + 2 * (std::ceil(w / 400) - 1) + 2 * (std::ceil(h / 400) - 1));
    for (const ScrewHead& head : heads) {
      const KeepOut& p = head.place;
      CHECK(p.width == Approx(10));
      // By hand: outside of the cut-out by the bit's 6.35 mm, half the head and more; on the board.
      const Box sign_box{60 - 6.35 - 5, 60 - 6.35 - 5, w - 60 + 6.35 + 5, h - 60 + 6.35 + 5};
      CHECK_FALSE(sign_box.contains({p.x, p.y}));
      CHECK(Box{8, 8, w - 8, h - 8}.contains({p.x, p.y}));
    }
    CHECK(find(planned(job), "in-keep-out") == nullptr);
    CHECK(planned(job).count(Grade::Stop) == planned(sign(w, h)).count(Grade::Stop));  // long ones are past the travel
  }
}

TEST_CASE("screws in the waste bring no warning with them, however wide the art's margin is", "[heavy]") {
  for (const auto& [name, head, thick] :
       {std::tuple{"gate-sign", 10.0, 0.0}, std::tuple{"dibber-board", 7.0, 0.0}, std::tuple{"dibber-board", 7.0, 6.0},
        std::tuple{"dibber-board", 7.0, 40.0}}) {
    INFO(name << ", " << thick);
    Job job = load_job(data_file(std::string("demo/") + name + ".doyen"));
    job.blank.keep_outs.clear();  // no screws are marked there yet
    if (thick > 0) job.blank.readings = {thick, thick + 0.4};
    const Plan before = planned(job), after = planned(with_screws(job, load_rack(), head));
    REQUIRE(screw_heads(after.job).size() >= 2);
    CHECK(after.verdicts.size() == before.verdicts.size());
    for (const Verdict& v : after.verdicts) {
      INFO(v.text);
      CHECK_FALSE(v.piece.starts_with("screw"));
    }
  }
}

TEST_CASE(
    "the holes for screws are drilled first, in a file of their own, right through, and what follows is as it was") {
  for (const bool one_file : {false, true}) {
    Job job = sign();
    job.run.one_file = one_file;
    const Plan before = planned(job), after = planned(screwed(job));
    REQUIRE(after.runs.size() == before.runs.size() + 1);
    CHECK(after.runs.front().screws == 4);
    CHECK(after.runs.front().file == "01-new-sign-screws-1-8in-down-drill.nc");
    for (std::size_t i = 1; i < after.runs.size(); ++i) {
      CHECK(after.runs[i].screws == 0);
      CHECK(after.runs[i].file != after.runs.front().file);
      CHECK(after.runs[i].bit.id == before.runs[i - 1].bit.id);
    }
    const std::vector<OutputFile> files = gcode_files(after);
    CHECK(files.size() == (one_file ? 2 : after.runs.size()));
    // The first file by the letter: four holes, and nothing else.
    const GcodeProgram first = read_gcode(files.front().text, files.front().name);
    REQUIRE(first.sections.size() == 1);
    std::set<std::pair<long, long>> holes;
    for (const Pass& pass : first.sections.front().passes) {
      for (const Point3& p : pass.points) holes.insert({std::lround(p.x * 10), std::lround(p.y * 10)});
    }
    CHECK(holes.size() == 4);
    CHECK(first.sections.front().deepest == Approx(-12.7).margin(0.01));  // as far as the 1/8 in bit's flutes reach
    const HeightField wood = carved(after, 0.5);
    for (const ScrewHead& head : screw_heads(after.job)) CHECK(at(wood, {head.place.x, head.place.y}) < -12.6F);
    // The judge, who knows only what was wanted, finds nothing amiss.
    CHECK(judge_files(after, files, glancing_cell(after.job.blank)).cut_as_wanted());
  }
}

TEST_CASE(
    "once screws are in, travel over them is high, and a cut that would meet one is a stop with a remedy that mends") {
  Job job = screwed(sign());
  const Travel travel = travel_of(job, machine_for(job), Side::Front);
  CHECK(travel.in_the_way.size() == 4);
  // A groove along the edge, through a corner's screw.
  const ScrewHead head = screw_heads(job).front();
  Treatment line = cut(Treatment::Kind::Recess, 2, {"flat-1/4in"}, "");
  workbench::add(job, "mark", {kBox, 12, 12}, {head.place.x, head.place.y}, line);
  const Plan p = planned(job);
  const Verdict* hit = find(p, "in-keep-out");
  REQUIRE(hit != nullptr);
  CHECK(hit->grade == Grade::Stop);
  CHECK(hit->piece == "mark");
  REQUIRE_FALSE(hit->remedies.empty());
  for (const Remedy& remedy : hit->remedies) {
    INFO(remedy.label);
    Job mended = job;
    remedy.apply(mended);
    CHECK_FALSE(mended == job);
    CHECK(find(planned(mended), "in-keep-out") == nullptr);
  }
}

TEST_CASE("a clamp is met by what is really cut: the ground sunk round a raised piece, not only its outline") {
  Job job = board(400, 300);
  Treatment raised = cut(Treatment::Kind::Raise, 4, {"flat-1/4in"});
  raised.margin = 40;
  raised.raise.sloped = false;
  workbench::add(job, "leaf", {kBox, 60, 40}, {200, 150}, raised);
  CHECK(find(planned(job), "in-keep-out") == nullptr);
  // 20 mm beside the leaf, within its sunk ground.
  KeepOut clamp{KeepOut::Kind::Clamp, 260, 150, 20, 20};
  job.blank.keep_outs = {clamp};
  REQUIRE(find(planned(job), "in-keep-out") != nullptr);
  CHECK(find(planned(job), "in-keep-out")->grade == Grade::Stop);
  // The ground ends at 230 + 40; the bit's edge with it. 3 mm are kept (common practice, no source).
  for (const auto& [left, met] : {std::pair{272.0, true}, std::pair{273.5, false}}) {
    job.blank.keep_outs[0].x = left + 10;
    CHECK((find(planned(job), "in-keep-out") != nullptr) == met);
  }
  // In the middle of a bevelled plate nothing is cut, only along its edge.
  Job plate = board(400, 300);
  Treatment bevel = cut(Treatment::Kind::Bevel, 3, {}, "v90");
  workbench::add(plate, "plate", {kBox, 300, 200}, {200, 150}, bevel);
  plate.blank.keep_outs = {{KeepOut::Kind::Clamp, 200, 150, 40, 40}};
  CHECK(find(planned(plate), "in-keep-out") == nullptr);
  plate.blank.keep_outs[0].x = 60;
  CHECK(find(planned(plate), "in-keep-out") != nullptr);
}

TEST_CASE("without waste there are no screws, and it is said what else holds the board") {
  Job whole = board();
  workbench::add(whole, "tray", {kBox, 60, 40}, {120, 80}, cut(Treatment::Kind::Recess, 4, {"flat-1/4in"}, ""));
  CHECK_THROWS_WITH(screwed(whole), Catch::Contains("Nothing is cut out") && Catch::Contains("clamps"));
  Job tight = board();
  workbench::add(tight, "sign", {kBox, 220, 140}, {120, 80}, cut(Treatment::Kind::CutOut, 18));
  CHECK_THROWS_WITH(screwed(tight), Catch::Contains("no room for two screws"));
  Rack none = load_rack();
  std::erase_if(none.bits, [](const Bit& b) { return b.kind != BitKind::V; });
  CHECK_THROWS_WITH(with_screws(sign(), none, kScrewHead), Catch::Contains("no bit that drills"));
}

TEST_CASE("screws found anew take the place of those that were there, and all is kept in the file") {
  const Job once = screwed(sign()), twice = screwed(once);
  CHECK(once.items.size() == sign().items.size() + 4);
  CHECK(twice.items.size() == once.items.size());
  CHECK(screw_heads(twice).size() == 4);
  const Job again = read_job(job_text(once), "again");
  CHECK(again == once);
  CHECK(screw_heads(again).size() == 4);
  // Turned to the back, they are drilled before what else is cut from there.
  Job back = once;
  for (Item& item : back.items) item.cut.back = true;
  const Plan p = planned(back);
  CHECK(p.runs.front().screws == 4);
  CHECK(p.runs.front().side == Side::Back);
}

TEST_CASE("over random jobs screws lie clear of every move but their own", "[heavy]") {
  int placed = 0;
  const int tries = workbench::under_sanitizers() ? 10 : 60;
  for (int seed = 0; seed < tries; ++seed) {
    INFO("seed " << seed);
    std::mt19937 rng(static_cast<unsigned>(seed));
    Job job = sign(300 + static_cast<double>(rng() % 500), 250 + static_cast<double>(rng() % 400));
    for (int k = 0; k < 4; ++k) {
      Treatment look = cut(k % 2 == 0 ? Treatment::Kind::Recess : Treatment::Kind::Raise, 3, {"flat-1/8in"});
      look.margin = static_cast<double>(rng() % 15);
      workbench::add(job, ("p" + std::to_string(k)).c_str(),
                     {kBox, 10.0 + static_cast<double>(rng() % 60), 10.0 + static_cast<double>(rng() % 60)},
                     {static_cast<double>(rng()) / 4294967296.0 * job.blank.width,
                      static_cast<double>(rng()) / 4294967296.0 * job.blank.height},
                     look);
    }
    try {
      job = screwed(job);
    } catch (const Problem&) {
      continue;
    }
    ++placed;
    // Every move of every file, as it is written, against every head: by plain distance, rapids at their own height.
    const Plan p = planned(job);
    const std::vector<OutputFile> files = gcode_files(p);
    const std::vector<KeepOut> metal = metal_on(job);
    for (std::size_t f = 1; f < files.size(); ++f) {
      const GcodeProgram program = read_gcode(files[f].text, files[f].name);
      REQUIRE(program.sections.size() == 1);
      // A V is as wide as its angle makes it beside a head 4 mm high (common practice, no source); others all the way
      // up.
      const Bit& bit = p.runs[f].bit;
      double deep = 0;
      for (const Pass& pass : program.sections[0].passes) {
        for (const Point3& at : pass.points) deep = std::max(deep, -at.z);
      }
      const double radius =
          std::min(bit.diameter / 2,
                   bit.kind == BitKind::V ? (deep + 4) * std::tan(bit.angle / 2 * M_PI / 180) + bit.tip / 2 : 1e9);
      double nearest = 1e9;
      for (const Pass& pass : program.sections[0].passes) {
        for (std::size_t i = 0; i < pass.points.size(); ++i) {
          const Point a = pass.points[i > 0 ? i - 1 : 0].flat(), b = pass.points[i].flat();
          for (const KeepOut& head : metal)
            nearest = std::min(nearest, distance(Point{head.x, head.y}, a, b) - head.width / 2 - radius);
        }
      }
      INFO(files[f].name);
      CHECK(nearest > 0);
      for (const GcodeSection::Rapid& rapid : program.sections[0].rapids) {
        for (const KeepOut& head : metal) {
          if (distance(Point{head.x, head.y}, rapid.from.flat(), rapid.to.flat()) < head.width / 2 + radius)
            CHECK(std::min(rapid.from.z, rapid.to.z) >= std::max(p.machine.clearance, head.above_face() + 1) - 1e-3);
        }
      }
    }
  }
  CHECK(placed > tries / 2);
}

TEST_CASE("no rapid of any file passes through a clamp, however high it stands; what cannot be lifted over is a stop") {
  // Every rapid by the letter, with the bit's body, against every clamp's own height.
  int crossed = 0;
  for (unsigned seed = 0; seed < 25; ++seed) {
    INFO("seed " << seed);
    std::mt19937 rng(seed);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(rng); };
    Job job = board(400, 300, 18);
    job.run.low_travel = seed % 2 == 0;
    for (int k = 0; k < 5; ++k)
      workbench::add(job, ("p" + std::to_string(k)).c_str(), {kBox, 20, 10}, {between(40, 360), between(40, 260)},
                     cut(k % 2 == 0 ? Treatment::Kind::Incise : Treatment::Kind::Recess, 2, {"flat-1/8in"}));
    for (int k = 0; k < 3; ++k) {
      KeepOut clamp{KeepOut::Kind::Clamp, between(40, 360), between(40, 260), 15, 15};
      if (k > 0) clamp.stands = between(8, 55);
      job.blank.keep_outs.push_back(clamp);
    }
    const Plan p = planned(job);
    std::size_t run = 0;
    for (const OutputFile& file : gcode_files(p)) {
      for (const GcodeSection& section : read_gcode(file.text, file.name).sections) {
        const double radius = p.runs[run++].bit.diameter / 2;
        for (const GcodeSection::Rapid& rapid : section.rapids) {
          for (const KeepOut& clamp : job.blank.keep_outs) {
            const int parts = 1 + static_cast<int>(distance(rapid.from, rapid.to));
            const bool sideways = distance(rapid.from.flat(), rapid.to.flat()) > 0.01;
            for (int k = 0; k <= parts && sideways; ++k) {
              const double t = static_cast<double>(k) / parts;
              const Point at = rapid.from.flat() + (rapid.to.flat() - rapid.from.flat()) * t;
              if (!clamp.box().grown(radius).contains(at)) continue;
              ++crossed;
              REQUIRE(rapid.from.z + (rapid.to.z - rapid.from.z) * t >= (clamp.stands > 0 ? clamp.stands : 30) + 1);
            }
          }
        }
      }
    }
  }
  CHECK(crossed > 50);
  Job tall = board();
  workbench::add(tall, "groove", {kBox, 60, 6}, {60, 60}, cut(Treatment::Kind::Incise, 1));
  tall.blank.keep_outs = {{KeepOut::Kind::Clamp, 200, 120, 20, 20}};
  CHECK(find(planned(tall), "past-travel-down") == nullptr);
  tall.blank.keep_outs[0].stands = 95;  // the machine lifts 90 mm
  CHECK(find(planned(tall), "past-travel-down") != nullptr);
}

TEST_CASE(
    "a clamp as high as the nut above the bit is a warning where the nut would meet it, and none where it is low") {
  Job job = board(400, 300, 18);
  workbench::add(job, "tray", {kBox, 60, 40}, {200, 150}, cut(Treatment::Kind::Recess, 4, {"flat-1/4in"}, ""));
  const Bit bit = *load_rack().find("flat-1/4in");
  // The bit's edge keeps 3 mm off a clamp that begins at 230 + 5; the nut, 17 mm from its middle, does not.
  KeepOut clamp{KeepOut::Kind::Clamp, 245, 150, 20, 20};
  clamp.stands = bit.flute_length + 20;
  job.blank.keep_outs = {clamp};
  REQUIRE(find(planned(job), "in-keep-out") == nullptr);
  const Plan p = planned(job);
  const Verdict* nut = find(p, "nut-near-clamp");
  REQUIRE(nut != nullptr);
  CHECK(nut->grade == Grade::Mind);
  // By hand: its flutes stand out, 4 mm of them in the wood; a clamp lower than the rest is passed under the nut.
  job.blank.keep_outs[0].stands = bit.flute_length - 4 - 2;
  CHECK(find(planned(job), "nut-near-clamp") == nullptr);
  job.blank.keep_outs[0].stands = bit.flute_length - 4 + 2;
  CHECK(find(planned(job), "nut-near-clamp") != nullptr);
  // Farther off than the nut is wide: nothing. The bit's middle goes as far as 230 − 3.175.
  job.blank.keep_outs[0].x = 230 - 3.175 + 17 + 0.5 + 10;
  CHECK(find(planned(job), "nut-near-clamp") == nullptr);
  job.blank.keep_outs[0].x -= 1;
  CHECK(find(planned(job), "nut-near-clamp") != nullptr);
}
