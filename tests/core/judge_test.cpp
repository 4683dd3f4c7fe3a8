// The judge: against closed forms, brute-force distances and OpenCV; faults planted into written files must be found
// and named; and random boards, on which it must find nothing that no sentence of the plan's own foretold.
#include <catch2/catch.hpp>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <sstream>

#include "planning/judged.hpp"
#include "rack/own_rack.hpp"
#include "random_jobs.hpp"
#include "relief/carve.hpp"
#include "wanted/outline_distance.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

// Under the sanitizers so many times fewer boards are looked at.
const unsigned kShare = under_sanitizers() ? 6 : 1;

constexpr auto kGouge = Fault::Kind::Gouge;
constexpr auto kMissed = Fault::Kind::Missed;

CellGrid grid_over(const Box& box, double cell) {
  return {{box.left, box.bottom},
          cell,
          static_cast<int>(box.width() / cell) + 1,
          static_cast<int>(box.height() / cell) + 1};
}

Judgement judged(const Plan& p, double cell = 0.2) { return judge_files(p, gcode_files(p), cell); }

const Fault* find(const Judgement& j, Fault::Kind kind) {
  for (const Fault& f : j.faults) {
    if (f.kind == kind) return &f;
  }
  return nullptr;
}

std::string in_words(const Judgement& j) {
  std::string all;
  for (const Fault& f : j.faults)
    all += std::string(to_word(f.kind)) + " " + std::to_string(f.mm) + " at " + std::to_string(f.at.x) + ", " +
           std::to_string(f.at.y) + " by " + f.piece + " (" + f.file + ")\n";
  return all;
}

std::vector<std::string> lines_of(const std::string& text) {
  std::vector<std::string> lines;
  std::stringstream in(text);
  for (std::string line; std::getline(in, line);) lines.push_back(line);
  return lines;
}
std::string joined(const std::vector<std::string>& lines) {
  std::string text;
  for (const std::string& line : lines) text += line + "\n";
  return text;
}

// A board with a floor, a groove on it, an outline: every kind of bit, several files.
Job small_sign() {
  Job job = board(160, 110, 16);
  add(job, "outline", {kBox, 130, 80}, {80, 55}, cut(Kind::CutOut, 1));
  add(job, "floor", {kBox, 100, 50}, {80, 55}, cut(Kind::Recess, 4, {"flat-1/4in"}));
  Treatment groove = cut(Kind::Incise, 1);
  add(job, "groove", {PlainShape::Kind::Ellipse, 40, 6}, {80, 55}, groove);
  return job;
}

std::size_t file_with(const std::vector<OutputFile>& files, const std::string& part) {
  for (std::size_t i = 0; i < files.size(); ++i) {
    if (files[i].name.find(part) != std::string::npos) return i;
  }
  FAIL("no file of " << part);
  return 0;
}

}  // namespace

TEST_CASE("distances painted by segments and corners are exact: brute force, and OpenCV within its half pixel") {
  std::mt19937 random(7);
  for (int k = 0; k < 12; ++k) {
    std::vector<Ring> rings{oracle::random_ring(random, {30, 30}, 8, 26, 5 + k)};
    Ring hole = oracle::random_ring(random, {30, 30}, 2, 6, 4);
    std::reverse(hole.begin(), hole.end());
    rings.push_back(hole);
    const Region region = clean(rings, Fill::EvenOdd);
    const CellGrid grid = grid_over({0, 0, 60, 60}, 0.5);
    std::vector<float> away(grid.size(), 100);
    OutlineSegments(region).lower_to_distance(grid, 50, away);
    std::vector<std::uint8_t> inside;
    mark_inside(region, grid, inside);
    const oracle::Distance exact(region);
    double worst = 0;
    int wrong_side = 0;
    cv::Mat mask(grid.rows, grid.columns, CV_8U, cv::Scalar(0)), theirs;
    for (int r = 0; r < grid.rows; ++r) {
      for (int c = 0; c < grid.columns; ++c) {
        const Point p = grid.middle(c, r);
        const double d = exact.at(p.x, p.y);
        worst = std::max(worst, std::abs(d - away[grid.at(c, r)]));
        if (d > 1e-6) wrong_side += (inside[grid.at(c, r)] != 0) != contains(region, p);
        mask.at<unsigned char>(r, c) = inside[grid.at(c, r)] != 0 ? 255 : 0;
      }
    }
    CHECK(worst < 1e-5);
    CHECK(wrong_side == 0);
    cv::distanceTransform(mask, theirs, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    double off = 0;
    for (int r = 0; r < grid.rows; ++r) {
      for (int c = 0; c < grid.columns; ++c) {
        if (inside[grid.at(c, r)] != 0)
          off = std::max(off, std::abs(theirs.at<float>(r, c) * grid.cell - away[grid.at(c, r)]));
      }
    }
    CHECK(off < grid.cell * std::sqrt(2.0));  // it measures from middle to middle of cells
  }
}

TEST_CASE("what is wanted agrees with closed forms") {
  const Rack rack = load_rack();
  const auto low_at = [&](const Job& job, Point p, Side side = Side::Front) {
    const Plan planned_job = planned(job);
    std::vector<WantedPiece> pieces;
    for (std::size_t i = 0; i < job.items.size(); ++i)
      pieces.push_back({job.items[i].piece.id, &planned_job.pieces[i]->outlines, &job.items[i].cut,
                        &planned_job.pieces[i]->around, true, 3.175, 0});
    const Wanted wanted(pieces, job.blank, rack, side, job.run.turn);
    WantedBounds bounds;
    wanted.bounds({p, 0.1, 1, 1}, bounds);
    CHECK(bounds.high[0] >= bounds.low[0] - 1e-4F);
    CHECK(bounds.reach[0] >= bounds.high[0] - 1e-6F);
    return bounds.low[0];
  };
  // A stroke 10 mm wide goes 8.660, 5.000, 2.887 deep at 60, 90, 120 degrees (geometry.md, Incise).
  for (const auto& [bit, deep] : {std::pair{"v60", 8.660}, std::pair{"v90", 5.0}, std::pair{"v120", 2.887}}) {
    Job job = board();
    add(job, "stroke", {kBox, 100, 10}, {120, 80}, cut(Kind::Incise, 1, {}, bit));
    CHECK(low_at(job, {120, 80}) == Approx(-deep).margin(0.012));  // offsets may be off by 5 µm
    CHECK(low_at(job, {120, 82.5}) == Approx(-deep / 2).margin(0.012));
    CHECK(low_at(job, {120, 85.1}) == 0);
  }
  {  // grounds nest: 2 mm of groove in a floor 3 mm down
    Job job = board();
    add(job, "floor", {kBox, 120, 80}, {120, 80}, cut(Kind::Recess, 3));
    Treatment groove = cut(Kind::Incise, 1, {}, "v90");
    groove.incise.floor_limit = 2;
    add(job, "groove", {kBox, 60, 10}, {120, 80}, groove);
    CHECK(low_at(job, {120, 80}) == Approx(-5).margin(0.012));
    CHECK(low_at(job, {80, 110}) == Approx(-3));
    CHECK(low_at(job, {50, 80}) == 0);
  }
  {  // b = 0.187 in at 90 degrees keeps the cut-out 0.187 in clear (geometry.md, allowances); outside it all is waste
    Job job = board();
    Treatment bevel = cut(Kind::Bevel, 0.187 * kMmPerInch, {}, "v90");
    add(job, "sign", {kBox, 100, 60}, {120, 80}, cut(Kind::CutOut, 1));
    add(job, "edge", {kBox, 100, 60}, {120, 80}, bevel);
    CHECK(low_at(job, {120, 80}) == 0);
    CHECK(low_at(job, {171, 80}) == Approx(-1).margin(0.01));
    CHECK(low_at(job, {174, 80}) == Approx(-4).margin(0.01));
    CHECK(low_at(job, {174.76, 80}) < -18);
    CHECK(low_at(job, {220, 80}) < -18);
  }
}

TEST_CASE("a plain sign is cut as wanted, and what stays in corners is told in area") {
  Job job = small_sign();
  const Plan p = planned(job);
  const Judgement j = judged(p, 0.1);
  INFO(in_words(j));
  CHECK(j.faults.empty());
  CHECK(j.cut_as_wanted());
  CHECK(j.within <= 0.05);
  // A square corner keeps (4 − π)/4 · (D/2)² (geometry.md, clearing): four of them by 1/4 in.
  const double corner = (4 - M_PI) / 4 * 4 * std::pow(6.35 / 2, 2);
  CHECK(j.left.mm2 == Approx(corner).epsilon(0.15));
  CHECK(j.left.mm == Approx(4).margin(0.01));
  CHECK_FALSE(j.left_runs.empty());
  CHECK_THAT(judged_in_words(j, job.lengths), Catch::Contains("cut as wanted"));
}

TEST_CASE("planted faults are found, each by its kind, place, piece, file and bit") {
  const Job job = small_sign();
  const Plan p = planned(job);
  const std::vector<OutputFile> fine = gcode_files(p);
  REQUIRE(judge_files(p, fine, 0.2).faults.empty());

  SECTION("one move shifted") {
    std::vector<OutputFile> files = fine;
    OutputFile& file = files[file_with(files, "v60")];
    std::vector<std::string> lines = lines_of(file.text);
    std::size_t cutting = 0;
    for (std::size_t i = 0; i < lines.size(); ++i) {
      if (lines[i].starts_with("G1 X") && ++cutting == 20) {
        const std::size_t end = lines[i].find(' ', 4);
        const double x = std::stod(lines[i].substr(4, end - 4));
        lines[i] = "G1 X" + std::to_string(x) + " Y70.0" +
                   lines[i].substr(lines[i].find(" Z") == std::string::npos ? lines[i].size() : lines[i].find(" Z"));
      }
    }
    file.text = joined(lines);
    const Judgement j = judge_files(p, files, 0.2);
    const Fault* f = find(j, kGouge);
    REQUIRE(f != nullptr);
    CHECK(f->mm > 0.3);
    CHECK(f->at.y > 58);
    CHECK(f->piece == "groove");
    CHECK(f->hurt == "floor");
    CHECK(f->bit == "v60");
    CHECK(f->file == file.name);
  }
  SECTION("one pass missing") {
    std::vector<OutputFile> files = fine;
    OutputFile& file = files[file_with(files, "1-4in")];
    std::vector<std::string> lines = lines_of(file.text);
    // Everything below half of the floor's depth is left out until the next lift.
    bool deep = false;
    std::vector<std::string> kept;
    for (const std::string& line : lines) {
      if (line.starts_with("G0")) deep = false;
      const std::size_t z = line.find(" Z-");
      if (z != std::string::npos && std::abs(std::stod(line.substr(z + 2)) + 4) < 0.01) deep = true;
      if (!deep) kept.push_back(line);
    }
    REQUIRE(kept.size() < lines.size());
    file.text = joined(kept);
    const Judgement j = judge_files(p, files, 0.2);
    const Fault* f = find(j, kMissed);
    REQUIRE(f != nullptr);
    CHECK(f->piece == "floor");
    CHECK(f->mm > 0.5);
    CHECK(f->mm2 > 500);
  }
  SECTION("one ring too deep") {
    std::vector<OutputFile> files = fine;
    OutputFile& file = files[file_with(files, "1-4in")];
    std::vector<std::string> lines = lines_of(file.text);
    for (std::string& line : lines) {
      const std::size_t z = line.find(" Z-4");
      if (z == std::string::npos || !line.starts_with("G1")) continue;
      line.replace(z, 4, " Z-4.4");
      break;
    }
    file.text = joined(lines);
    const Judgement j = judge_files(p, files, 0.2);
    const Fault* f = find(j, kGouge);
    REQUIRE(f != nullptr);
    CHECK(f->mm == Approx(0.4).margin(0.05));
    CHECK(f->piece == "floor");
    CHECK(f->treatment == "recess");
  }
  SECTION("an operation out of order") {
    // The groove before the floor that it lies on: the V then takes the floor's wood at once, and more than it may.
    Plan swapped = p;
    std::vector<OutputFile> files = fine;
    REQUIRE(p.runs.size() >= 2);
    const std::size_t v = file_with(files, "v60"), flat = file_with(files, "1-4in");
    std::swap(swapped.runs[v], swapped.runs[flat]);
    std::swap(files[v], files[flat]);
    const Judgement j = judge_files(swapped, files, 0.2);
    bool named = false;
    for (const Fault& f : j.faults) named = named || (f.piece == "groove" && f.bit == "v60");
    INFO(in_words(j));
    CHECK(named);
  }
  SECTION("a rapid move through wood, and a plunge at full feed") {
    std::vector<OutputFile> files = fine;
    OutputFile& file = files[file_with(files, "v60")];
    std::string text = file.text;
    const std::size_t low = text.find("G0 Z0.6");
    REQUIRE(low != std::string::npos);
    text.replace(low, 7, "G0 Z-5.");
    file.text = text;
    const Judgement j = judge_files(p, files, 0.2);
    REQUIRE(find(j, Fault::Kind::Rapid) != nullptr);
    CHECK(find(j, Fault::Kind::Rapid)->piece == "groove");
    // A drill that goes down at ten times its plunge feed.
    Job holes = board();
    add(holes, "hole", {PlainShape::Kind::Ellipse, 3, 3}, {80, 55}, cut(Kind::Drill, 5, {}, "flat-1/8in"));
    const Plan q = planned(holes);
    std::vector<OutputFile> drilled = gcode_files(q);
    const std::size_t feed = drilled[0].text.find(" F");
    REQUIRE(feed != std::string::npos);
    drilled[0].text.replace(feed, drilled[0].text.find('\n', feed) - feed, " F4000");
    CHECK(find(judge_files(q, drilled, 0.2), Fault::Kind::Plunge) != nullptr);
  }
  SECTION("an operation that cuts only air") {
    Job over = small_sign();
    Treatment shallow = cut(Kind::Line, 1, {}, "v60");
    shallow.ground = 0;  // said to start at the face, over the floor
    add(over, "air", {kBox, 30, 10}, {80, 40}, shallow);
    const Judgement j = judged(planned(over));
    REQUIRE(find(j, Fault::Kind::Air) != nullptr);
    CHECK(find(j, Fault::Kind::Air)->piece == "air");
  }
}

TEST_CASE("an edit is judged again only where it touched, and to the same end") {
  Job job = board(400, 300);
  for (int i = 0; i < 6; ++i)
    add(job, ("g" + std::to_string(i)).c_str(), {PlainShape::Kind::Star, 40, 40}, {50.0 + 60 * i, 60.0 + 35 * i},
        cut(Kind::Incise, 1));
  JudgeMemory memory;
  const Plan first = planned(job);
  judge_files(first, gcode_files(first), 0.25, {}, &memory);
  const std::size_t all = memory.worked_out;
  judge_files(first, gcode_files(first), 0.25, {}, &memory);
  CHECK(memory.worked_out == 0);
  job.items[0].piece.at.x += 8;
  const Plan moved = planned(job);
  const Judgement again = judge_files(moved, gcode_files(moved), 0.25, {}, &memory);
  CHECK(memory.worked_out > 0);
  CHECK(memory.worked_out < all / 3);
  const Judgement anew = judge_files(moved, gcode_files(moved), 0.25);
  CHECK(again.within == anew.within);
  CHECK(again.left.mm2 == anew.left.mm2);
  CHECK(again.faults.size() == anew.faults.size());
  // The board's form belongs to no piece, and is not forgotten either.
  job.blank.form = BlankForm::Oval;
  const Plan oval = planned(job);
  judge_files(oval, gcode_files(oval), 0.25, {}, &memory);
  CHECK(memory.worked_out == all);
}

TEST_CASE("what hangs over the edge of a board that is no whole number of cells is no wood") {
  for (const double past : {0.05, 0.13, 0.2}) {
    Job job = board(150 + past, 100 + past, 18);
    add(job, "level", {PlainShape::Kind::Rectangle, 150 + past, 100 + past}, {75 + past / 2, 50 + past / 2},
        cut(Kind::Plane, 2, {"flat-1/4in"}));
    const Plan p = planned(job);
    CHECK(judge_files(p, gcode_files(p), 0.25).cut_as_wanted());
  }
}

TEST_CASE("the judge finds nothing on random boards that the plan did not forbid itself") {
  const Rack rack = load_rack();
  int looked_at = 0, forbidden = 0;
  const auto look = [&](const Job& job, unsigned seed, double cell) {
    const Plan p = plan(job, rack, machine_for(job));
    if (p.runs.empty()) return;
    ++looked_at;
    forbidden += p.has_stop();
    if (p.has_stop()) return;  // it says so itself, in its own words
    const Judgement j = judge_files(p, gcode_files(p), cell);
    INFO("seed " << seed << ": " << in_words(j));
    CHECK(j.cut_as_wanted());
    CHECK(j.within <= 0.05 + 1e-6);
  };
  for (unsigned seed = 200'000; seed < 200'000 + 90 / kShare; ++seed) look(SignMaker(seed).job(), seed, 0.25);
  for (unsigned seed = 500; seed < 500 + 40 / kShare; ++seed) look(JobMaker(seed).job(), seed, 0.25);
  CHECK(looked_at > 110 / static_cast<int>(kShare));
  CHECK(forbidden < looked_at * 2 / 3);
}

TEST_CASE("a thousand random boards", "[.][long]") {
  const Rack rack = load_rack();
  for (unsigned seed = 700'000; seed < 701'000; ++seed) {
    const Job job = seed % 4 == 0 ? JobMaker(seed).job() : SignMaker(seed).job();
    const Plan p = plan(job, rack, machine_for(job));
    if (p.runs.empty() || p.has_stop()) continue;
    const Judgement j = judge_files(p, gcode_files(p), 0.25);
    INFO("seed " << seed << ": " << in_words(j));
    CHECK(j.cut_as_wanted());
  }
}

TEST_CASE("remembered plans are the plans that would be made, whatever is edited in job and rack", "[heavy]") {
  std::mt19937 random(11);
  const auto pick = [&](std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(random); };
  PlanCache cache;
  for (unsigned seed = 300'000; seed < 300'006; ++seed) {
    Job job = SignMaker(seed).job();
    Rack rack = load_rack();
    for (int edit = 0; edit < 8; ++edit) {
      switch (pick(5)) {
        case 0:
          rack.bits.erase(rack.bits.begin() + static_cast<std::ptrdiff_t>(pick(rack.bits.size())));
          break;
        case 1:
          rack.bits[pick(rack.bits.size())].measured_diameter = 1.0 + static_cast<double>(pick(50)) / 10;
          break;
        case 2:
          job.items[pick(job.items.size())].piece.at.x += 3;
          break;
        case 3:
          job.items[pick(job.items.size())].cut.depth += 0.3;
          break;
        default:
          for (auto& [wood, feeds] : rack.bits[pick(rack.bits.size())].feeds) feeds.depth_per_pass *= 0.8;
          break;
      }
      INFO("seed " << seed << ", edit " << edit);
      const Plan with = plan(job, rack, machine_for(job), &cache), without = plan(job, rack, machine_for(job));
      CHECK(with.seconds == without.seconds);
      CHECK(with.verdicts.size() == without.verdicts.size());
      REQUIRE(with.runs.size() == without.runs.size());
      const auto a = without.runs.empty() || without.has_stop() ? std::vector<OutputFile>{} : gcode_files(with);
      const auto b = without.runs.empty() || without.has_stop() ? std::vector<OutputFile>{} : gcode_files(without);
      for (std::size_t i = 0; i < a.size(); ++i) CHECK(a[i].text == b[i].text);
    }
  }
}
