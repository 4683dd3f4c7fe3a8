// The carved picture, lines that the bit follows, hatching, strokes: light, wood and closed forms.
#include <catch2/catch.hpp>
#include <numbers>

#include "geometry/polyline.hpp"
#include "oracle.hpp"
#include "planning/outputs.hpp"
#include "relief/carve.hpp"
#include "relief/picture.hpp"
#include "stock/species.hpp"
#include "treatments/piece_cuts.hpp"

using namespace doyen;

namespace {

double lightness(std::uint32_t argb) {
  return 0.299 * ((argb >> 16) & 255) + 0.587 * ((argb >> 8) & 255) + 0.114 * (argb & 255);
}

// Mean lightness of a box of pixels.
double mean(const Picture& p, std::size_t x0, std::size_t y0, std::size_t x1, std::size_t y1) {
  double sum = 0;
  for (std::size_t y = y0; y < y1; ++y) {
    for (std::size_t x = x0; x < x1; ++x) sum += lightness(p.at(x, y));
  }
  return sum / static_cast<double>((x1 - x0) * (y1 - y0));
}

Blank maple() {
  Blank b;
  b.width = 60;
  b.height = 40;
  b.readings = {18};
  b.species = "sugar-maple";
  return b;
}

WoodLook look_at(const Blank& blank) {
  WoodLook look = wood_look(blank);
  look.board = blank.box();
  return look;
}

Bit bit_of_kind(BitKind kind, double diameter, double angle = 0, double tip = 0) {
  Bit bit = oracle::flat_bit(diameter);
  bit.kind = kind;
  bit.angle = angle;
  bit.tip = tip;
  return bit;
}

PieceCuts followed(const Bit& bit, double depth, const Outlines& outlines) {
  Treatment t;
  t.kind = Treatment::Kind::Line;
  t.bit = bit.id;
  t.depth = depth;
  return cut_piece("line", outlines, t, maple(), Rack{{bit}});
}

double area_under_face(const HeightField& field, double at_x) {
  const std::size_t c = field.columns_in(at_x - field.cell() / 2, at_x + field.cell() / 2).begin;
  double sum = 0;
  for (std::size_t r = 0; r < field.rows(); ++r) sum -= field.at(c, r);
  return sum * field.cell();
}

}  // namespace

TEST_CASE("light comes from the upper left: a groove's two walls differ, and it reads as sunk") {
  const Blank blank = maple();
  HeightField field(blank.box(), 0.1);
  field.clear();
  carve(field, {{{{10, 20, -4}, {50, 20, -4}}}}, oracle::v_bit(90));  // along x: walls face front and back
  const Picture p = lit_picture(field, look_at(blank));
  REQUIRE(p.width == 600);
  REQUIRE(p.height == 400);
  const double face = mean(p, 200, 40, 400, 120);
  // The wall on the far side faces the front, away from the light; the near wall faces the back, towards it.
  const double far_wall = mean(p, 200, 170, 400, 190), near_wall = mean(p, 200, 210, 400, 230);
  CHECK(far_wall < 0.8 * face);
  CHECK(near_wall > far_wall * 1.2);
}

TEST_CASE("the face shows its wood, right-through cuts show the bed, outside is clear") {
  const Blank blank = maple();
  HeightField field(blank.box().grown(5), 0.2);
  field.clear();
  carve(field, {{{{20, 20, -18.5}, {40, 20, -18.5}}}}, oracle::flat_bit(6));
  const Picture p = lit_picture(field, look_at(blank));
  CHECK((p.at(5, 5) >> 24) == 0);
  const std::uint32_t face = p.at(300, 40), hole = p.at(175, 125);
  CHECK((face >> 24) == 255);
  const auto red = [](std::uint32_t c) { return static_cast<int>((c >> 16) & 255); };
  const auto blue = [](std::uint32_t c) { return static_cast<int>(c & 255); };
  CHECK(red(face) - blue(face) > 25);  // maple is warm
  CHECK(lightness(hole) < lightness(face) * 0.75);
  const Species& walnut = *species_table().find("black-walnut");
  const Colour dark = wood_colour(walnut, Grain::AlongWidth, 10, 10, 0),
               light = wood_colour(*species_table().find("sugar-maple"), Grain::AlongWidth, 10, 10, 0);
  CHECK(dark.red + dark.green + dark.blue < light.red + light.green + light.blue - 0.4);
}

TEST_CASE("grain runs the way the blank says") {
  const Species& cedar = *species_table().find("western-red-cedar");
  const auto change = [&](Grain grain, double dx, double dy) {
    double sum = 0;
    for (int i = 0; i < 400; ++i) {
      const double x = 40 + 1.7 * i, y = 30 + 0.9 * i;
      const Colour a = wood_colour(cedar, grain, x, y, 0), b = wood_colour(cedar, grain, x + dx, y + dy, 0);
      sum += std::abs(a.red - b.red);
    }
    return sum;
  };
  CHECK(change(Grain::AlongWidth, 0, 3) > 1.5 * change(Grain::AlongWidth, 3, 0));
  CHECK(change(Grain::AlongHeight, 3, 0) > 1.5 * change(Grain::AlongHeight, 0, 3));
}

TEST_CASE("a shrunk picture is the average of the full one") {
  const Blank blank = maple();
  HeightField field(blank.box(), 0.25);
  field.clear();
  carve(field, {{{{10, 10, -3}, {50, 30, -3}}}}, oracle::v_bit(60));
  const Picture full = lit_picture(field, look_at(blank)), half = lit_picture(field, look_at(blank), 2);
  CHECK(half.width == full.width / 2);
  for (std::size_t y = 20; y < 60; y += 9) {
    for (std::size_t x = 20; x < 100; x += 11) {
      const double four = (lightness(full.at(2 * x, 2 * y)) + lightness(full.at(2 * x + 1, 2 * y)) +
                           lightness(full.at(2 * x, 2 * y + 1)) + lightness(full.at(2 * x + 1, 2 * y + 1))) /
                          4;
      CHECK(lightness(half.at(x, y)) == Approx(four).margin(6));
    }
  }
}

TEST_CASE("a followed line has the section of its bit: triangle, rectangle, circular segment") {  // any handbook of
                                                                                                  // mathematics
  Outlines line;
  line.lines = {{{10, 20}, {50, 20}}};
  const auto section = [&](const Bit& bit, double depth) {
    HeightField field(maple().box(), 0.02);
    field.clear();
    const PieceCuts cuts = followed(bit, depth, line);
    REQUIRE(cuts.operations.size() == 1);
    CHECK(cuts.deepest == Approx(depth));
    carve(field, cuts.operations[0].passes, bit);
    return area_under_face(field, 30);
  };
  CHECK(section(bit_of_kind(BitKind::V, 12.7, 60), 2) == Approx(2 * 2 * std::tan(std::numbers::pi / 6)).epsilon(0.01));
  CHECK(section(bit_of_kind(BitKind::Flat, 3), 2.5) == Approx(7.5).epsilon(0.02));
  const double r = 1.5875, d = 1, half = std::acos((r - d) / r);
  CHECK(section(bit_of_kind(BitKind::Ball, 2 * r), d) ==
        Approx(r * r * half - (r - d) * std::sqrt(2 * r * d - d * d)).epsilon(0.02));
  // The engraving cone with a 0.004 in tip, 0.020 in deep: a trapezium (common practice, no source).
  const double tip = 0.1016, deep = 0.508;
  CHECK(section(bit_of_kind(BitKind::V, 3.175, 20, tip), deep) ==
        Approx(deep * (tip + deep * std::tan(10 * std::numbers::pi / 180))).epsilon(0.06));
}

TEST_CASE("a followed line goes down a step at a time, without a lift between") {
  Outlines line;
  line.lines = {{{10, 20}, {50, 20}, {50, 30}}};
  Bit bit = bit_of_kind(BitKind::Flat, 3);
  bit.feeds["hard"] = {1000, 300, 18000, 1};
  const PieceCuts cuts = followed(bit, 3, line);
  REQUIRE(cuts.operations[0].passes.size() == 1);
  double z = 0;
  for (const Point3& p : cuts.operations[0].passes[0].points) {
    CHECK(p.z >= z - 1 - 1e-9);
    z = p.z;
  }
  CHECK(z == Approx(-3));
  // A closed outline is followed all round where there are no lines.
  Outlines square;
  square.region = oracle::rectangle(10, 10, 20, 20);
  const PieceCuts round = followed(bit, 0.5, square);
  CHECK(path_length(round.operations[0].passes) == Approx(80).margin(0.6));
}

TEST_CASE("hatching covers a region in even rows, entering as often as it leaves") {
  const Region ring = subtract(oracle::rectangle(0, 0, 40, 30), oracle::rectangle(15, 10, 10, 10));
  const double step = 0.5;
  double total = 0;
  for (const Line2& row : hatch(ring, step)) {
    REQUIRE(row.size() == 2);
    CHECK(row[0].y == row[1].y);
    total += distance(row[0], row[1]);
    CHECK(contains(grow(ring, 0.001), (row[0] + row[1]) * 0.5));
  }
  CHECK(total * step == Approx(area(ring)).epsilon(0.03));
  CHECK(hatch({}, 1).empty());
  CHECK(hatch(ring, 0).empty());
}

TEST_CASE("strokes cover their width: flat, round and square ends, pointed and round joints") {  // any handbook of
                                                                                                 // mathematics
  const std::vector<Line2> line{{{0, 0}, {30, 0}}};
  CHECK(area(stroked(line, 4, StrokeEnd::Flat, StrokeJoint::Pointed)) == Approx(120).epsilon(1e-4));
  CHECK(area(stroked(line, 4, StrokeEnd::Square, StrokeJoint::Pointed)) == Approx(136).epsilon(1e-4));
  CHECK(area(stroked(line, 4, StrokeEnd::Round, StrokeJoint::Pointed)) ==
        Approx(120 + std::numbers::pi * 4).epsilon(1e-3));
  const std::vector<Line2> corner{{{0, 0}, {30, 0}, {30, 30}}};
  CHECK(area(stroked(corner, 4, StrokeEnd::Flat, StrokeJoint::Pointed)) ==
        Approx(2 * 120 + 4).epsilon(1e-4).margin(4.01));
  CHECK(area(stroked(corner, 4, StrokeEnd::Flat, StrokeJoint::Round)) <
        area(stroked(corner, 4, StrokeEnd::Flat, StrokeJoint::Pointed)));
  const std::vector<Line2> square{{{0, 0}, {20, 0}, {20, 20}, {0, 20}, {0, 0}}};
  CHECK(area(stroked(square, 2, StrokeEnd::Flat, StrokeJoint::Pointed)) == Approx(22 * 22 - 18 * 18).epsilon(1e-3));
}

TEST_CASE("thinning keeps ends and the given nearness") {
  Line2 wave;
  for (int i = 0; i <= 5000; ++i) wave.push_back({i * 0.01, std::sin(i * 0.01)});
  for (const double tolerance : {0.001, 0.01, 0.1}) {
    const Line2 thin = thinned(wave, tolerance);
    CHECK(thin.front() == wave.front());
    CHECK(thin.back() == wave.back());
    CHECK(thin.size() < wave.size() / 5);
    double worst = 0;
    for (std::size_t i = 0; i < wave.size(); i += 7) {
      double best = 1e300;
      for (std::size_t k = 1; k < thin.size(); ++k)
        best = std::min(best, oracle::Distance::to_segment({thin[k - 1].x, thin[k - 1].y, thin[k].x, thin[k].y},
                                                           wave[i].x, wave[i].y));
      worst = std::max(worst, best);
    }
    CHECK(worst <= tolerance * 1.01);
  }
  CHECK(thinned(Line2{{0, 0}, {1, 0}}, 1).size() == 2);
}
