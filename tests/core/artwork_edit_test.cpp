// Points, bridges, thickening, proportions, lining up, blanks that are no rectangle: closed forms, GEOS, published
// figures.
#include <geos_c.h>

#include <catch2/catch.hpp>
#include <numbers>

#include "artwork/drawing/clean_up.hpp"
#include "artwork/drawing/points.hpp"
#include "job/layout.hpp"
#include "job/size_sign.hpp"
#include "json_reading.hpp"
#include "machine/profile.hpp"
#include "made_pieces.hpp"
#include "oracle.hpp"
#include "planning/plan.hpp"
#include "planning/sums.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"

using namespace doyen;

namespace {

using ShapeKind = PlainShape::Kind;

Piece drawn(const std::string& data, Point at = {100, 100}) { return {"d", "D", oracle::drawing(data), at, 0}; }

Box box(const Job& job, const char* id) { return bounds(made(job, id)); }

const BoardPoint& point_at(const std::vector<BoardPoint>& points, Point at) {
  const auto it = std::min_element(points.begin(), points.end(), [&](const BoardPoint& a, const BoardPoint& b) {
    return distance(a.point.at, at) < distance(b.point.at, at);
  });
  REQUIRE(it != points.end());
  REQUIRE(distance(it->point.at, at) < 0.01);
  return *it;
}

// A 40 × 20 rectangle whose corners lie at (80, 90) and (120, 110) on the board.
const char* const kSlab = "M0 0 L40 0 L40 20 L0 20 Z";

}  // namespace

TEST_CASE("a moved point moves nothing else, whatever it does to the drawing's box") {
  Piece piece = drawn(kSlab);
  REQUIRE(points_on_board(piece).size() == 4);
  const PointPlace corner = point_at(points_on_board(piece), {120, 110}).place;
  REQUIRE(move_point(piece, corner, PointPart::Itself, {150, 130}));
  const auto after = points_on_board(piece);
  for (const Point p : {Point{80, 90}, Point{120, 90}, Point{80, 110}, Point{150, 130}}) point_at(after, p);
  // The shoelace formula for these four corners.
  CHECK(area(outlines_of(piece).region) == Approx(800 + 30 * 20 / 2.0 + 40 * 20 / 2.0).margin(0.01));
  // The job keeps the drawing as it came.
  const auto& d = std::get<Drawing>(piece.what);
  REQUIRE(d.original.size() == 1);
  CHECK(d.original[0].data == kSlab);
  CHECK_FALSE(move_point(piece, {0, 0, 9}, PointPart::Itself, {0, 0}));
  CHECK_FALSE(move_point(piece, {3, 0, 0}, PointPart::Itself, {0, 0}));
  CHECK_FALSE(move_point(piece, corner, PointPart::Itself, {NAN, 0}));
}

TEST_CASE("points are found and moved on turned, mirrored and scaled drawings, too") {
  Piece piece = drawn(kSlab);
  piece.turn = 90;
  auto& d = std::get<Drawing>(piece.what);
  d.scale = 2;
  d.mirrored = true;
  const Box before = bounds(outlines_of(piece));
  CHECK(before.width() == Approx(40).margin(1e-3));
  const PointPlace top = point_at(points_on_board(piece), {before.right, before.top}).place;
  REQUIRE(move_point(piece, top, PointPart::Itself, {before.right + 7, before.top + 5}));
  const Box after = bounds(outlines_of(piece));
  CHECK(after.right == Approx(before.right + 7).margin(2e-3));
  CHECK(after.top == Approx(before.top + 5).margin(2e-3));
  CHECK(after.left == Approx(before.left).margin(2e-3));
  CHECK(after.bottom == Approx(before.bottom).margin(2e-3));
}

TEST_CASE("adding a point keeps the outline, removing it brings the old one back") {
  Piece piece = drawn("M0 0 C20 -30 60 -30 80 0 L80 40 L0 40 Z");
  const double before = area(outlines_of(piece).region);
  const Box was = bounds(outlines_of(piece));
  const auto place = add_point(piece, {was.centre().x, was.top}, 3);  // on the curve's crown
  REQUIRE(place);
  CHECK(points_on_board(piece).size() == 5);
  CHECK(area(outlines_of(piece).region) == Approx(before).epsilon(1e-4));  // de Casteljau's division
  CHECK(bounds(outlines_of(piece)).top == Approx(was.top).margin(0.01));
  CHECK(point_at(points_on_board(piece), {was.centre().x, was.top}).point.smooth());
  // Nothing near: nothing happens.
  Piece other = piece;
  CHECK_FALSE(add_point(other, {was.centre().x, was.centre().y}, 1));
  CHECK(other == piece);
  REQUIRE(remove_point(piece, *place));
  CHECK(points_on_board(piece).size() == 4);
  CHECK(bounds(outlines_of(piece)).bottom == Approx(was.bottom).margin(2e-3));
}

TEST_CASE("a corner is made smooth and sharp again; control points turn together while smooth") {
  Piece piece = drawn(kSlab);
  const PointPlace corner = point_at(points_on_board(piece), {120, 110}).place;
  REQUIRE(smooth_point(piece, corner));
  const BoardPoint smooth = point_at(points_on_board(piece), {120, 110});
  CHECK(smooth.point.smooth());
  CHECK(area(outlines_of(piece).region) > 800);
  REQUIRE(move_point(piece, corner, PointPart::Out, *smooth.point.out + Point{4, 3}));
  CHECK(point_at(points_on_board(piece), {120, 110}).point.smooth());
  REQUIRE(corner_point(piece, corner));
  CHECK_FALSE(point_at(points_on_board(piece), {120, 110}).point.smooth());
  // A triangle that loses a point goes; the drawing's last outline stays.
  Piece triangle = drawn("M0 0 L10 0 L5 8 Z M20 0 L30 0 L25 8 Z");
  REQUIRE(remove_point(triangle, {0, 0, 0}));
  CHECK(outlines_of(triangle).region.islands.size() == 1);
  REQUIRE(remove_point(triangle, {0, 0, 0}));
  CHECK(outlines_of(triangle).region.islands.size() == 1);
}

TEST_CASE("contours and paths are two forms of one thing") {
  const std::string data = "M0 0 L40 0 C50 10 50 20 40 30 L0 30 Z M10 10 L20 10 L15 20 Z M60 0 L70 5 L80 0";
  const auto contours = contours_of(parse_path(data));
  REQUIRE(contours.size() == 3);
  CHECK(contours[0].closed);
  CHECK_FALSE(contours[2].closed);
  const Flat a = flatten(parse_path(data), 0.01, true), b = flatten(path_of(contours), 0.01, true);
  REQUIRE(a.closed.size() == b.closed.size());
  for (std::size_t i = 0; i < a.closed.size(); ++i)
    CHECK(signed_area(a.closed[i]) == Approx(signed_area(b.closed[i])).margin(1e-9));
}

TEST_CASE("linked words are one part, by bridges of the width asked for, the shortest there are") {
  Job job = job_of({oracle::lettering("Physic i", "EB Garamond", "Bold", 40)});
  job.items[0].piece.at = {150, 100};
  const std::size_t parts = made(job, "words").region.islands.size();
  REQUIRE(parts >= 8);  // letters and two dots
  Derived link;
  link.how = Derived::How::Link;
  link.from = {"words"};
  link.bridge = 3;
  job.items.push_back({{"one", "One", link, {0, 0}, 0}, {}});
  const Outlines one = made(job, "one");
  CHECK(one.region.islands.size() == 1);
  CHECK(one.bridges.size() == parts - 1);  // a tree has one edge fewer than points
  // Nothing of the letters is lost, and what came is no more than the bridges with half a width at both ends.
  CHECK(area(subtract(made(job, "words").region, one.region)) < 1e-3);
  double most = 0;
  for (const Derived::Bridge& b : one.bridges) most += 3 * (distance(b.from, b.to) + 3);
  CHECK(area(one.region) - area(made(job, "words").region) <= most + 0.01);
  // Pulled aside by hand it stays where it was put, and what would fall apart is linked anew.
  std::vector<Derived::Bridge> moved = one.bridges;
  moved[0] = {moved[0].from + Point{0, 60}, moved[0].to + Point{0, 60}};
  set_bridges(job.find("one")->piece, moved, job.source());
  const Outlines again = made(job, "one");
  REQUIRE_FALSE(again.bridges.empty());
  CHECK(distance(again.bridges[0].from, moved[0].from) < 1e-3);
  CHECK(again.region.islands.size() == 1);
  // It follows its words, bridges and all, also when it stands turned and elsewhere.
  Piece& piece = job.find("one")->piece;
  piece.at = {30, 20};
  piece.turn = 30;
  const Outlines turned = made(job, "one");
  set_bridges(piece, turned.bridges, job.source());
  CHECK(distance(made(job, "one").bridges[1].to, turned.bridges[1].to) < 0.01);
  CHECK_THROWS_AS(outlines_of({"l", "L", link, {0, 0}, 0}), Problem);
}

TEST_CASE("thickened strokes are wider by twice as much, and the job file keeps it") {
  Piece words = oracle::lettering("I", "Cabin", "Regular", 30);
  const Box before = bounds(outlines_of(words));
  std::get<Lettering>(words.what).thicken = 0.4;
  const Box after = bounds(outlines_of(words));
  CHECK(after.width() == Approx(before.width() + 0.8).margin(1e-3));
  Piece bar = drawn("M0 0 L30 0 L30 1 L0 1 Z");
  std::get<Drawing>(bar.what).thicken = 0.25;
  CHECK(bounds(outlines_of(bar)).height() == Approx(1.5).margin(1e-3));
  std::get<Drawing>(bar.what).original = std::get<Drawing>(bar.what).parts;
  Job job = job_of({words, bar});
  const Job read = read_job(write_job(job), "job");
  CHECK(read.items[0].piece == job.items[0].piece);
  CHECK(read.items[1].piece == job.items[1].piece);
}

// Executive Order 10834 (United States, 1959): hoist 1; fly 1.9; union's hoist 0.5385, fly 0.76; stripe 0.0769.
TEST_CASE("a layout stated in proportions follows its one dimension") {
  PlainShape cloth{ShapeKind::Rectangle, 190, 100}, canton{ShapeKind::Rectangle, 0.76, 0.5385},
      stripe{ShapeKind::Rectangle, 1.9, 0.0769};
  canton.shares_of = stripe.shares_of = "cloth";
  Job job = job_of({{"cloth", "Cloth", cloth, {200, 150}, 0},
                    {"canton", "Union", canton, {0.38, 1 - 0.5385 / 2}, 0},
                    {"stripe", "Stripe", stripe, {0.95, 0.0769 / 2}, 0}});
  for (const double hoist : {100.0, 260.0}) {
    auto& base = std::get<PlainShape>(job.find("cloth")->piece.what);
    base.height = hoist;
    base.width = 1.9 * hoist;
    const Box all = box(job, "cloth"), part = box(job, "canton");
    CHECK(part.width() == Approx(0.76 * hoist).margin(1e-3));
    CHECK(part.height() == Approx(0.5385 * hoist).margin(1e-3));
    CHECK(part.left == Approx(all.left).margin(1e-3));
    CHECK(part.top == Approx(all.top).margin(1e-3));
    CHECK(13 * box(job, "stripe").height() == Approx(hoist).epsilon(1e-3));
    CHECK(box(job, "stripe").bottom == Approx(all.bottom).margin(1e-3));
  }
  // Back into lengths and into shares again it lies where it lay.
  const Box before = box(job, "canton");
  set_shares(job.find("canton")->piece, "", job.source());
  CHECK(std::get<PlainShape>(job.find("canton")->piece.what).width == Approx(0.76 * 260));
  CHECK(box(job, "canton").left == Approx(before.left).margin(1e-3));
  set_shares(job.find("canton")->piece, "cloth", job.source());
  CHECK(std::get<PlainShape>(job.find("canton")->piece.what).height == Approx(0.5385).margin(1e-5));
  job.shift("canton", {5, 7});
  CHECK(box(job, "canton").left == Approx(before.left + 5).margin(1e-3));
  CHECK(box(job, "canton").top == Approx(before.top + 7).margin(1e-3));
  CHECK(read_job(write_job(job), "job").items[1].piece == job.items[1].piece);
  CHECK_THROWS_WITH(set_shares(job.find("cloth")->piece, "canton", job.source()),
                    Catch::Contains("made from each other"));
}

TEST_CASE("pieces made from made pieces are made once each, and counted before they are many") {
  // Each joined from the one before it, twice: 2^38 ways lead to the first.
  std::vector<Piece> chain{drawn(kSlab)};
  for (int i = 1; i < 39; ++i) {
    Derived twice;
    twice.how = Derived::How::Join;
    twice.from = {chain.back().id, chain.back().id};
    chain.push_back({"d" + std::to_string(i), "D", twice, {0, 0}, 0});
  }
  const Job job = job_of(chain);
  CHECK(area(made(job, "d38").region) == Approx(800).epsilon(1e-3));
  // A grid of a grid of a grid would be eight thousand million rectangles.
  Derived grid;
  grid.how = Derived::How::Grid;
  grid.columns = 50;
  grid.rows = 40;
  grid.step_x = grid.step_y = 50;
  std::vector<Piece> grids{drawn(kSlab)};
  for (int i = 1; i < 4; ++i) {
    grid.from = {grids.back().id};
    grids.push_back({"g" + std::to_string(i), "G", grid, {0, 0}, 0});
  }
  const Job many = job_of(grids);
  CHECK(made(many, "g1").region.islands.size() == 2000);
  CHECK_THROWS_WITH(made(many, "g2"), Catch::Contains("600,000 points"));
  CHECK_THROWS_WITH(made(many, "g3"), Catch::Contains("600,000 points"));
}

TEST_CASE("boards may be round, oval or an outline") {
  Blank b;
  b.width = 300;
  b.height = 200;
  b.form = BlankForm::Oval;
  CHECK(area(region_of(b)) == Approx(std::numbers::pi * 150 * 100).epsilon(1e-4));
  b.readings = {20};
  const Sum weight = weight_sum(b, {});  // cedar by the table, on the oval's own face
  b.form = BlankForm::Rectangle;
  CHECK(weight.result != weight_sum(b, {}).result);
  b.form = BlankForm::Outline;
  b.edge = "M0 0 L3 0 L3 1 L0 1 Z M1 .2 L2 .2 L2 .4 Z";
  CHECK(bounds(region_of(b)).width() == Approx(300));
  CHECK(bounds(region_of(b)).height() == Approx(200));
  Job job;
  job.blank = b;
  CHECK(read_job(write_job(job), "job").blank == b);
  Json j = parse_json(write_job(job), "job");
  j["blank"]["edge"] = "M0 0 nonsense";
  CHECK_THROWS_WITH(read_job(j.dump(), "job"), Catch::Contains("edge"));
  // What would run past the oval's edge is said, though it lies within its box.
  job.blank.form = BlankForm::Oval;
  job.items = {{{"corner", "Corner", PlainShape{ShapeKind::Rectangle, 40, 40}, {30, 30}, 0}, {}}};
  job.items[0].cut.kind = Treatment::Kind::Incise;
  job.items[0].cut.bit = "v60";
  const auto codes = [&] {
    std::string all;
    for (const Verdict& v : plan(job, load_rack(), machine_for(job)).verdicts) all += v.code + " ";
    return all;
  };
  CHECK(codes().find("outside-board") != std::string::npos);
  job.items[0].piece.at = {150, 100};
  CHECK(codes().find("outside-board") == std::string::npos);
  job.items[0].cut.kind = Treatment::Kind::CutOut;
  job.items[0].cut.bit = "flat-1/4in";
  job.items[0].piece.at = {30, 30};
  CHECK(codes().find("outside-board") != std::string::npos);
}

TEST_CASE("the smallest box round a piece is GEOS's minimum rotated rectangle") {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> place(0, 100);
  initGEOS(quiet, quiet);
  for (int round = 0; round < 40; ++round) {
    Ring ring;
    std::string text = "MULTIPOINT(";
    Outlines o;
    Line2 line;
    for (int i = 0; i < 12; ++i) {
      line.push_back({place(random), place(random) * 0.4});
      text += (i == 0 ? "" : ",") + format_number(line.back().x, 9) + " " + format_number(line.back().y, 9);
    }
    o.lines = {line};
    const SmallestBox best = smallest_box(o);
    GEOSGeometry* points = GEOSGeomFromWKT((text + ")").c_str());
    GEOSGeometry* rectangle = GEOSMinimumRotatedRectangle(points);
    double wanted = 0;
    GEOSArea(rectangle, &wanted);
    GEOSGeom_destroy(points);
    GEOSGeom_destroy(rectangle);
    // GEOS takes the least width, not always the least area: ours is never larger.
    CHECK(best.width * best.height <= wanted * (1 + 1e-6));
    Box turned;
    for (const Point& p : line) turned.add(Transform::turn(best.turn).apply(p));
    CHECK(turned.width() == Approx(best.width).margin(1e-6));
    CHECK(turned.height() == Approx(best.height).margin(1e-6));
  }
  finishGEOS();
}

TEST_CASE("a slanting cut-out is told how to need less wood, and the remedy does it") {
  Job job = job_of({{"plank", "Plank", PlainShape{ShapeKind::Rectangle, 300, 60}, {300, 150}, 30},
                    {"line", "Line", PlainShape{ShapeKind::Rectangle, 200, 4}, {300, 150}, 30}});
  job.blank.width = 700;
  job.blank.height = 300;
  job.items[0].cut.kind = Treatment::Kind::CutOut;
  job.items[0].cut.bit = "flat-1/4in";
  job.items[1].cut.kind = Treatment::Kind::Incise;
  const auto find = [&] {
    for (const Verdict& v : plan(job, load_rack(), machine_for(job)).verdicts) {
      if (v.code == "smaller-blank") return std::optional<Verdict>(v);
    }
    return std::optional<Verdict>();
  };
  const auto verdict = find();
  REQUIRE(verdict);
  verdict->remedies.front().apply(job);
  CHECK_FALSE(find());
  CHECK(job.blank.width == Approx(300 + 2 * job.blank.margin).margin(0.01));
  CHECK(job.blank.height == Approx(60 + 2 * job.blank.margin).margin(0.01));
  CHECK(box(job, "plank").left == Approx(job.blank.margin).margin(0.01));
  // What lay on it still does.
  CHECK(box(job, "line").centre().x == Approx(box(job, "plank").centre().x).margin(0.01));
  CHECK(box(job, "line").height() == Approx(4).margin(0.01));
}

TEST_CASE("pieces line up, stand at equal gaps, and grow together") {
  Job job = job_of({{"a", "A", PlainShape{ShapeKind::Rectangle, 20, 10}, {50, 50}, 0},
                    {"b", "B", PlainShape{ShapeKind::Rectangle, 40, 10}, {160, 61}, 0},
                    {"c", "C", PlainShape{ShapeKind::Rectangle, 10, 30}, {105, 20}, 0}});
  const std::vector<std::string> all{"a", "b", "c"};
  line_up(job, all, LineUp::Front);
  CHECK(box(job, "b").bottom == Approx(45));
  CHECK(box(job, "c").bottom == Approx(45));
  line_up(job, all, LineUp::MiddleAcross);
  CHECK(box(job, "c").centre().y == Approx(50));
  space_out(job, all, true, std::nullopt);  // from 40 to 180 with 70 filled: two gaps of 35
  CHECK(box(job, "c").left - box(job, "a").right == Approx(35));
  CHECK(box(job, "b").left - box(job, "c").right == Approx(35));
  CHECK(box(job, "b").right == Approx(180));
  space_out(job, all, true, 5.0);
  CHECK(box(job, "c").left == Approx(65));
  CHECK(box(job, "b").left == Approx(80));
  scale_layout(job, all, 2, {40, 45});
  CHECK(box(job, "a").left == Approx(40));
  CHECK(box(job, "b").left == Approx(120));
  CHECK(box(job, "b").width() == Approx(80));
}

TEST_CASE("chosen pieces are turned as one about a point; what hangs on another comes along once") {
  Job job = job_of({{"a", "A", PlainShape{ShapeKind::Rectangle, 20, 10}, {50, 50}, 0},
                    {"b", "B", PlainShape{ShapeKind::Rectangle, 40, 10}, {160, 61}, 30}});
  Derived grown;
  grown.from = {"a"};
  job.items.push_back({{"g", "G", grown, {0, 0}, 0}, {}});
  const std::vector<std::string> all{"a", "b", "g"};
  CHECK(on_their_own(job, all) == std::vector<std::string>{"a", "b"});
  const Box before = box(job, "g");
  turn_chosen(job, all, 90, {100, 50});
  // A quarter turn to the left: (x, y) from the middle becomes (-y, x).
  CHECK(job.find("a")->piece.at.x == Approx(100));
  CHECK(job.find("a")->piece.at.y == Approx(0));
  CHECK(job.find("b")->piece.at.x == Approx(89));
  CHECK(job.find("b")->piece.at.y == Approx(110));
  CHECK(job.find("b")->piece.turn == Approx(120));
  CHECK(box(job, "g").width() == Approx(before.height()));
  CHECK(box(job, "g").centre().x == Approx(100));
  shift_chosen(job, all, {5, 7});
  CHECK(box(job, "g").centre().x == Approx(105));
  CHECK(box(job, "g").centre().y == Approx(7));
  // The grown one alone hangs on what is not chosen.
  CHECK_THROWS_WITH(turn_chosen(job, {"g", "b"}, 10, {}), Catch::Contains("“G” hangs on a piece that is not chosen"));
  CHECK(job.find("b")->piece.turn == Approx(120));
}

TEST_CASE("equal margins fill the board with a shape and fit a drawing into it") {
  Job job = job_of({{"a", "A", PlainShape{ShapeKind::Rectangle, 20, 10}, {50, 50}, 0}, drawn(kSlab)});
  job.blank.width = 400;
  job.blank.height = 300;
  fill_board(job, "a", 15);
  CHECK(box(job, "a").left == Approx(15));
  CHECK(box(job, "a").top == Approx(285));
  fill_board(job, "d", 15);  // two to one: the width rules
  CHECK(box(job, "d").left == Approx(15).margin(0.01));
  CHECK(box(job, "d").height() == Approx(185).margin(0.01));
  CHECK(box(job, "d").centre().y == Approx(150).margin(0.01));
}

TEST_CASE("a layout that meets a clamp is shifted as it stands, or turned half round") {
  Job job = job_of({{"a", "A", PlainShape{ShapeKind::Rectangle, 60, 40}, {60, 100}, 0},
                    {"b", "B", PlainShape{ShapeKind::Rectangle, 60, 40}, {160, 100}, 0}});
  job.blank.width = 400;
  job.blank.height = 200;
  job.blank.keep_outs = {{KeepOut::Kind::Clamp, 40, 100, 30, 30}};
  for (Item& item : job.items) item.cut.kind = Treatment::Kind::Incise;
  const auto first = [&](const char* label) {
    for (const Verdict& v : plan(job, load_rack(), machine_for(job)).verdicts) {
      for (const Remedy& r : v.remedies) {
        if (v.code == "in-keep-out" && r.label.find(label) != std::string::npos) return std::optional<Remedy>(r);
      }
    }
    return std::optional<Remedy>();
  };
  const auto shift = first("the whole layout ");
  REQUIRE(shift);
  const double apart = box(job, "b").left - box(job, "a").left;
  shift->apply(job);
  CHECK(box(job, "b").left - box(job, "a").left == Approx(apart));
  CHECK_FALSE(first("whole layout"));
  // No room beside it, but turned half round it is clear: the clamp stands in the notch.
  Job tight = job_of({{"long", "Long", PlainShape{ShapeKind::Rectangle, 380, 20}, {200, 20}, 0},
                      {"end", "End", PlainShape{ShapeKind::Rectangle, 20, 170}, {20, 105}, 0}});
  tight.blank = job.blank;
  tight.blank.keep_outs = {{KeepOut::Kind::Clamp, 20, 120, 24, 40}};
  for (Item& item : tight.items) item.cut.kind = Treatment::Kind::Incise;
  job = tight;
  const auto turn = first("half round");
  REQUIRE(turn);
  turn->apply(job);
  CHECK(box(job, "end").centre().x > 300);
  CHECK_FALSE(first("half round"));
}

TEST_CASE("outlines nested wrongly and doubled as holes are found and mended") {
  const auto code = [](const Piece& piece, const char* wanted) {
    for (const Finding& f :
         clean_up_report(piece, {0, 0, 400, 300}, {}, [](double v) { return format_number(v, 2); })) {
      if (f.code == wanted) return std::optional<Finding>(f);
    }
    return std::optional<Finding>();
  };
  // Both run the same way: non-zero fills the hole.
  Piece o = drawn("M0 0 L40 0 L40 40 L0 40 Z M10 10 L30 10 L30 30 L10 30 Z");
  CHECK(area(outlines_of(o).region) == Approx(1600).margin(0.1));
  const auto nested = code(o, "nesting");
  REQUIRE(nested);
  CHECK(distance(nested->at.front(), {100, 100}) < 0.1);
  edit_parts(o, nested->mends.front().apply);
  CHECK(area(outlines_of(o).region) == Approx(1200).margin(0.1));
  CHECK_FALSE(code(o, "nesting"));
  CHECK_FALSE(code(drawn("M0 0 L40 0 L40 40 L0 40 Z M10 10 L10 30 L30 30 L30 10 Z"), "nesting"));
  // Ink and paper as two parts: the inner one becomes a hole.
  Piece two = drawn(kSlab);
  auto& d = std::get<Drawing>(two.what);
  d.parts.edit().push_back(d.parts[0]);
  d.parts.edit()[1].data = "M10 5 L30 5 L30 15 L10 15 Z";
  const auto hidden = code(two, "hidden");
  REQUIRE(hidden);
  REQUIRE(hidden->mends.size() == 2);
  edit_parts(two, hidden->mends[1].apply);
  CHECK(area(outlines_of(two).region) == Approx(800 - 200).margin(0.1));
}

TEST_CASE("the whole sign sized by one length keeps its shares, and its depths where that is asked") {
  Job job;
  job.blank.width = 300;
  job.blank.height = 200;
  job.blank.readings = {30};
  job.panels.across = {150};
  const auto add = [&](const char* id, const decltype(Piece::what)& what, Point at, Treatment::Kind kind,
                       double depth) {
    Item item;
    item.piece = {id, id, what, at, 0};
    item.cut.kind = kind;
    item.cut.depth = depth;
    item.cut.bit = "v60";
    job.items.push_back(item);
  };
  add("floor", PlainShape{PlainShape::Kind::Rectangle, 80, 60}, {60, 70}, Treatment::Kind::Recess, 3);
  add("dot", PlainShape{PlainShape::Kind::Ellipse, 10, 10}, {150, 100}, Treatment::Kind::Line, 1);
  add("dots", Derived{Derived::How::Grid, {"dot"}}, {0, 0}, Treatment::Kind::Incise, 1);
  auto& grid = std::get<Derived>(job.items.back().piece.what);
  grid.columns = 3;
  grid.rows = 2;
  grid.step_x = 20;
  grid.step_y = 25;
  job.items.back().cut.incise.floor_limit = 2;
  add("hole", PlainShape{PlainShape::Kind::Ellipse, 6, 6}, {280, 20}, Treatment::Kind::Drill, 31);
  Lettering words;
  words.words = "Rue";
  words.face = {"EB Garamond", "Regular"};
  words.cap_height = 20;
  add("words", words, {200, 150}, Treatment::Kind::Incise, 1);
  for (const bool depths : {false, true}) {
    Job twice = job;
    size_sign(twice, 2.5, depths);
    CHECK(twice.blank.width == Approx(750));
    CHECK(twice.panels.across.front() == Approx(375));
    for (const Item& item : job.items) {  // every outline, by points: as it was, times the factor about the corner
      const Outlines was = job.outlines(item), now = twice.outlines(*twice.find(item.piece.id));
      INFO(item.piece.id);
      const Region expected = transformed(was.region, Transform{2.5, 0, 0, 2.5, 0, 0});
      CHECK(area(subtract(expected, grow(now.region, 0.02))) == Approx(0).margin(0.01));
      CHECK(area(subtract(now.region, grow(expected, 0.02))) == Approx(0).margin(0.01));
    }
    CHECK(twice.find("floor")->cut.depth == Approx(depths ? 7.5 : 3));
    CHECK(*twice.find("dots")->cut.incise.floor_limit == Approx(depths ? 5 : 2));
    CHECK(twice.find("hole")->cut.depth == 31);  // through the same board
    // There and back again.
    size_sign(twice, 1 / 2.5, depths);
    CHECK(twice.blank.height == Approx(200));
    CHECK(twice.find("floor")->cut.depth == Approx(3));
  }
  Job same = job;
  size_sign(same, 0, true);
  CHECK(same == job);
}

TEST_CASE("a drawing is stretched in height alone, along its own axes, and kept so") {
  Job job;
  Item item;
  Drawing d = oracle::drawing("M0 0 L40 0 L40 30 L20 12 L0 30 Z");
  item.piece = {"a", "a", d, {100, 80}, 0};
  job.items.push_back(item);
  for (const double turn : {0.0, 35.0, 90.0}) {
    job.items.front().piece.turn = turn;
    std::get<Drawing>(job.items.front().piece.what).tall = 1;
    const Region was = job.outlines(job.items.front()).region;
    std::get<Drawing>(job.items.front().piece.what).tall = 1.6;
    const Region now = job.outlines(job.items.front()).region;
    // By hand: turned back about its place, stretched there, and turned again.
    const Region expected = transformed(was, Transform::move(-100, -80)
                                                 .then(Transform::turn(-turn))
                                                 .then(Transform::scale(1, 1.6))
                                                 .then(Transform::turn(turn))
                                                 .then(Transform::move(100, 80)));
    INFO(turn);
    CHECK(area(now) == Approx(1.6 * area(was)).epsilon(1e-4));
    CHECK(area(subtract(now, grow(expected, 0.01))) == Approx(0).margin(1e-3));
    CHECK(area(subtract(expected, grow(now, 0.01))) == Approx(0).margin(1e-3));
  }
  CHECK(read_job(write_job(job), "job") == job);
  // Sized as a whole it stays so; clean-up's joining keeps it where it is.
  size_piece(job.items.front().piece, 2, 2);
  CHECK(std::get<Drawing>(job.items.front().piece.what).tall == Approx(1.6));
}
