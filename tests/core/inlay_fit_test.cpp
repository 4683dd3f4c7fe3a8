// The fit proof against closed forms, raster morphology and what happens in a shop: files and plan, tip flats, blunter
// bits, a leaning spindle, a traced drawing, random art.
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "inlaid.hpp"
#include "oracle.hpp"
#include "planning/outputs.hpp"
#include "problem.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace inlaid;

namespace {

const double kTan30 = std::tan(std::numbers::pi / 6);

double tan_of(double degrees) { return std::tan(degrees / 2 * std::numbers::pi / 180); }

Drawing art_of(const Region& region) { return frozen({region, {}, {}, {}, {}, {}}, "art"); }

// x where the row's heights first come up (from the left) or go down to this height, between cells.
double crossing(const HeightField& f, std::size_t row, double height, bool last) {
  double found = 1e300;
  for (std::size_t c = 1; c < f.columns(); ++c) {
    const double a = f.at(c - 1, row), b = f.at(c, row);
    if ((a > height) == (b > height)) continue;
    const double x = f.x_of(c - 1) + (height - a) / (b - a) * f.cell();
    if (last || found > 1e200) found = x;
    if (!last) break;
  }
  return found;
}

}  // namespace

TEST_CASE("the proof from the written files is the proof from the plan") {  // independent reader, geometry.md
  const Piece words = oracle::lettering("Rue", "EB Garamond", "Bold", 28);
  const Both h = inlaid_board(words.what, {100, 80}, wide_rack());
  const Halves files = halves_of(h.pocket, h.plug, h.place, MovesFrom::Files),
               moves = halves_of(h.pocket, h.plug, h.place, MovesFrom::Plan);
  CHECK(files.pocket.size() == moves.pocket.size());
  CHECK(files.plug.size() == moves.plug.size());
  const Fit a = mate(files, 0.1), b = mate(moves, 0.1);
  CHECK(a.rides_up == Approx(b.rides_up).margin(0.003));
  CHECK(a.glue_gap == Approx(b.glue_gap).margin(0.003));
  CHECK(a.saw_gap == Approx(b.saw_gap).margin(0.003));
  double worst = 0;
  std::size_t off = 0;
  for (std::size_t r = 0; r < a.pocket.rows(); ++r) {
    for (std::size_t c = 0; c < a.pocket.columns(); ++c) {
      const double d = std::abs(a.pocket.at(c, r) - b.pocket.at(c, r));
      worst = std::max(worst, d);
      off += d > 0.01;
    }
  }
  CHECK(off < a.pocket.rows() * a.pocket.columns() / 10'000);
}

TEST_CASE("a traced drawing closes: flanks coincide within 0.01 mm across them") {
  // The heron of the demo, traced from a picture, as it stands in its job.
  const Job demo = load_job(data_file("demo/heron-plaque.doyen"));
  const Item* heron = demo.find("heron");
  REQUIRE(heron != nullptr);
  Drawing traced = std::get<Drawing>(heron->piece.what);
  const Box box = bounds(outlines_of({"h", "h", traced, {0, 0}, 0}).region);
  const double shrink = 90 / std::max(box.width(), box.height());
  traced.scale *= shrink;
  const Both h = inlaid_board(traced, {100, 80}, wide_rack());
  CHECK(point_count(h.pocket.pieces[0]->outlines.region) > 300);
  const Fit fit = fit_of(h.pocket, h.plug, h.place, 0.1);
  INFO("binds at " << fit.binds_at.x << ", " << fit.binds_at.y);
  // 0.01 mm across a flank of 30° is 0.02 mm up and down.
  CHECK(std::abs(fit.rides_up) < 0.02);
  CHECK(fit.overlap == 0);
  CHECK(binding_places(fit).empty());
  CHECK(face_after(fit, 0).widest_gap <= 0.11);  // a cell
}

TEST_CASE("random art with a sharp tip: no overlap beyond 0.01 mm, the glue gap as asked wherever the floor is flat") {
  std::mt19937 random(77);
  for (int i = 0; i < 5; ++i) {
    Region art = clean({oracle::random_ring(random, {100, 80}, 14, 30 + i, 7 + i)});
    if (i % 2 == 1) art = subtract(art, clean({oracle::random_ring(random, {100, 80}, 3, 6, 5)}));
    const double depth = 3 + 0.7 * i, contact = depth - 0.4 - 0.2 * i;
    const Both h = inlaid_board(art_of(art), {100, 80}, wide_rack(), [&](Treatment& t) {
      t.depth = depth;
      t.inlay.contact = contact;
      t.bit = i % 2 == 0 ? "v60" : "v90";
    });
    const Fit fit = fit_of(h.pocket, h.plug, h.place, 0.1);
    INFO("seed step " << i);
    const double across = i % 2 == 0 ? 0.5 : std::numbers::sqrt2 / 2;  // sin(α/2)
    double in_the_way = 0, worst_floor = 0;
    std::size_t flat = 0;
    for (std::size_t r = 0; r < fit.pocket.rows(); ++r) {
      for (std::size_t c = 0; c < fit.pocket.columns(); ++c) {
        in_the_way = std::max(in_the_way, fit.in_the_way(c, r) * across);
        const bool floor = fit.pocket.at(c, r) < -depth + 0.005, land = fit.plug.at(c, r) < -contact + 0.005;
        if (!floor || !land) continue;
        ++flat;
        worst_floor = std::max(worst_floor, std::abs(fit.gap(c, r) - (depth - contact)));
      }
    }
    CHECK(in_the_way < 0.01);
    CHECK(flat > 1000);
    CHECK(worst_floor < 0.02);
  }
}

// A tip flat: depth(p) = (max{d(q) : |q − p| ≤ t/2} − t/2) / tan(α/2), by exact distances and OpenCV's dilation.
TEST_CASE("what a tip flat leaves in the way is what raster morphology says") {
  const double tip = 0.4, depth = 3, contact = 2.2, saw = 1;
  Rack rack = wide_rack();
  for (Bit& bit : rack.bits) {
    if (bit.id == "v60") bit.tip = tip;
  }
  const Region star = clean({{{100, 92},
                              {96.5, 84},
                              {88, 83},
                              {94.5, 77.5},
                              {92.5, 69},
                              {100, 73.5},
                              {107.5, 69},
                              {105.5, 77.5},
                              {112, 83},
                              {103.5, 84}}});
  const Both h = inlaid_board(art_of(star), {100, 80}, rack, [&](Treatment& t) {
    t.depth = depth;
    t.inlay.contact = contact;
    t.inlay.saw_gap = saw;
  });
  const double cell = 0.04;
  const Fit fit = fit_of(h.pocket, h.plug, h.place, cell);

  const Region art = h.pocket.pieces[0]->outlines.region;
  const oracle::Distance distance(art);
  const int columns = static_cast<int>(fit.pocket.columns()), rows = static_cast<int>(fit.pocket.rows());
  cv::Mat inside(rows, columns, CV_32F), outside(rows, columns, CV_32F);
  for (int r = 0; r < rows; ++r) {
    for (int c = 0; c < columns; ++c) {
      const Point p{fit.pocket.x_of(static_cast<std::size_t>(c)), fit.pocket.y_of(static_cast<std::size_t>(r))};
      const auto d = static_cast<float>(distance.at(p.x, p.y));
      const bool in = contains(art, p);
      inside.at<float>(r, c) = in ? d : -d;
      outside.at<float>(r, c) = in ? -d : d;
    }
  }
  const int radius = static_cast<int>(std::lround(tip / 2 / cell));
  cv::Mat disc(2 * radius + 1, 2 * radius + 1, CV_8U);
  for (int y = -radius; y <= radius; ++y) {
    for (int x = -radius; x <= radius; ++x)
      disc.at<unsigned char>(y + radius, x + radius) = x * x + y * y <= radius * radius ? 1 : 0;
  }
  cv::Mat in_wide, out_wide;
  cv::dilate(inside, in_wide, disc);
  cv::dilate(outside, out_wide, disc);
  double predicted = 1e300, worst = 0;
  std::size_t off = 0, looked = 0;
  for (int r = radius; r < rows - radius; ++r) {
    for (int c = radius; c < columns - radius; ++c) {
      const auto cc = static_cast<std::size_t>(c), rr = static_cast<std::size_t>(r);
      if (outside.at<float>(r, c) > 2.5) continue;  // beyond what is looked at
      const double pocket = -std::clamp((in_wide.at<float>(r, c) - tip / 2) / kTan30, 0.0, depth);
      // The plug's flank lies at −contact where the outline is, rises inwards to the land and falls outwards.
      const double own = std::clamp(-contact - (out_wide.at<float>(r, c) - tip / 2) / kTan30, -contact - saw, 0.0);
      const double plug = -own - contact;
      predicted = std::min(predicted, plug - pocket);
      ++looked;
      const double d = std::abs((plug - pocket) - (fit.plug.at(cc, rr) - fit.pocket.at(cc, rr)));
      off += d > 2 * cell;
      worst = std::max(worst, d);
    }
  }
  // The disc's raster radius is off by up to half a cell: 0.02 / tan 30° each way.
  CHECK(fit.rides_up == Approx(-predicted).margin(0.05));
  CHECK(fit.rides_up > 0.1);
  INFO("worst " << worst << ", off " << off << " of " << looked);
  CHECK(static_cast<double>(off) < 0.002 * static_cast<double>(looked));
  // It binds at the star's points and notches, and the worst places say so.
  const std::vector<FitPlace> places = binding_places(fit);
  REQUIRE(places.size() >= 3);
  for (const FitPlace& place : places) CHECK(distance.at(place.at.x, place.at.y) < 1.6);
  CHECK(places.front().mm == Approx(fit.rides_up).margin(1e-6));
  for (std::size_t i = 1; i < places.size(); ++i) {
    CHECK(places[i].mm <= places[i - 1].mm);
    CHECK(length(places[i].at - places[0].at) >= 4);
  }
}

// With both halves cut by a bit of α + ε the pocket's flank opens by P·(T′ − T) at the face and the plug's outline
// shrinks by F·(T′ − T): a disc sinks by (P + F)·(T′ − T)/T′ (from geometry.md's wedge, worked out by hand). In a
// corner the pocket's valley stays where it is, cut by the tip itself: there only the plug's F·(T′ − T)/T lets it sink.
TEST_CASE("a bit blunter or sharper than measured: the plug sinks or rides up by the wedge") {
  const Both disc = inlaid_board(PlainShape{PlainShape::Kind::Ellipse, 40, 40}, {100, 80}, wide_rack()),
             bar = inlaid_board(kBar, {100, 80}, wide_rack());
  const Halves round = halves_of(disc.pocket, disc.plug, disc.place),
               square = halves_of(bar.pocket, bar.plug, bar.place);
  for (const double by : {1.0, 2.0, -1.0}) {
    WhatIf w;
    w.angle = by;
    const double t = tan_of(60), u = tan_of(60 + by);
    INFO(by << "° blunter");
    CHECK(mate(round, 0.05, w).rides_up == Approx(-(5 + 1.2) * (u - t) / u).margin(0.015));
    if (by > 0) CHECK(mate(square, 0.02, w).rides_up == Approx(-1.2 * (u - t) / t).margin(0.006));
  }
}

TEST_CASE("a leaning spindle makes one flank steeper and the other shallower by its angle") {
  const Both h = inlaid_board(kBar, {100, 80}, wide_rack());
  const Halves halves = halves_of(h.pocket, h.plug, h.place);
  for (const double tilt : {0.5, 2.0, -2.0}) {
    WhatIf w;
    w.tilt = tilt;
    const Fit fit = mate(halves, 0.05, w);
    const std::size_t middle = fit.pocket.rows() / 2;
    const double left = crossing(fit.pocket, middle, -3, false) - crossing(fit.pocket, middle, -1, false);
    const double right = crossing(fit.pocket, middle, -1, true) - crossing(fit.pocket, middle, -3, true);
    const auto run = [](double degrees) { return 2 * std::tan(degrees * std::numbers::pi / 180); };
    INFO("leans by " << tilt);
    CHECK(right == Approx(run(30 + tilt)).margin(0.02));
    CHECK(left == Approx(run(30 - tilt)).margin(0.02));
  }
  WhatIf hardly;
  hardly.tilt = 1e-9;  // the turning itself changes nothing
  const Fit straight = mate(halves, 0.1), turned = mate(halves, 0.1, hardly);
  CHECK(turned.rides_up == Approx(straight.rides_up).margin(0.003));
  CHECK(turned.glue_gap == Approx(straight.glue_gap).margin(0.003));
}

TEST_CASE("the usual faults are tried one by one and say what the joint forgives") {
  const Both h = inlaid_board(kBar, {100, 80}, wide_rack());
  const std::vector<Forgiven> rows = what_it_forgives(halves_of(h.pocket, h.plug, h.place), 0.1);
  REQUIRE(rows.size() == 8);
  const LengthStyle mm;
  for (const Forgiven& row : rows) {
    INFO(fault_in_words(row.fault, mm));
    if (row.fault.pocket_zero != 0) {
      // Too shallow by 0.1: it lies 0.1 higher, the line closes, the glue gap stays (both floor and plug moved).
      CHECK(row.rides_up == Approx(row.fault.pocket_zero).margin(0.01));
      CHECK(row.open_line == 0);
      CHECK(row.glue_gap == Approx(1.2).margin(0.02));
    }
    if (row.fault.plug_zero != 0) {
      CHECK(row.rides_up == Approx(row.fault.plug_zero).margin(0.01));
      CHECK(row.glue_gap == Approx(1.2 + row.fault.plug_zero).margin(0.02));
    }
    if (row.fault.tip > 0) CHECK(row.rides_up < 0);
  }
  // In inches the same faults are round in inches.
  LengthStyle inch;
  inch.unit = Unit::Inch;
  const std::vector<Forgiven> inches = what_it_forgives(halves_of(h.pocket, h.plug, h.place), 0.2, Unit::Inch);
  CHECK(fault_in_words(inches.front().fault, inch) == "pocket 0.004 in too shallow");
  WhatIf all;
  all.pocket_zero = 0.1;
  all.plug_zero = -0.1;
  all.tilt = -1;
  CHECK(fault_in_words(all, mm) == "pocket 0.1 mm too shallow, plug 0.1 mm too deep, spindle leans 1° to the left");
  CHECK(fault_in_words({}, mm) == "nothing amiss");
}

TEST_CASE("halves cut by bits of different angles are refused with the reason") {
  const Both h = inlaid_board(kBar, {100, 80}, wide_rack());
  Job other = h.plug.job;
  other.items[0].cut.bit = "v90";
  const Plan plug = plan(other, wide_rack(), machine_for(other));
  CHECK_THROWS_WITH(halves_of(h.pocket, plug, h.place),
                    Catch::Contains("60°") && Catch::Contains("90°") && Catch::Contains("same bit"));
  // What is cut after gluing does not belong to the joint.
  Job job = h.job;
  Item late{{"late", "Late", PlainShape{PlainShape::Kind::Rectangle, 20, 10}, {100, 80}, 0}, {}};
  late.cut.kind = Kind::Incise;
  late.cut.bit = "v60";
  job.items.push_back(late);
  const Plan pocket = plan(job, wide_rack(), machine_for(job));
  REQUIRE(pocket.has_later());
  const Fit fit = fit_of(pocket, h.plug, h.place, 0.1);
  CHECK(std::abs(fit.rides_up) < 0.01);
  CHECK(fit.glue_gap == Approx(1.2).margin(0.01));
}

// The land is the art drawn in by S·tan(α/2) all round, the pocket's floor by P·tan(α/2) (geometry.md): a disc, a
// square and a cross have them by hand.
TEST_CASE("closed forms: land and floor of a disc, a square and a cross") {
  const double land_in = 3.8 * kTan30, floor_in = 5 * kTan30;
  const auto square = [](double side, double in) { return (side - 2 * in) * (side - 2 * in); };
  // Arms w wide and l long tip to tip: drawn in, each arm loses twice that in both measures.
  const auto cross = [](double w, double l, double in) {
    const double ww = w - 2 * in, ll = l - 2 * in;
    return 2 * ww * ll - ww * ww;
  };
  const auto disc = [](double r, double in) { return std::numbers::pi * (r - in) * (r - in); };
  const Region arms = unite(oracle::rectangle(70, 73, 60, 14), oracle::rectangle(93, 50, 14, 60));
  const struct {
    const char* name;
    decltype(Piece::what) what;
    double land, floor;
  } cases[] = {{"disc", PlainShape{PlainShape::Kind::Ellipse, 40, 40}, disc(20, land_in), disc(20, floor_in)},
               {"square", PlainShape{PlainShape::Kind::Rectangle, 30, 30}, square(30, land_in), square(30, floor_in)},
               {"cross", art_of(arms), cross(14, 60, land_in), cross(14, 60, floor_in)}};
  for (const auto& one : cases) {
    const Both h = inlaid_board(one.what, {100, 80}, wide_rack());
    const double cell = 0.05;
    const Fit fit = fit_of(h.pocket, h.plug, h.place, cell);
    double land = 0, floor = 0;
    const Region near = h.pocket.pieces[0]->outlines.region;
    for (std::size_t r = 0; r < fit.pocket.rows(); ++r) {
      for (std::size_t c = 0; c < fit.pocket.columns(); ++c) {
        if (!contains(near, {fit.pocket.x_of(c), fit.pocket.y_of(r)})) continue;
        land += fit.plug.at(c, r) < -3.8 + 0.003;
        floor += fit.pocket.at(c, r) < -5 + 0.06;  // ridges of the V's tip stay under 0.05
      }
    }
    INFO(one.name);
    CHECK(land * cell * cell == Approx(one.land).epsilon(0.01));
    CHECK(floor * cell * cell == Approx(one.floor).epsilon(0.02));
    CHECK(std::abs(fit.rides_up) < 0.01);
  }
}

TEST_CASE("upright corners: a sharp plug does not go into round corners, and the remedy rounds both") {
  const auto upright = [](double ease) {
    return inlaid_board(kBar, {100, 80}, wide_rack(), [&](Treatment& t) {
      t.inlay.sloped = false;
      t.inlay.allowance = 0.1;
      t.inlay.ease = ease;
      t.clearing = {"flat-1/8in"};
    });
  };
  const Both sharp = upright(0);
  const Verdict* told = nullptr;
  for (const Verdict& v : sharp.pocket.verdicts) {
    if (v.code == "upright-corners-bind") told = &v;
  }
  REQUIRE(told != nullptr);
  const Fit binds = fit_of(sharp.pocket, sharp.plug, sharp.place, 0.04);
  CHECK(binds.rides_up > 1);  // it stands on the four corners
  // (4 − π)·r² of wood in the way, less what the allowance leaves free.
  CHECK(binds.overlap > 0.5);
  CHECK(binding_places(binds).size() == 4);
  Job job = sharp.job;
  told->remedies.at(0).apply(job);
  CHECK(job.items[0].cut.inlay.ease == Approx(3.175 / 2).margin(0.05));
  const Both round = upright(job.items[0].cut.inlay.ease);
  for (const Verdict& v : round.pocket.verdicts) CHECK(v.code != "upright-corners-bind");
  CHECK(fit_of(round.pocket, round.plug, round.place, 0.04).overlap == 0);
}
