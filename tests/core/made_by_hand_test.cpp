// Pieces made and changed by hand: lines drawn, plain shapes drawn, strays, groups, bevelled edges, borders.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "artwork/drawing/points.hpp"
#include "artwork/drawing/strays.hpp"
#include "artwork/made/by_hand.hpp"
#include "job/clip.hpp"
#include "job/edge_bevel.hpp"
#include "job/layout.hpp"
#include "made_pieces.hpp"
#include "planning/plan.hpp"
#include "rack/own_rack.hpp"

using namespace doyen;

// A trembling quarter circle comes out smooth: near the circle everywhere, in far fewer points than the hand gave.
TEST_CASE("a curve drawn by hand keeps its way and loses the trembling") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> tremble(-0.4, 0.4);
  HandStroke stroke;
  for (int i = 0; i <= 200; ++i) {
    const double a = i * 1.5707963 / 200;
    stroke.way.push_back(Point{std::cos(a), std::sin(a)} * (100 + tremble(random)));
  }
  const Path path = hand_path({stroke, {{stroke.way.back(), {0, 0}}}}, true, 2);
  CHECK(path.steps.size() < 30);
  CHECK(path.steps.back().kind == PathStep::Kind::Close);
  const Flat flat = flatten(path, 0.01, true);
  REQUIRE(flat.closed.size() == 1);
  CHECK(std::abs(signed_area(flat.closed[0])) == Approx(3.14159265 * 2500).epsilon(0.03));
  CHECK(flat.closed[0].size() > 20);
  for (const Point& p : flat.closed[0]) {
    const double out = length(p);
    if (p.x > 1 && p.y > 1) CHECK(std::abs(out - 100) < 2.6);
  }
}

TEST_CASE("a plain shape becomes a drawing with the same outline, wherever it lies") {
  using K = PlainShape::Kind;
  for (const K kind : {K::Rectangle, K::Ellipse, K::ArchTop, K::Polygon, K::Star, K::Ribbon, K::Line, K::Shield,
                       K::Heart, K::Bow, K::Arc}) {
    for (const double band : {0.0, 3.0}) {
      for (const auto form : {PlainShape::CornerForm::Round, PlainShape::CornerForm::Scooped}) {
        PlainShape s{kind, 90, 60};
        s.corner_radius = 12;
        s.corner_form = form;
        s.band = band;
        s.points = 5;
        Piece piece{"s", "S", s, {123.4, 56.7}, 31};
        const Outlines before = outlines_of(piece);
        draw_shape(piece);
        REQUIRE(std::holds_alternative<Drawing>(piece.what));
        const Outlines after = outlines_of(piece);
        INFO(static_cast<int>(kind) << " band " << band);
        CHECK(after.lines.size() == before.lines.size());
        const double off = area(subtract(before.region, after.region)) + area(subtract(after.region, before.region));
        CHECK(off < 1.0);  // mm²: under a hundredth along every side
        const Box a = bounds(before), b = bounds(after);
        CHECK(a.left == Approx(b.left).margin(0.02));
        CHECK(a.top == Approx(b.top).margin(0.02));
        CHECK_FALSE(points_on_board(piece).empty());
      }
    }
  }
}

TEST_CASE("a cut-out's bevelled edge follows its outline, and the cut makes room for it") {
  const Rack rack = load_shipped_rack();
  Job job;
  PlainShape s{PlainShape::Kind::Rectangle, 200, 100};
  s.corner_radius = 10;
  job.items.push_back({{"sign", "Sign", s, {300, 112}, 0}, {}});
  job.items[0].cut.kind = Treatment::Kind::CutOut;
  job.items[0].cut.bit = "flat-1/4in";
  CHECK(bevel_of(job, "sign") == nullptr);
  add_bevel(job, "sign", rack);
  const Item* edge = bevel_of(job, "sign");
  REQUIRE(edge != nullptr);
  CHECK(edge->cut.kind == Treatment::Kind::Bevel);
  add_bevel(job, "sign", rack);
  CHECK(job.items.size() == 2);  // one is enough
  std::get<PlainShape>(job.find("sign")->piece.what).width = 260;
  CHECK(bounds(job.outlines(*bevel_of(job, "sign"))).width() == Approx(260));
  const Plan with = plan(job, rack, machine_for(job));
  CHECK_FALSE(with.has_stop());
  // The piece that is left keeps its size: the cut runs outside of it by the bit's radius and by what the bevel takes.
  Box way;
  for (const Operation& operation : with.piece("sign")->cuts.operations) {
    for (const Pass& pass : operation.passes) {
      for (const auto& p : pass.points) way.add(Point{p.x, p.y});
    }
  }
  CHECK(way.width() >= 260 + 6.35 - 0.01);
  remove_bevel(job, "sign");
  CHECK(job.items.size() == 1);
  CHECK(bevel_of(job, "sign") == nullptr);
  // One drawn alike counts, too.
  Item own = job.items[0];
  own.piece.id = "own";
  own.cut.kind = Treatment::Kind::Bevel;
  own.cut.bit = "v60";
  job.items.push_back(own);
  CHECK(bevel_of(job, "sign") == job.find("own"));
}

TEST_CASE("groups hold together, through the file, copies and taking apart") {
  Job job;
  for (const char* id : {"a", "b", "c", "d"}) job.items.push_back({{id, id, PlainShape{}, {100, 100}, 0}, {}});
  group(job, {"a", "b"});
  CHECK(is_group(job, {"b", "a"}));
  CHECK_FALSE(is_group(job, {"a"}));
  CHECK_FALSE(is_group(job, {"a", "b", "c"}));
  const Job back = read_job(write_job(job), "job");
  CHECK(is_group(back, {"a", "b"}));
  // A copy of it is a group of its own.
  const std::vector<std::string> put = put_clip(job, clip_of(job, {"a", "b"}), {10, 0});
  CHECK(is_group(job, put));
  CHECK(is_group(job, {"a", "b"}));
  // Grouped anew with others, the old group is gone.
  group(job, {"b", "c", "d"});
  CHECK(is_group(job, {"b", "c", "d"}));
  CHECK(job.find("a")->group.empty());
  ungroup(job, {"c"});
  for (const char* id : {"a", "b", "c", "d"}) CHECK(job.find(id)->group.empty());
}

TEST_CASE("a border goes round the board while nobody moves it") {
  Job before;
  PlainShape s;
  s.from_edge = 15;
  before.items.push_back({{"border", "Border", s, {}, 0}, {}});
  Job job = before;
  follow_board(job, Job{});
  const auto& shape = std::get<PlainShape>(job.items[0].piece.what);
  CHECK(shape.width == Approx(job.blank.width - 30));
  CHECK(job.items[0].piece.at == job.blank.box().centre());
  const Job read = read_job(write_job(job), "job");
  CHECK(std::get<PlainShape>(read.items[0].piece.what).from_edge == 15.0);
  Job moved = job;
  moved.items[0].piece.at.x += 4;
  follow_board(moved, job);
  CHECK_FALSE(std::get<PlainShape>(moved.items[0].piece.what).from_edge.has_value());
  CHECK(moved.items[0].piece.at.x == job.items[0].piece.at.x + 4);
}

TEST_CASE("a small part far from all the rest is found, and nothing that belongs there") {
  const auto part = [](const std::string& data) {
    Drawing::Part p;
    p.data = data;
    return p;
  };
  Drawing d;
  std::vector<Drawing::Part> parts{part("M0 0 H100 V60 H0 Z"), part("M20 20 H40 V40 Z"), part("M104 50 h3 v3 z"),
                                   part("M50 70 h2 v2 z"), part("M400 300 h4 v1 z")};
  d.parts = parts;
  const Strays strays = strays_of(d);
  CHECK(strays.parts == std::vector<std::size_t>{4});
  CHECK(strays.largest == Approx(4));
  CHECK(strays.nearest == Approx(std::hypot(293, 228)).epsilon(0.02));  // from the rest's far corner
  // What is large, or has company that leads there, belongs; what was left out is not looked at.
  parts[4] = part("M400 300 h40 v30 h-40 z");
  d.parts = parts;
  CHECK(strays_of(d).parts.empty());
  parts[4] = part("M150 60 h4 v1 z");
  d.parts = parts;
  CHECK(strays_of(d).parts.empty());
  parts[4] = part("M400 300 h4 v1 z");
  parts[4].left_out = true;
  d.parts = parts;
  CHECK(strays_of(d).parts.empty());
  parts[4] = part("M nonsense");
  d.parts = parts;
  CHECK(strays_of(d).parts.empty());
  d.parts = std::vector<Drawing::Part>{};
  CHECK(strays_of(d).parts.empty());
}
