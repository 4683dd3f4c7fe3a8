// The carved board seen from the side, against what geometry says of where things come to lie.
#include <catch2/catch.hpp>
#include <cmath>

#include "relief/carve.hpp"
#include "relief/tilted.hpp"

using namespace doyen;

namespace {

constexpr std::uint32_t kTable = 0xFFE4DCCB;

struct Carved {
  HeightField field;
  WoodLook look;
};

// A flat board, or one that `cut` lowers: mm at a place.
template <typename Cut>
Carved board(double width, double height, double thick, double cell, const Cut& cut) {
  Carved out{HeightField({0, 0, width, height}, cell), {}};
  Blank blank;
  blank.width = width;
  blank.height = height;
  blank.readings = {thick};
  out.look = wood_look(blank);
  for (std::size_t r = 0; r < out.field.rows(); ++r) {
    for (std::size_t c = 0; c < out.field.columns(); ++c)
      out.field.row(r)[c] = static_cast<float>(cut(out.field.x_of(c), out.field.y_of(r)));
  }
  return out;
}
double flat(double, double) { return 0; }

// Wood is red before it is blue; the table, lit or in shadow, hardly.
bool wooden(std::uint32_t p) {
  const double red = p >> 16 & 255U, blue = p & 255U;
  return red > 1.35 * blue;
}
double brightness(std::uint32_t p) { return (p >> 16 & 255U) + (p >> 8 & 255U) + (p & 255U); }

// How many pixels of a column are wood.
std::size_t wood_in_column(const Picture& p, std::size_t x) {
  std::size_t n = 0;
  for (std::size_t y = 0; y < p.height; ++y) n += wooden(p.at(x, y)) ? 1 : 0;
  return n;
}

}  // namespace

TEST_CASE("a board that is tilted shows its face shortened by the cosine, and its edge by the sine") {
  const Carved b = board(200, 100, 20, 0.2, flat);
  const TiltedBoard tilted(b.field, b.look);
  for (const double tilt : {0.0, 30.0, 60.0, 80.0}) {
    INFO("tilt " << tilt);
    const Stance stance{0, tilt, 1, {}};
    const Picture p = tilted.seen(stance, 900, 700, kTable);
    const double scale = tilted.scale(stance, 900, 700), t = tilt * M_PI / 180;
    const double high = (100 * std::cos(t) + 20 * std::sin(t)) * scale;
    CHECK(static_cast<double>(wood_in_column(p, 450)) == Approx(high).margin(3));
    std::size_t wide = 0;
    const Point middle = tilted.on_picture(stance, 900, 700, {100, 50}, 0);
    for (std::size_t x = 0; x < 900; ++x) wide += wooden(p.at(x, static_cast<std::size_t>(middle.y))) ? 1 : 0;
    CHECK(static_cast<double>(wide) == Approx(200 * scale).margin(3));
    // All of it is seen, in the middle.
    CHECK(high <= 700);
    CHECK(middle.x == Approx(450));
  }
}

TEST_CASE("turned by a quarter the board stands upright, and its left end lies in front or behind as it was turned") {
  const Carved b = board(200, 100, 20, 0.4, flat);
  const TiltedBoard tilted(b.field, b.look);
  for (const double turn : {90.0, -90.0}) {
    const Stance stance{turn, 0, 1, {}};
    const Point left = tilted.on_picture(stance, 600, 600, {0, 50}, 0),
                right = tilted.on_picture(stance, 600, 600, {200, 50}, 0);
    CHECK(left.x == Approx(right.x).margin(1e-6));
    CHECK((left.y < right.y) == (turn > 0));  // the right end comes nearer, which is lower, above zero
    CHECK(static_cast<double>(wood_in_column(tilted.seen(stance, 600, 600, kTable), 300)) ==
          Approx(std::abs(left.y - right.y)).margin(3));
  }
}

TEST_CASE("through a slot the table is seen as far as the near wall does not hide it") {
  // A slot 30 mm wide along the board, right through 20 mm: of its bottom 30 − 20 tan t is seen.
  const Carved b =
      board(200, 120, 20, 0.2, [](double x, double y) { return x > 20 && x < 180 && y > 45 && y < 75 ? -20.0 : 0.0; });
  const TiltedBoard tilted(b.field, b.look);
  for (const double tilt : {0.0, 20.0, 40.0, 70.0}) {
    INFO("tilt " << tilt);
    const Stance stance{0, tilt, 1, {}};
    const Picture p = tilted.seen(stance, 800, 700, kTable);
    const double scale = tilted.scale(stance, 800, 700), t = tilt * M_PI / 180;
    const double all = (120 * std::cos(t) + 20 * std::sin(t)) * scale;
    const double open = std::max(0.0, 30 * std::cos(t) - 20 * std::sin(t)) * scale;
    CHECK(static_cast<double>(wood_in_column(p, 400)) == Approx(all - open).margin(4));
  }
}

TEST_CASE("the light shows the flank that faces it, and moves with the lamp") {
  // A V along the board: flanks at 45° that face front and back.
  const Carved b = board(120, 60, 20, 0.1, [](double x, double y) {
    return x > 10 && x < 110 ? std::min(0.0, std::abs(y - 30) - 6) : 0.0;
  });
  TiltedBoard tilted(b.field, b.look);
  const Stance above{0, 0, 1, {}};
  const auto lit = [&](double y) {
    const Picture p = tilted.seen(above, 800, 500, kTable);
    double sum = 0;
    for (int x = 30; x < 90; ++x) {
      const Point at = tilted.on_picture(above, 800, 500, {static_cast<double>(x), y}, -3);
      sum += brightness(p.at(static_cast<std::size_t>(at.x), static_cast<std::size_t>(at.y)));
    }
    return sum / 60;
  };
  tilted.light({-90, 45});  // from the front: the far flank faces it
  CHECK(lit(33) > 1.3 * lit(27));
  tilted.light({90, 45});
  CHECK(lit(27) > 1.3 * lit(33));
  tilted.light({0, 45});  // along it: both alike
  CHECK(lit(27) == Approx(lit(33)).epsilon(0.1));
}

TEST_CASE("the board's shadow falls away from the light, as long as it stands low") {
  const Carved b = board(200, 100, 20, 0.4, flat);
  TiltedBoard tilted(b.field, b.look);
  const Stance above{0, 0, 0.6, {}};
  const auto shadow = [&](double height) {  // mm of dark table right of the board, the light from the left
    tilted.light({180, height});
    const Picture p = tilted.seen(above, 900, 700, kTable);
    double last = 200;
    for (double x = 200.5; x < 219; x += 0.25) {
      const Point at = tilted.on_picture(above, 900, 700, {x, 50}, -20);
      if (brightness(p.at(static_cast<std::size_t>(at.x), static_cast<std::size_t>(at.y))) < 0.85 * brightness(kTable))
        last = x;
    }
    return last - 200;
  };
  // 20 mm thick: a shadow of 20 ÷ tan of the light's height; its end is soft.
  CHECK(shadow(60) == Approx(20 / std::tan(60 * M_PI / 180)).margin(3));
  CHECK(shadow(75) == Approx(20 / std::tan(75 * M_PI / 180)).margin(3));
  CHECK(shadow(60) > shadow(75) + 3);
}

TEST_CASE("what is not on the board is table, and odd sizes and stances draw something") {
  Carved b = board(200, 100, 20, 0.4, flat);
  b.look.edge = clean({{{100, 10}, {190, 50}, {100, 90}, {10, 50}}});
  TiltedBoard tilted(b.field, b.look);
  const Stance above{0, 0, 1, {}};
  const Picture p = tilted.seen(above, 600, 400, kTable);
  const auto at = [&](Point on) {
    const Point px = tilted.on_picture(above, 600, 400, on, 0);
    return p.at(static_cast<std::size_t>(px.x), static_cast<std::size_t>(px.y));
  };
  CHECK(wooden(at({100, 50})));
  CHECK_FALSE(wooden(at({15, 15})));
  for (const double tilt : {-30.0, 89.0, 400.0}) {
    for (const double zoom : {0.0, 50.0}) {
      const Picture odd = tilted.seen({123, tilt, zoom, {1000, -500}}, 31, 17, kTable);
      CHECK(odd.pixels.size() == 31 * 17);
    }
  }
  CHECK(tilted.seen(above, 0, 10, kTable).pixels.empty());
  tilted.light({1e6, -50});
  CHECK(tilted.seen(above, 10, 10, kTable).pixels.size() == 100);
}

TEST_CASE("paint lies on the face or in the cuts, and the sawn edge stays bare") {
  const Carved b =
      board(120, 60, 20, 0.2, [](double x, double y) { return x > 40 && x < 80 && y > 20 && y < 40 ? -6.0 : 0.0; });
  const Stance above{0, 0, 1, {}}, aslant{0, 50, 1, {}};
  const Colour white{0.95, 0.95, 0.95}, blue{0.1, 0.2, 0.6};
  const auto at = [&](const TiltedBoard& tilted, const Stance& stance, Point on, double z) {
    const Picture p = tilted.seen(stance, 800, 600, kTable);
    const Point px = tilted.on_picture(stance, 800, 600, on, z);
    return p.at(static_cast<std::size_t>(px.x), static_cast<std::size_t>(px.y));
  };
  const auto bluish = [](std::uint32_t p) { return (p & 255U) > (p >> 16 & 255U); };
  const TiltedBoard cuts(b.field, b.look, face_and_cuts(b.field, {}, blue));
  CHECK(bluish(at(cuts, above, {60, 30}, -6)));
  CHECK(wooden(at(cuts, above, {20, 30}, 0)));
  CHECK(bluish(at(cuts, aslant, {60, 40}, -2)));  // the recess's far wall
  CHECK(wooden(at(cuts, aslant, {60, 0}, -10)));  // the board's own edge
  const TiltedBoard face(b.field, b.look, face_and_cuts(b.field, white, {}));
  CHECK(wooden(at(face, above, {60, 30}, -6)));
  CHECK_FALSE(wooden(at(face, above, {20, 30}, 0)));
  CHECK(brightness(at(face, above, {20, 30}, 0)) > 2 * brightness(at(face, above, {60, 30}, -6)));
}
