// Words on arcs, along and inside pieces; plaques; pieces made from others; cleaning up: closed forms, GEOS, the rules.
#include <geos_c.h>

#include <catch2/catch.hpp>
#include <numbers>

#include "artwork/drawing/clean_up.hpp"
#include "artwork/lettering/single_line_faces.hpp"
#include "job/job.hpp"
#include "made_pieces.hpp"
#include "oracle.hpp"
#include "planning/fitness.hpp"
#include "problem.hpp"

using namespace doyen;

namespace {

using ShapeKind = PlainShape::Kind;
using Form = PlainShape::CornerForm;

Region region_of(const PlainShape& s) { return outlines_of({"s", "s", s, {100, 100}, 0}).region; }

Piece derived(
    Derived::How how, std::vector<std::string> from, const std::function<void(Derived&)>& change = [](Derived&) {}) {
  Derived d;
  d.how = how;
  d.from = std::move(from);
  change(d);
  return {"made", "Made", d, {0, 0}, 0};
}

double farthest_from_circle(const Region& region, Point middle, double least, double most) {
  double worst = 0;
  for (const Island& island : region.islands) {
    for (const Point& p : island.rings.front())
      worst = std::max({worst, least - distance(p, middle), distance(p, middle) - most});
  }
  return worst;
}

std::string mm(double v) { return depth_in_words(v, {}); }

}  // namespace

TEST_CASE("words on an arch stand on its circle, in a bowl they hang inside it") {
  Piece words = oracle::lettering("HHHHHHH", "Cabin", "Bold", 10);
  auto& l = std::get<Lettering>(words.what);
  l.letter_spacing = 60;
  l.arc_radius = 80;
  words.at = {200, 200};
  // H is flat: its feet lie on chords of the circle, its head at most a cap higher.
  CHECK(farthest_from_circle(outlines_of(words).region, {200, 120}, 80 - 0.01, 91.2) < 0.05);
  CHECK(outlines_of(words).region.islands.size() == 7);
  l.arc_below = true;
  CHECK(farthest_from_circle(outlines_of(words).region, {200, 280}, 69, 80.8) < 0.05);
  // Each letter keeps its own size and shape.
  const double one = area(outlines_of(oracle::lettering("H", "Cabin", "Bold", 10)).region);
  CHECK(area(outlines_of(words).region) == Approx(7 * one).epsilon(1e-3));
  // Two lines too many for a small arc are refused in words.
  l.words = "A\nB\nC\nD\nE\nF\nG";
  l.arc_below = false;
  l.arc_radius = 20;
  CHECK_THROWS_WITH(outlines_of(words), Catch::Contains("larger radius"));
}

TEST_CASE("words follow another piece's outline and come along when it moves") {
  Piece words = oracle::lettering("ROUND", "Cabin", "Bold", 8);
  std::get<Lettering>(words.what).along = "ring";
  words.at = {0, 0};
  Job job = job_of({{"ring", "Ring", PlainShape{ShapeKind::Ellipse, 120, 120}, {150, 150}, 0}, words});
  const Outlines before = made(job, "words");
  CHECK(farthest_from_circle(before.region, {150, 150}, 59.5, 70) < 0.3);  // outside the ring
  job.find("ring")->piece.at = {180, 140};
  const Outlines after = made(job, "words");
  CHECK(bounds(after.region).left == Approx(bounds(before.region).left + 30).margin(0.01));
  CHECK(bounds(after.region).bottom == Approx(bounds(before.region).bottom - 10).margin(0.01));
  job.items.erase(job.items.begin());
  CHECK_THROWS_WITH(made(job, "words"), Catch::Contains("not there any more"));
}

TEST_CASE("words fitted inside a shape are as large as the margin allows, and no larger") {
  Piece words = oracle::lettering("Sage\nThyme", "Vollkorn", "Bold", 10);
  auto& l = std::get<Lettering>(words.what);
  l.inside = "oval";
  l.inside_margin = 6;
  words.at = {0, 0};
  const Job job = job_of({{"oval", "Oval", PlainShape{ShapeKind::Ellipse, 200, 120}, {150, 100}, 0}, words});
  const Region set = made(job, "words").region, oval = made(job, "oval").region;
  const auto inside = [&](double margin) { return subtract(set, grow(oval, -margin)).empty(); };
  CHECK(inside(5.95));
  CHECK_FALSE(inside(6.4));
  CHECK(bounds(set).centre().x == Approx(150).margin(0.1));
}

TEST_CASE("pair spacing belongs to the pair and survives other words") {
  Piece words = oracle::lettering("AVAV", "EB Garamond", "Bold", 20);
  const double before = bounds(outlines_of(words).region).width();
  std::get<Lettering>(words.what).pairs["AV"] = 10;
  CHECK(bounds(outlines_of(words).region).width() == Approx(before + 2 * 2).margin(0.01));  // twice 10 % of 20 mm
  std::get<Lettering>(words.what).words = "AVx";
  const double with = bounds(outlines_of(words).region).width();
  std::get<Lettering>(words.what).pairs.clear();
  CHECK(with - bounds(outlines_of(words).region).width() == Approx(2).margin(0.01));
}

TEST_CASE("single-line faces give lines to follow, or a width to carve") {
  REQUIRE(single_line_faces().size() >= 6);
  Piece words = oracle::lettering("Rue 12", "Single line roman", "Regular", 10);
  const Outlines lines = outlines_of(words);
  CHECK(lines.region.empty());
  CHECK(lines.lines.size() >= 5);
  Box box;
  for (const Line2& line : lines.lines) {
    for (const Point& p : line) box.add(p);
  }
  CHECK(box.height() == Approx(10).margin(0.6));
  std::get<Lettering>(words.what).stroke = 0.8;
  const Outlines wide = outlines_of(words);
  CHECK(wide.lines.empty());
  CHECK(bounds(wide.region).height() == Approx(box.height() + 0.8).margin(0.02));
  std::get<Lettering>(words.what).words = "Rué";
  CHECK(outlines_of(words).missing == std::vector<std::string>{"é"});
}

TEST_CASE("plaques have the areas that mathematics gives") {  // any handbook of mathematics
  const double pi = std::numbers::pi;
  PlainShape s{ShapeKind::Rectangle, 100, 60, 12};
  CHECK(area(region_of(s)) == Approx(6000 - (4 - pi) * 144).epsilon(1e-3));
  s.corner_form = Form::Scooped;
  CHECK(area(region_of(s)) == Approx(6000 - pi * 144).epsilon(1e-3));
  s.corner_form = Form::Clipped;
  CHECK(area(region_of(s)) == Approx(6000 - 2 * 144).epsilon(1e-4));
  s.corner_form = Form::Arched;
  CHECK(area(region_of(s)) < area(region_of({ShapeKind::Rectangle, 100, 60, 12})));
  PlainShape polygon{ShapeKind::Polygon, 80, 80};
  polygon.points = 6;
  CHECK(area(region_of(polygon)) == Approx(3 * std::sqrt(3.0) / 2 * 1600).epsilon(1e-4));
  PlainShape star{ShapeKind::Star, 80, 80};
  star.points = 5;
  star.inner = 0.381966;  // (3 − √5)/2: the star whose points are drawn by five straight lines
  CHECK(area(region_of(star)) == Approx(5 * 40 * 40 * 0.381966 * std::sin(pi / 5)).epsilon(1e-3));
  PlainShape arch{ShapeKind::ArchTop, 100, 80};
  arch.rise = 50;  // half a circle on top
  CHECK(area(region_of(arch)) == Approx(100 * 30 + pi * 2500 / 2).epsilon(1e-3));
  PlainShape ring{ShapeKind::Ellipse, 60, 60, 0, 5};
  CHECK(area(region_of(ring)) == Approx(pi * (900 - 625)).epsilon(1e-3));
  PlainShape line{ShapeKind::Line, 70, 10};
  CHECK(outlines_of({"l", "l", line, {0, 0}, 90}).lines.size() == 1);
  line.band = 2;
  CHECK(area(region_of(line)) == Approx(140).epsilon(1e-4));
  CHECK_THROWS_AS(region_of({ShapeKind::Star, 1e6, 5}), Problem);
}

TEST_CASE("grown pieces agree with GEOS buffers, corners round, sharp or flat") {
  initGEOS(quiet, quiet);
  PlainShape star{ShapeKind::Star, 80, 80};
  star.points = 5;
  const Job base = job_of({{"star", "Star", star, {100, 100}, 0}});
  const Ring ring = made(base, "star").region.islands[0].rings[0];
  GEOSCoordSequence* coords = GEOSCoordSeq_create(static_cast<unsigned>(ring.size() + 1), 2);
  for (std::size_t i = 0; i <= ring.size(); ++i)
    GEOSCoordSeq_setXY(coords, static_cast<unsigned>(i), ring[i % ring.size()].x, ring[i % ring.size()].y);
  GEOSGeometry* polygon = GEOSGeom_createPolygon(GEOSGeom_createLinearRing(coords), nullptr, 0);
  for (const double by : {-4.0, 3.0, 8.0}) {
    Job job = base;
    job.items.push_back({derived(Derived::How::Grow, {"star"}, [&](Derived& d) { d.distance = by; }), {}});
    GEOSGeometry* theirs = GEOSBuffer(polygon, by, 64);
    double area_of = 0;
    GEOSArea(theirs, &area_of);
    GEOSGeom_destroy(theirs);
    CHECK(area(made(job, "made").region) == Approx(area_of).epsilon(1e-3));
    std::get<Derived>(job.items[1].piece.what).corner = Corner::Sharp;
    if (by > 0) CHECK(area(made(job, "made").region) > area_of);
  }
  GEOSGeom_destroy(polygon);
  finishGEOS();
  // Three frames, each 4 mm farther out and 1 mm wide.
  Job frames = job_of({{"c", "C", PlainShape{ShapeKind::Ellipse, 40, 40}, {50, 50}, 0},
                       derived(Derived::How::Grow, {"c"}, [](Derived& d) {
                         d.distance = 4;
                         d.steps = 3;
                         d.band = 1;
                       })});
  double expected = 0;
  for (const double r : {24.0, 28.0, 32.0}) expected += std::numbers::pi * (r * r - (r - 1) * (r - 1));
  CHECK(area(made(frames, "made").region) == Approx(expected).epsilon(2e-3));
}

TEST_CASE("joined, taken away, overlapping, split, mirrored: areas add up, and all follow their sources") {
  const Piece a{"a", "A", PlainShape{ShapeKind::Rectangle, 40, 30}, {50, 50}, 0},
      b{"b", "B", PlainShape{ShapeKind::Ellipse, 30, 30}, {65, 60}, 0};
  const auto area_with = [&](const Piece& piece) { return area(made(job_of({a, b, piece}), "made").region); };
  using How = Derived::How;
  const double both = area_with(derived(How::Overlap, {"a", "b"}));
  CHECK(both > 100);
  CHECK(area_with(derived(How::Join, {"a", "b"})) ==
        Approx(1200 + area(made(job_of({b}), "b").region) - both).epsilon(1e-4));
  CHECK(area_with(derived(How::TakeAway, {"a", "b"})) == Approx(1200 - both).epsilon(1e-4));
  const auto split = [&](double share, bool side) {
    return area_with(derived(How::Split, {"a"}, [&](Derived& d) {
      d.angle = 90;
      d.share = share;
      d.first_side = side;
    }));
  };
  CHECK(split(0.25, true) + split(0.25, false) == Approx(1200).epsilon(1e-4));
  CHECK(std::min(split(0.25, true), split(0.25, false)) == Approx(300).epsilon(1e-3));
  Job job = job_of({{"l", "L", PlainShape{ShapeKind::ArchTop, 30, 50}, {80, 80}, 20}, derived(How::Mirror, {"l"})});
  job.items.push_back({{"twice", "Twice", Derived{How::Mirror, {"made"}}, {0, 0}, 0}, {}});
  const Region once = made(job, "made").region, twice = made(job, "twice").region, plain = made(job, "l").region;
  CHECK(area(subtract(plain, once)) > 50);
  CHECK(area(subtract(plain, twice)) + area(subtract(twice, plain)) < 0.2);  // mirrored twice is the art
  job.find("l")->piece.at = {90, 80};
  CHECK(bounds(made(job, "twice").region).left == Approx(bounds(twice).left + 10).margin(0.01));
}

TEST_CASE("repeated in rows, round a centre and along a line") {
  const Piece dot{"dot", "Dot", PlainShape{ShapeKind::Ellipse, 6, 6}, {20, 20}, 0};
  using How = Derived::How;
  const Region grid = made(job_of({dot, derived(How::Grid, {"dot"},
                                                [](Derived& d) {
                                                  d.columns = 4;
                                                  d.rows = 3;
                                                  d.step_x = 10;
                                                  d.step_y = 12;
                                                })}),
                           "made")
                          .region;
  CHECK(grid.islands.size() == 12);
  CHECK(bounds(grid).width() == Approx(36).margin(0.01));
  CHECK(bounds(grid).height() == Approx(30).margin(0.01));
  const Region round = made(job_of({dot, derived(How::Round, {"dot"},
                                                 [](Derived& d) {
                                                   d.count = 8;
                                                   d.radius = 30;
                                                 })}),
                            "made")
                           .region;
  REQUIRE(round.islands.size() == 8);
  for (const Island& i : round.islands) CHECK(distance(bounds(i).centre(), {20, -10}) == Approx(30).margin(0.02));
  PlainShape line{ShapeKind::Line, 100, 10};
  const auto along = [&](int count, double spacing) {
    return made(job_of({dot,
                        {"line", "Line", line, {100, 50}, 0},
                        derived(How::Along, {"dot", "line"},
                                [&](Derived& d) {
                                  d.count = count;
                                  d.distance = spacing;
                                })}),
                "made")
        .region;
  };
  CHECK(along(5, 0).islands.size() == 5);
  CHECK(bounds(along(5, 0)).width() == Approx(106).margin(0.02));
  CHECK(along(0, 20).islands.size() == 6);
}

TEST_CASE("the flag's published proportions lay out by one dimension") {  // published: US Executive Order 10834 (1959),
                                                                          // hoist 1
  const auto laid = [](double hoist) {
    std::vector<Piece> pieces;
    const double fly = 1.9 * hoist, stripe = hoist / 13;
    for (int i = 0; i < 7; ++i)
      pieces.push_back({"stripe-" + std::to_string(i),
                        "Stripe",
                        PlainShape{ShapeKind::Rectangle, fly, stripe},
                        {fly / 2, stripe / 2 + 2 * stripe * i},
                        0});
    PlainShape star{ShapeKind::Star, 0.0616 * hoist, 0.0616 * hoist};
    star.points = 5;
    star.inner = 0.381966;
    pieces.push_back({"star", "Star", star, {0.063 * hoist, hoist - 0.054 * hoist}, 0});
    pieces.push_back({"stars", "Stars", Derived{Derived::How::Grid, {"star"}}, {0, 0}, 0});
    auto& grid = std::get<Derived>(pieces.back().what);
    grid.columns = 6;
    grid.rows = 5;
    grid.step_x = 2 * 0.063 * hoist;
    grid.step_y = -2 * 0.054 * hoist;
    return job_of(std::move(pieces));
  };
  for (const double hoist : {130.0, 390.0}) {
    const Job job = laid(hoist);
    Region stripes;
    for (int i = 0; i < 7; ++i) stripes = unite(stripes, made(job, ("stripe-" + std::to_string(i)).c_str()).region);
    CHECK(area(stripes) == Approx(7.0 / 13 * 1.9 * hoist * hoist).epsilon(1e-4));
    const Region stars = made(job, "stars").region;
    CHECK(stars.islands.size() == 30);
    CHECK(bounds(stars).right < 0.76 * hoist);  // within the canton's fly
    CHECK(bounds(stars).bottom > hoist - 7.0 / 13 * hoist);
  }
}

TEST_CASE("pieces that make each other, or nothing, are said so") {
  Job job = job_of({{"a", "A", Derived{Derived::How::Grow, {"b"}}, {0, 0}, 0},
                    {"b", "B", Derived{Derived::How::Mirror, {"a"}}, {0, 0}, 0}});
  CHECK_THROWS_WITH(made(job, "a"), Catch::Contains("made from each other"));
  CHECK_THROWS_AS(made(job_of({{"a", "A", Derived{Derived::How::Grow, {"a"}}, {0, 0}, 0}}), "a"), Problem);
  CHECK_THROWS_WITH(made(job_of({{"a", "A", Derived{Derived::How::Join, {}}, {0, 0}, 0}}), "a"),
                    Catch::Contains("no other piece"));
}

TEST_CASE("a frozen piece stands where it stood and follows nothing") {
  Job job = job_of({{"a", "A", PlainShape{ShapeKind::Star, 50, 50}, {60, 60}, 0}, derived(Derived::How::Grow, {"a"})});
  const Outlines before = made(job, "made");
  Item& item = *job.find("made");
  item.piece.what = frozen(before, "made");
  item.piece.at = bounds(before.region).centre();
  job.items.erase(job.items.begin());
  const Region after = made(job, "made").region;
  CHECK(area(subtract(after, before.region)) + area(subtract(before.region, after)) < 0.05);
}

TEST_CASE("clean-up finds what is wrong, and its remedies mend it") {
  Drawing d = oracle::drawing("M0 0 L40 0 L40 30 L0 30 Z");
  const auto add = [&](const std::string& data, bool line = false) {
    Drawing::Part part = d.parts[0];
    part.id = "p" + std::to_string(d.parts.size());
    part.data = data;
    part.line = line;
    d.parts.edit().push_back(part);
  };
  add("M0 0 L40 0 L40 30 L0 30 Z");          // doubled
  add("M10 10 L20 10 L20 20 L10 20 Z");      // hidden
  add("M35 20 L70 20 L70 45 L35 45 Z");      // crosses the first
  add("M60 5 L60.5 5 L60.5 5.5 L60 5.5 Z");  // a speck
  add("M45 2 L55 2 L55 2.15 L45 2.15 Z");    // a hairline
  add("M600 0 L640 0 L640 30 L600 30 Z");    // far off
  add("M80 0 L100 0", true);
  add("M100.4 0 L100 20", true);
  add("M100 20.3 L80 0.2", true);
  std::string dense = "M";
  for (int i = 0; i < 900; ++i)
    dense += format_number(150 + 20 * std::cos(i * 2 * M_PI / 900), 4) + " " +
             format_number(20 + 20 * std::sin(i * 2 * M_PI / 900), 4) + (i == 0 ? "L" : " ");
  add(dense + "Z");
  Piece piece{"d", "D", d, {320, 40}, 0};
  const auto report = [&] { return clean_up_report(piece, {0, 0, 250, 120}, {}, mm); };
  const auto find = [&](const std::string& code) {
    for (const Finding& f : report()) {
      if (f.code == code) return std::optional<Finding>(f);
    }
    return std::optional<Finding>();
  };
  for (const char* code :
       {"doubled", "hidden", "off-board", "specks", "hairlines", "open-ends", "crossings", "needless-points"}) {
    INFO(code);
    const auto finding = find(code);
    REQUIRE(finding);
    CHECK(finding->text.size() > 15);
    CHECK_FALSE(finding->at.empty());
    Drawing mended = std::get<Drawing>(piece.what);
    finding->mends.front().apply(mended);
    piece.what = mended;
    CHECK_FALSE(find(code));
    piece.what = d;  // each by itself, from the original
  }
  Drawing all = d;
  for (int round = 0; round < 12 && !report().empty(); ++round) {
    const auto found = report();
    all = std::get<Drawing>(piece.what);
    found.front().mends.front().apply(all);
    piece.what = all;
  }
  CHECK(report().empty());
  // What is left: the two rectangles joined, the triangle closed from its lines, the disc with few points.
  const Region left = outlines_of(piece).region;
  CHECK(left.islands.size() == 3);
  CHECK(point_count(left) < 200);
}

TEST_CASE("fitness measures strokes, gaps and what a tip leaves") {
  const Region bars = unite(oracle::rectangle(0, 0, 60, 4), oracle::rectangle(0, 6.5, 60, 2));
  const MachineProfile machine;
  const Feeds feeds{2000, 500, 16000, 5};
  const Fitness f = fitness_of(bars, oracle::v_bit(60), feeds, machine);
  CHECK(f.widest == Approx(4).margin(1e-3));
  CHECK(f.thinnest == Approx(2).margin(0.01));
  CHECK(f.gap == Approx(2.5).margin(0.01));
  CHECK(f.deepest == Approx(2 / std::tan(std::numbers::pi / 6)).margin(1e-3));
  CHECK(f.parts == 2);
  CHECK(f.needed_scale == 1);
  CHECK(f.feed > 100);
  CHECK(f.feed <= f.feed_asked);
  const Fitness flat = fitness_of(bars, oracle::flat_bit(3), {}, machine);
  CHECK(flat.needed_scale == Approx(1.5).margin(0.01));  // a 2 mm stroke and a 3 mm bit
  CHECK(flat.unreached >= 119);                          // the thin bar, and a little in the other's corners
  CHECK(fitness_of(oracle::rectangle(0, 0, 60, 30), oracle::v_bit(60, 0, 12), feeds, machine).too_wide);
}

TEST_CASE("the middle by weight is the centroid") {  // any handbook of mathematics
  const Region triangle = clean({{{0, 0}, {30, 0}, {0, 60}}});
  CHECK(centroid(triangle).x == Approx(10).margin(1e-6));
  CHECK(centroid(triangle).y == Approx(20).margin(1e-6));
  const Region holed = subtract(oracle::rectangle(0, 0, 40, 20), oracle::rectangle(20, 0, 20, 20));
  CHECK(centroid(holed).x == Approx(10).margin(1e-6));
}

TEST_CASE(
    "narrower letters are as much narrower as told and as high as before; other words of the face stay as they are") {
  Lettering l;
  l.words = "HIM";
  l.face = {"DejaVu Sans", "Book"};
  l.cap_height = 40;
  const auto box = [&] { return bounds(outlines_of({"w", "W", l, {0, 0}, 0}).region); };
  const Box plain = box();
  for (const double share : {50.0, 80.0, 125.0, 300.0}) {
    l.letter_width = share;
    CHECK(box().width() == Approx(plain.width() * share / 100).epsilon(2e-3));
    CHECK(box().height() == Approx(plain.height()).epsilon(1e-4));
  }
  // Space between letters is added in full.
  l.letter_width = 50;
  l.letter_spacing = 25;  // of the cap height: 10 mm, twice
  CHECK(box().width() == Approx(plain.width() / 2 + 20).epsilon(2e-3));
  // Fitted to a width it is as wide as that, and higher.
  l.letter_spacing = 0;
  l.fit_width = true;
  l.width = plain.width();
  CHECK(box().width() == Approx(plain.width()).epsilon(1e-3));
  CHECK(box().height() == Approx(2 * plain.height()).epsilon(2e-3));
  l.letter_width = 5;
  CHECK_THROWS_AS(box(), Problem);
}
