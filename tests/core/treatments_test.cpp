// Every treatment, from job to written G-code and back: closed forms, exact distances, OpenCV's morphology, the rules.
#include <catch2/catch.hpp>
#include <numbers>
#include <opencv2/imgproc.hpp>
#include <set>

#include "cutting/proposals.hpp"
#include "json_reading.hpp"
#include "measure/length.hpp"
#include "oracle.hpp"
#include "planning/outputs.hpp"
#include "planning/sums.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "storage/data_folder.hpp"
#include "treatments/all.hpp"
#include "treatments/incise/incise_sums.hpp"
#include "treatments/start.hpp"
#include "treatments/treatment_fields.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

double flat_of(const char* id) { return load_rack().find(id)->true_diameter(); }

}  // namespace

TEST_CASE("a recess' corners keep (4 - pi)/4 (D/2)^2 each, by the files that are written") {  // geometry.md, clearing
  Job job = board();
  add(job, "tray", {kBox, 60, 40}, {120, 80}, cut(Kind::Recess, 5, {"flat-1/4in"}));
  const Plan p = planned(job);
  const double r = flat_of("flat-1/4in") / 2;
  CHECK(p.pieces[0]->cuts.lost.islands.size() == 4);
  CHECK(p.pieces[0]->cuts.unreached.area == Approx(4 * (4 - std::numbers::pi) / 4 * r * r).epsilon(0.02));
  const HeightField f = carved(p, 0.1);
  double volume = 0;
  int deeper = 0;
  for (std::size_t i = 0; i < f.rows(); ++i) {
    for (std::size_t c = 0; c < f.columns(); ++c) {
      const Point q{f.x_of(c), f.y_of(i)};
      volume -= f.at(c, i) * 0.01;
      const double ideal = std::abs(q.x - 120) < 30 && std::abs(q.y - 80) < 20 ? -5 : 0;
      deeper += f.at(c, i) < ideal - 0.005 && std::abs(std::abs(q.x - 120) - 30) > 0.1 &&
                std::abs(std::abs(q.y - 80) - 20) > 0.1;
    }
  }
  CHECK(deeper == 0);  // never below the floor, never past a wall by more than a cell
  CHECK(volume == Approx(5 * (60 * 40 - (4 - std::numbers::pi) * r * r)).epsilon(0.005));
}

TEST_CASE("what a flat bit leaves of random floors with holes is what OpenCV's opening leaves") {
  std::mt19937 random(11);
  const double cell = 0.2, d = flat_of("flat-1/8in");
  for (int round = 0; round < 3; ++round) {
    const Region floor = subtract(clean({oracle::random_ring(random, {60, 60}, 25, 50, 14)}),
                                  clean({oracle::random_ring(random, {60, 60}, 6, 12, 9)}));
    Piece piece{"d", "D", frozen({floor, {}, {}, {}, {}, {}}, "d"), bounds(floor).centre(), 0};
    Job job = board(120, 120);
    job.items.push_back({piece, cut(Kind::Recess, 4, {"flat-1/4in", "flat-1/8in"})});
    const HeightField f = carved(planned(job), cell);
    cv::Mat mask(static_cast<int>(f.rows()), static_cast<int>(f.columns()), CV_8U, cv::Scalar(0));
    for (int i = 0; i < mask.rows; ++i) {
      for (int c = 0; c < mask.cols; ++c)
        mask.at<uchar>(i, c) =
            contains(floor, {f.x_of(static_cast<std::size_t>(c)), f.y_of(static_cast<std::size_t>(i))}) ? 255 : 0;
    }
    const int k = static_cast<int>(std::ceil(d / cell)) | 1;
    cv::Mat disc(k, k, CV_8U, cv::Scalar(0)), open;
    for (int y = 0; y < k; ++y) {
      for (int x = 0; x < k; ++x) disc.at<uchar>(y, x) = std::hypot(x - k / 2, y - k / 2) * cell <= d / 2 ? 1 : 0;
    }
    cv::morphologyEx(mask, open, cv::MORPH_OPEN, disc, {-1, -1}, 1, cv::BORDER_CONSTANT, 0);
    cv::Mat inner, outer;
    cv::erode(open, inner, cv::Mat::ones(3, 3, CV_8U));
    cv::dilate(mask, outer, cv::Mat::ones(3, 3, CV_8U));
    int left = 0, gouged = 0;
    for (int i = 0; i < mask.rows; ++i) {
      for (int c = 0; c < mask.cols; ++c) {
        const float z = f.at(static_cast<std::size_t>(c), static_cast<std::size_t>(i));
        left += inner.at<uchar>(i, c) != 0 && z > -4 + 0.005;
        gouged += (outer.at<uchar>(i, c) == 0 && z < -0.005) || z < -4.005;
      }
    }
    CHECK(left == 0);
    CHECK(gouged == 0);
  }
}

TEST_CASE("raised letters stand at the face on sloped flanks, exact to the distance, inside corners sharp") {
  Job job = board(260, 120);
  job.items.push_back(
      {oracle::lettering("Rue", "Cabin", "Bold", 40), cut(Kind::Raise, 4, {"flat-1/4in", "flat-1/8in"})});
  job.items[0].piece.at = {130, 60};
  add(job, "panel", {kBox, 220, 90}, {130, 60}, {});
  job.items[0].cut.raise.panel = "panel";
  const Plan p = planned(job);
  CHECK_FALSE(p.has_stop());
  const Region shape = p.pieces[0]->outlines.region, panel = p.pieces[1]->outlines.region;
  const oracle::Distance to_shape(shape), to_panel(panel);
  const HeightField f = carved(p, 0.5);
  const double slope = 1 / std::tan(30 * std::numbers::pi / 180);
  std::size_t off = 0, all = 0;
  double worst_over = 0;
  for (std::size_t i = 0; i < f.rows(); ++i) {
    for (std::size_t c = 0; c < f.columns(); ++c) {
      const Point q{f.x_of(c), f.y_of(i)};
      const bool sunk = contains(panel, q) && !contains(shape, q);
      const double d = std::min(to_shape.at(q.x, q.y), to_panel.at(q.x, q.y));
      const double ideal = sunk ? -std::min(4.0, d * slope) : 0;
      ++all;
      // Where no flat bit fits the V's tip leaves ridges of at most 0.05 mm.
      off += std::abs(f.at(c, i) - ideal) > (ideal < -3.99 ? 0.06 : 0.01);
      worst_over = std::max(worst_over, ideal - f.at(c, i));
    }
  }
  CHECK(static_cast<double>(off) / static_cast<double>(all) < 0.001);
  CHECK(worst_over < 0.008);
  CHECK(at(f, bounds(shape.islands[0]).centre()) <= 0);
}

TEST_CASE("several raised pieces of one panel are sunk round in one go, and one with upright walls") {
  Job job = board();
  Treatment upright = cut(Kind::Raise, 3, {"flat-1/8in"});
  upright.raise.sloped = false;
  upright.raise.panel = "panel";
  add(job, "a", {kBox, 30, 30}, {70, 80}, upright);
  add(job, "b", {PlainShape::Kind::Ellipse, 40, 40}, {150, 80}, upright);
  add(job, "panel", {kBox, 200, 120}, {120, 80}, {});
  const Plan p = planned(job);
  CHECK(p.pieces[0]->cuts.operations.size() == 1);
  CHECK(p.pieces[1]->cuts.operations.empty());
  CHECK(p.pieces[1]->around.with == "a");
  CHECK(find(p, "no-bit-fits") == nullptr);
  const HeightField f = carved(p, 0.5);
  CHECK(at(f, {70, 80}) == 0);
  CHECK(at(f, {150, 80}) == 0);
  CHECK(at(f, {110, 80}) == Approx(-3));
  CHECK(at(f, {10, 80}) == 0);  // outside the panel
  // Without a panel: a margin round it. A panel that is the shape itself leaves nothing to sink, and is said so.
  Job lone = board();
  Treatment margin = cut(Kind::Raise, 3, {"flat-1/8in"});
  margin.margin = 12;
  add(lone, "a", {kBox, 30, 30}, {70, 80}, margin);
  CHECK(area(planned(lone).pieces[0]->around.sunk) ==
        Approx(54 * 54 - 900 - (4 - std::numbers::pi) * 144).epsilon(2e-3));
  lone.items[0].cut.raise.panel = "same";
  add(lone, "same", {kBox, 30, 30}, {70, 80}, {});
  const Plan none = planned(lone);
  REQUIRE(find(none, "nothing-sunk") != nullptr);
  find(none, "nothing-sunk")->remedies.front().apply(lone);
  CHECK(find(planned(lone), "nothing-sunk") == nullptr);
}

TEST_CASE("grounds nest: lettering on a drawer's floor in a planed face starts there, and nobody adds depths") {
  Job job = board();
  add(job, "face", {kBox, 236, 156}, {120, 80}, cut(Kind::Plane, 1));
  add(job, "tray", {kBox, 180, 100}, {120, 80}, cut(Kind::Recess, 5));
  job.items.push_back({oracle::lettering("Sage", "Cabin", "Bold", 25), cut(Kind::Incise, 0)});
  job.items.back().piece.at = {120, 80};
  Plan p = planned(job);
  CHECK_FALSE(p.has_stop());
  const auto& words = *p.pieces[2];
  CHECK(words.around.ground.below == Approx(6));
  CHECK(words.around.ground.of == "tray");
  CHECK(p.pieces[1]->around.ground.of == "face");
  const double groove = words.cuts.groove->deepest();
  CHECK(words.cuts.deepest == Approx(6 + groove));
  CHECK(depth_sum(p, "words").result.find(format_number(6 + groove, 2)) != std::string::npos);
  const HeightField f = carved(p, 0.25);
  CHECK(at(f, words.cuts.deepest_at) == Approx(-(6 + groove)).margin(0.35));
  CHECK(at(f, {40, 40}) == Approx(-6));
  CHECK(at(f, {15, 15}) == Approx(-1));
  // The plane comes first, then the tray, then the words, whatever bits they take.
  std::vector<std::string> order;
  for (const BitRun& run : p.runs) {
    for (const Operation* op : run.operations) {
      if (order.empty() || order.back() != op->piece) order.push_back(op->piece);
    }
  }
  const auto first = [&](const char* id) { return std::find(order.begin(), order.end(), id) - order.begin(); };
  CHECK(first("face") < first("tray"));
  CHECK(first("tray") < first("words"));
  // Moved off the tray it lies on the planed face; half on and half off is said.
  job.items[2].piece.at = {120, 12};
  job.items[2].piece.turn = 0;
  std::get<Lettering>(job.items[2].piece.what).cap_height = 8;
  p = planned(job);
  CHECK(p.pieces[2]->around.ground.of == "face");
  CHECK(p.pieces[2]->around.ground.below == Approx(1));
  job.items[2].piece.at = {120, 30};
  CHECK(find(planned(job), "half-on-ground") != nullptr);
  // The user may overrule it.
  job.items[2].cut.ground = 2.5;
  p = planned(job);
  CHECK(p.pieces[2]->around.ground.below == Approx(2.5));
  CHECK(find(p, "half-on-ground") == nullptr);
}

// Beside a bevel of 0.187 in with 90 degrees the cut keeps clear by 0.187 in (geometry.md, worked).
TEST_CASE("a cut-out makes room for the bevel on its own outline; the kept face keeps its size") {
  Job job = board();
  const double b = 0.187 * kMmPerInch;
  add(job, "edge", {kBox, 100, 60}, {120, 80}, cut(Kind::Bevel, b, {}, "v90"));
  add(job, "sign", {kBox, 100, 60}, {120, 80}, cut(Kind::CutOut, 0));
  job.items[1].cut.through.tabs.wanted = false;  // so that no tab stands where it is looked at
  const Plan p = planned(job);
  CHECK(p.pieces[1]->around.grown == Approx(0.187 * kMmPerInch).epsilon(1e-6));
  const HeightField f = carved(p, 0.1);
  CHECK(at(f, {120 + 49.8, 80}) == 0);  // face to the very outline
  CHECK(at(f, {120 + 50 + 2, 80}) == Approx(-2).margin(0.11));
  CHECK(at(f, {120 + 50 + b - 0.2, 80}) == Approx(-(b - 0.2)).margin(0.11));
  CHECK(at(f, {120 + 50 + b + 1, 80}) < -18);  // and the through cut beyond
  const std::string sum = floor_depth_sum(p, "edge").lines.back();
  CHECK(sum.find("tan(90") != std::string::npos);
  // Inside, on a floor's rim: the recess draws in, the slope falls from the outline.
  Job tray = board();
  Treatment rim = cut(Kind::Bevel, 3, {}, "v90");
  rim.bevel.inside = true;
  add(tray, "rim", {kBox, 100, 60}, {120, 80}, rim);
  add(tray, "tray", {kBox, 100, 60}, {120, 80}, cut(Kind::Recess, 6, {"flat-1/4in"}));
  const Plan q = planned(tray);
  CHECK(q.pieces[1]->around.grown == Approx(-3));
  const HeightField g = carved(q, 0.1);
  CHECK(at(g, {120 + 50.2, 80}) == 0);
  CHECK(at(g, {120 + 48, 80}) == Approx(-2).margin(0.11));
  CHECK(at(g, {120 + 46, 80}) == Approx(-6));
  // Too deep for the bit is a stop that its remedy mends.
  job.items[0].cut.depth = 12;
  const Plan deep = planned(job);
  REQUIRE(find(deep, "bevel-deeper-than-bit") != nullptr);
  find(deep, "bevel-deeper-than-bit")->remedies.front().apply(job);
  CHECK(find(planned(job), "bevel-deeper-than-bit") == nullptr);
}

TEST_CASE("an insert's recess has its thickness, cover and clearance, a notch and eased corners") {
  Job job = board();
  Treatment t = cut(Kind::Recess, 1, {"flat-1/8in"});
  t.insert = {3, 0.2, 0.5, 16, Insert::Corners::Round};
  add(job, "coin", {kBox, 50, 30}, {120, 80}, t);
  const Plan p = planned(job);
  CHECK(p.pieces[0]->cuts.deepest == Approx(3.5));
  const HeightField f = carved(p, 0.1);
  CHECK(at(f, {120 + 25.1, 80}) == Approx(-3.5));  // the clearance
  CHECK(at(f, {120 + 25.35, 80}) == 0);
  CHECK(at(f, {120, 80 - 15 - 6}) == Approx(-3.5));  // the notch reaches out at the front
  // Eased, the square insert's own corners are free; plain, they are not.
  const auto corner = [](const HeightField& g) { return at(g, {120 + 24.9, 80 + 14.9}); };
  CHECK(corner(f) == Approx(-3.5));
  job.items[0].cut.insert.corners = Insert::Corners::Slot;
  CHECK(corner(carved(planned(job), 0.1)) == Approx(-3.5));
  job.items[0].cut.insert.corners = Insert::Corners::Plain;
  CHECK(corner(carved(planned(job), 0.1)) == 0);
}

TEST_CASE("pierced openings go right through inside the line; slugs too small for the bit are cleared") {
  Job job = board();
  add(job, "hole", {kBox, 60, 40}, {80, 80}, cut(Kind::Pierce, 0));
  add(job, "out", {kBox, 220, 140}, {120, 80}, cut(Kind::CutOut, 0));
  Plan p = planned(job);
  HeightField f = carved(p, 0.2);
  CHECK(at(f, {80, 80}) < -18);
  CHECK(at(f, {80 + 30.3, 80}) == 0);
  CHECK(at(f, {80 + 29.7, 80}) < -18);
  // Inside before outside.
  std::vector<std::string> order;
  for (const BitRun& run : p.runs) {
    for (const Operation* op : run.operations) order.push_back(op->piece);
  }
  CHECK(order == std::vector<std::string>{"hole", "out"});
  // As a slug only the way round it is cut, in less time; the middle stays standing.
  const double cleared = p.seconds;
  job.items[0].cut.pierce.slug = true;
  job.items[0].cut.through.tabs.wanted = false;
  p = planned(job);
  f = carved(p, 0.2);
  CHECK(at(f, {80, 80}) == 0);
  CHECK(at(f, {80 + 29.7, 80}) < -17);
  CHECK(p.seconds < cleared);
  CHECK(find(planned(job), "slug-falls") != nullptr);
  std::get<PlainShape>(job.items[0].piece.what).width = 9;
  std::get<PlainShape>(job.items[0].piece.what).height = 9;
  CHECK(at(carved(planned(job), 0.2), {80, 80}) < -18);
  // The inside of an O would fall out.
  Job letters = board();
  letters.items.push_back({oracle::lettering("O", "Cabin", "Bold", 60), cut(Kind::Pierce, 0)});
  letters.items[0].piece.at = {120, 80};
  const Plan loose = planned(letters);
  REQUIRE(find(loose, "loose-inside") != nullptr);
  CHECK(find(loose, "loose-inside")->text.find("“O”") != std::string::npos);
}

TEST_CASE("holes are drilled at the middles, or along a line, a peck at a time") {
  Job job = board();
  Treatment t = cut(Kind::Drill, 10, {}, "flat-1/4in");
  t.drill.peck = 3;
  add(job, "peg", {PlainShape::Kind::Ellipse, 6, 6}, {50, 50}, t);
  t.drill.spacing = 32;  // 100 mm in 32s: three gaps of 33.3, four holes
  add(job, "row", {PlainShape::Kind::Line, 100, 1}, {120, 100}, t);
  const Plan p = planned(job);
  REQUIRE(p.pieces[0]->cuts.holes.size() == 1);
  CHECK(distance(p.pieces[0]->cuts.holes[0], {50, 50}) < 0.01);
  REQUIRE(p.pieces[1]->cuts.holes.size() == 4);
  const HeightField f = carved(p, 0.1);
  CHECK(at(f, {50, 50}) == Approx(-10));
  CHECK(at(f, {70 + 100.0 / 3, 100}) == Approx(-10));
  CHECK(at(f, {50, 50 + flat_of("flat-1/4in") / 2 + 0.2}) == 0);
  // Four pecks: ten millimetres in no more than three at a time.
  const Pass& pass = p.pieces[0]->cuts.operations[0].passes[0];
  int down = 0;
  for (std::size_t i = 1; i < pass.points.size(); ++i) down += pass.points[i].z < pass.points[i - 1].z;
  CHECK(down == 4);
}

TEST_CASE("planing runs past the edge by what the bit needs where there is air or waste, and never into kept wood") {
  Job job = board(400, 300);
  add(job, "flat", {kBox, 100, 80}, {50, 40}, cut(Kind::Plane, 1.5));  // from the left front corner inwards
  const Plan p = planned(job);
  CHECK(p.pieces[0]->cuts.bits.size() == 1);  // one will do
  const HeightField f = carved(p, 0.25);
  for (const Point q : {Point{0.2, 0.2}, Point{99.8, 0.2}, Point{0.2, 79.8}, Point{50, 40}})
    CHECK(at(f, q) == Approx(-1.5));
  for (const Point q : {Point{100.2, 40}, Point{50, 80.2}, Point{99.9, 79.9}}) CHECK(at(f, q) == 0);  // kept
  CHECK(p.pieces[0]->cuts.unreached.area > 0);
  // Outside a cut-out it is waste.
  add(job, "sign", {kBox, 100, 80}, {50, 40}, cut(Kind::CutOut, 1));
  CHECK(at(carved(planned(job), 0.25), {102, 40}) <= -1.5);
}

TEST_CASE("bits are proposed large to small, each for what it adds") {
  const Rack rack = load_rack();
  const auto wide = propose_clearing(oracle::rectangle(0, 0, 300, 200), 4, rack, "soft");
  REQUIRE_FALSE(wide.empty());
  CHECK(rack.find(wide.front().bit)->true_diameter() == Approx(12.7));  // the largest in the rack
  const auto narrow = propose_clearing(oracle::rectangle(0, 0, 80, 4), 4, rack, "soft");
  REQUIRE_FALSE(narrow.empty());
  CHECK(rack.find(narrow.front().bit)->true_diameter() <= 4);
  for (std::size_t i = 1; i < wide.size(); ++i) CHECK(wide[i].reaches >= wide[i - 1].reaches);
  CHECK(propose_clearing(oracle::rectangle(0, 0, 80, 0.5), 4, rack, "soft").empty());
  CHECK(propose_clearing(oracle::rectangle(0, 0, 80, 40), 400, rack, "soft").empty());
  // Chosen bits that do not get in are a stop whose remedy proposes others.
  Job job = board();
  add(job, "slot", {kBox, 60, 4}, {120, 80}, cut(Kind::Recess, 4, {"flat-1/4in"}));
  const Plan p = planned(job);
  REQUIRE(find(p, "no-bit-fits") != nullptr);
  find(p, "no-bit-fits")->remedies.front().apply(job);
  CHECK_FALSE(planned(job).has_stop());
}

TEST_CASE("treatments are kept in the job file, each with its own choices") {
  Job job = board();
  for (const Kind kind : {Kind::Raise, Kind::Recess, Kind::Pierce, Kind::Bevel, Kind::Drill, Kind::Plane}) {
    Treatment t = cut(kind, 2.5, makes_ground(kind) ? std::vector<BitId>{"flat-1/8in"} : std::vector<BitId>{});
    if (kind == Kind::Raise) {
      t.raise.panel = "item-1";
      t.margin = 7;
      t.raise.sloped = false;
    }
    if (kind == Kind::Recess) t.insert = {3, 0.1, 0.5, 10, Insert::Corners::Slot};
    if (kind == Kind::Pierce) t.pierce.slug = true;
    if (kind == Kind::Pierce) t.depth = 1;
    if (kind == Kind::Bevel) t.bevel.inside = true;
    if (kind == Kind::Drill) t.drill.peck = 2, t.drill.spacing = 20;
    if (kind == Kind::Plane) t.ground = 1.5;
    add(job, ("item-" + std::to_string(job.items.size())).c_str(), {kBox, 40, 30}, {60, 60}, t);
  }
  const Job read = read_job(write_job(job), "job");
  for (std::size_t i = 0; i < job.items.size(); ++i) CHECK(read.items[i].cut == job.items[i].cut);
  Json j = parse_json(write_job(job), "job");
  j["pieces"][1]["cut"]["insert"]["corners"] = "spiral";
  CHECK_THROWS_WITH(read_job(j.dump(), "job"), Catch::Contains("spiral") && Catch::Contains("slot"));
}

TEST_CASE("floors too deep for the wood are stops that their remedies mend, whatever ground they lie on") {
  Job job = board();
  add(job, "tray", {kBox, 180, 100}, {120, 80}, cut(Kind::Recess, 9));
  add(job, "deep", {kBox, 60, 40}, {120, 80}, cut(Kind::Recess, 8));
  const Plan p = planned(job);
  const Verdict* v = find(p, "too-little-wood-left");
  REQUIRE(v != nullptr);
  CHECK(v->piece == "deep");
  v->remedies.front().apply(job);
  CHECK_FALSE(planned(job).has_stop());
  CHECK(job.items[1].cut.depth == Approx(18 - 3 - 9).margin(0.02));
}

TEST_CASE("what comes free is found in the relief itself, whatever frees it") {
  // Four straight slots, each harmless, that meet round a square: no outline encloses it, the relief shows it.
  Job job = board();
  for (int i = 0; i < 4; ++i) {
    const bool flat = i % 2 == 0;
    const double away = i < 2 ? 25 : -25;
    add(job, ("slot-" + std::to_string(i)).c_str(), {kBox, flat ? 60.0 : 8.0, flat ? 8.0 : 60.0},
        {120 + (flat ? 0 : away), 80 + (flat ? away : 0)}, cut(Kind::Pierce, 0));
  }
  const Plan p = planned(job);
  const Verdict* v = find(p, "comes-free");
  REQUIRE(v != nullptr);
  CHECK(std::abs(v->at.x - 120) < 22);
  CHECK(std::abs(v->at.y - 80) < 22);
  CHECK(v->text.find("18 cm²") != std::string::npos);  // (50 − 8)² = 1764 mm²
  // One slot shorter, and it hangs on.
  std::get<PlainShape>(job.items[0].piece.what).width = 30;
  CHECK(find(planned(job), "comes-free") == nullptr);
  // A cut-out held by tabs is not loose; the demo has nothing loose.
  const Job demo = load_job(data_file("demo/gate-sign.doyen"));
  CHECK(find(plan(demo, load_rack(), machine_for(demo)), "comes-free") == nullptr);
}

// A stroke of 10 mm: 18.660 mm at 30 degrees, 8.660 at 60, 5.000 at 90, 2.887 at 120 (geometry.md, worked).
TEST_CASE("the table over the rack's angles gives the worked depths") {
  Job job = board();
  job.blank.readings = {40};
  add(job, "bar", {kBox, 100, 10}, {120, 80}, cut(Kind::Incise, 0));
  const Rack rack = load_rack();
  const Plan p = plan(job, rack, machine_for(job));
  const VSeconds seconds = v_seconds(p, rack, "bar");
  const Sum table = v_table_sum(p, rack, "bar", &seconds);
  // Each time is what the piece takes when it is really planned with that bit.
  for (const char* bit : {"v60", "v90"}) {
    job.items[0].cut.bit = bit;
    const Plan own = plan(job, rack, machine_for(job));
    double total = 0;
    for (const BitRun& run : own.runs) total += run.time.seconds - own.machine.spin_up_seconds;
    CHECK(seconds.at(bit) == Approx(total).epsilon(0.02));
  }
  const auto line = [&](const char* id) {
    for (const std::string& l : table.lines) {
      if (l.find(rack.find(id)->name) == 0) return l;
    }
    return std::string();
  };
  CHECK(line("v60").find("8.66") != std::string::npos);
  CHECK(line("v90").find("5 ") != std::string::npos);
  CHECK(line("v90").find("takes ") != std::string::npos);  // and its time
  CHECK(table.result.find("the ") != std::string::npos);
}

TEST_CASE("sector and frustum: the volumes that a V's dot and a raised cone leave are the closed forms") {
  // A cone of radius r and depth h holds π r² h / 3; a frustum π h (R² + R r + r²) / 3 (school geometry).
  const double pi = std::numbers::pi, tan30 = std::tan(pi / 6);
  const auto volume = [](const HeightField& f, double floor) {
    double v = 0;
    for (std::size_t r = 0; r < f.rows(); ++r) {
      for (std::size_t c = 0; c < f.columns(); ++c) v += (floor == 0 ? -f.at(c, r) : f.at(c, r) - floor);
    }
    return v * f.cell() * f.cell();
  };
  Job dot = board();
  add(dot, "dot", {PlainShape::Kind::Ellipse, 12, 12}, {120, 80}, cut(Kind::Incise, 1));
  const double h = 6 / tan30;  // outlines are flattened to 0.01 mm, which takes 0.3 per cent of a volume
  CHECK(volume(carved(planned(dot), 0.05), 0) == Approx(pi * 36 * h / 3).epsilon(0.006));
  // Limited at 4 mm: a frustum.
  dot.items[0].cut.incise.floor_limit = 4;
  dot.items[0].cut.clearing = {"flat-1/16in"};
  const double low = 6 - 4 * tan30;
  CHECK(volume(carved(planned(dot), 0.05), 0) == Approx(pi * 4 * (36 + 6 * low + low * low) / 3).epsilon(0.006));
  // A raised disc of radius 15, 5 mm proud with 60 degree flanks, stands on a ground of a 30 mm margin.
  Job raised = board();
  Treatment t = cut(Kind::Raise, 5, {"flat-1/4in"});
  t.margin = 30;
  add(raised, "disc", {PlainShape::Kind::Ellipse, 30, 30}, {120, 80}, t);
  const HeightField f = carved(planned(raised), 0.1);
  double stands = 0;
  for (std::size_t r = 0; r < f.rows(); ++r) {
    for (std::size_t c = 0; c < f.columns(); ++c) {
      if (std::hypot(f.x_of(c) - 120, f.y_of(r) - 80) < 25) stands += (f.at(c, r) + 5) * 0.01;
    }
  }
  const double foot = 15 + 5 * tan30;
  CHECK(stands == Approx(pi * 5 * (15 * 15 + 15 * foot + foot * foot) / 3).epsilon(0.006));
}

TEST_CASE("a floor's quarter sector corner keeps (4 - pi) r^2 over four corners, whichever way it is cleared") {
  for (const Moves::Way way : {Moves::Way::Rings, Moves::Way::AlongGrain}) {
    Job job = board();
    Treatment t = cut(Kind::Recess, 3, {"flat-1/2in"});
    t.moves.way = way;
    add(job, "tray", {kBox, 70, 50}, {120, 80}, t);
    const double r = flat_of("flat-1/2in") / 2;
    double volume = 0;
    const HeightField f = carved(planned(job), 0.1);
    for (std::size_t i = 0; i < f.rows(); ++i) {
      for (std::size_t c = 0; c < f.columns(); ++c) volume -= f.at(c, i) * 0.01;
    }
    CHECK(volume == Approx(3 * (70 * 50 - (4 - std::numbers::pi) * r * r)).epsilon(0.005));
  }
}

TEST_CASE("each look knows itself, and says what the wood shall look like") {
  std::set<std::string> words;
  for (const ListedLook& listed : kLooks) {
    const Look& look = look_of(listed.kind);
    INFO(look.word);
    CHECK(look.kind == listed.kind);
    CHECK(words.insert(look.word).second);
    if (listed.kind == Treatment::Kind::None) continue;
    CHECK(look.cut != kNotCut.cut);
    CHECK(look.ask != kNotCut.ask);
    // What it is asked comes back from a file, and is told apart from what other looks are asked.
    Treatment cut;
    cut.kind = listed.kind;
    const Json written = treatment_fields().write(cut);
    CHECK(written["look"] == look.word);
    CHECK(treatment_fields().unused(written, cut).empty());
    CHECK(treatment_fields().read(JsonView(written, "cut")) == cut);
  }
}

TEST_CASE("what was chosen for another look changes nothing") {
  Treatment odd;  // nothing as usual
  odd.raise = {"rim", false, 3, 6};
  odd.incise.floor_limit = 1.1;
  odd.line = {1.5, 20};
  odd.insert = {3, 0.4, 0.7, 9, Insert::Corners::Round, true, "acrylic"};
  odd.through.over_cut = 0.9;
  odd.through.skin = 0.6;
  odd.through.taped = true;
  odd.through.tabs = {false, 7, 9, 2, {{0, 0.3}}};
  odd.pierce.slug = odd.bevel.inside = odd.resin = true;
  odd.drill = {0.7, 11};
  odd.slot.length = 33;
  odd.margin = 21;
  odd.inlay = {false, 2.9, 1.9, 0.2, true, 1.5, "black-cherry", 9, true, 9, 0.1};
  const Json odd_text = treatment_fields().write(odd);
  const Rack rack = load_rack();
  for (const ListedLook& listed : kLooks) {
    if (listed.kind == Kind::None) continue;
    INFO(listed.look.word);
    Job job = board(240, 160, 12);
    Treatment plain = start_look(listed.kind, {}, {job.blank, job.lengths, rack, [](const Bit&) { return 20.0; }});
    if (look_of(listed.kind).asks_depth && listed.kind != Kind::HangerSlot)
      plain.depth = 8;  // deep: remedies are offered
    // All that it says it does not use, as it was chosen for others.
    Json text = treatment_fields().write(plain);
    for (const std::string& key : treatment_fields().unused(odd_text, plain)) text[key] = odd_text[key];
    const Treatment full = treatment_fields().read(JsonView(text, "cut"));
    REQUIRE_FALSE(full == plain);
    add(job, "art", {kBox, 70, 50}, {120, 80}, plain);
    add(job, "rim", {kBox, 150, 110}, {120, 80}, {});
    const Plan without = planned(job);
    job.items[0].cut = full;
    const Plan with = planned(job);
    REQUIRE_FALSE(without.pieces[0]->cuts.operations.empty());
    const auto files = [](const Plan& p) {
      std::string all;
      for (const OutputFile& f : gcode_files(p)) all += f.name + "\n" + f.text;
      return all;
    };
    CHECK((files(with) == files(without)));
    const auto said = [](const Plan& p) {
      std::string all;
      for (const Verdict& v : p.verdicts) {
        all += v.code + ": " + v.text;
        for (const Remedy& r : v.remedies) all += " [" + r.label + "]";
        all += "\n";
      }
      return all;
    };
    CHECK(said(with) == said(without));
    CHECK(with.seconds == without.seconds);
  }
}

TEST_CASE("what lies inside a part is cut out before it, whichever is listed first and by whichever bit") {
  for (const char* inner_bit : {"flat-1/4in", "flat-1/8in"}) {
    for (const bool outer_first : {true, false}) {
      for (const double band : {0.0, 20.0}) {  // a plate, and a ring with the part in the middle that falls out of it
        INFO(inner_bit << ", outer first " << outer_first << ", band " << band);
        Job job = board(300, 300, 10);
        PlainShape ring{PlainShape::Kind::Ellipse, 200, 200};
        ring.band = band;
        const auto add_outer = [&] { add(job, "outer", ring, {150, 150}, cut(Kind::CutOut, 0)); };
        if (outer_first) add_outer();
        Treatment inner = cut(Kind::CutOut, 0);
        inner.bit = inner_bit;
        add(job, "inner", {PlainShape::Kind::Ellipse, 60, 60}, {150, 150}, inner);
        if (!outer_first) add_outer();
        const Plan p = planned(job);
        std::vector<std::string> order;
        for (const BitRun& run : p.runs) {
          for (const Operation* op : run.operations) order.push_back(op->piece);
        }
        CHECK(order == std::vector<std::string>{"inner", "outer"});
        // Of the ring itself the middle comes before the rim.
        if (band <= 0) continue;
        const auto& passes = p.piece("outer")->cuts.operations.back().passes;
        std::size_t last_inside = 0, first_outside = passes.size();
        for (std::size_t i = 0; i < passes.size(); ++i) {
          const bool inside = distance(passes[i].points.front().flat(), {150, 150}) < 90;
          if (inside) last_inside = i;
          if (!inside) first_outside = std::min(first_outside, i);
        }
        CHECK(last_inside < first_outside);
      }
    }
  }
}
