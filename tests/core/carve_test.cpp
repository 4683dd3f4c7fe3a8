// Carving moves: exact envelopes against the bit's own profile, sampled along the move; volumes against closed forms.
#include "relief/carve.hpp"

#include <catch2/catch.hpp>
#include <cstring>
#include <numbers>

#include "oracle.hpp"
#include "relief/cone_row.hpp"

using namespace doyen;

namespace {

HeightField carved(const std::vector<Pass>& passes, const Bit& bit, Box area, double cell) {
  HeightField field(area, cell);
  field.clear();
  carve(field, passes, bit);
  return field;
}

// The profile swept in very small steps.
double stepped(const std::vector<Pass>& passes, const Bit& bit, double x, double y) {
  double z = 0;
  for (const Pass& pass : passes) {
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      const Point3 &a = pass.points[i - 1], &b = pass.points[i];
      const int n = 600;
      for (int k = 0; k <= n; ++k) {
        const double t = static_cast<double>(k) / n;
        const double d = std::hypot(x - a.x - (b.x - a.x) * t, y - a.y - (b.y - a.y) * t);
        z = std::min(z, a.z + (b.z - a.z) * t + bit.profile(d));
      }
    }
  }
  return z;
}

double volume(const HeightField& field) {
  double sum = 0;
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c) sum -= field.at(c, r);
  }
  return sum * field.cell() * field.cell();
}

}  // namespace

// Worked several at a time, or one by one as this file's own plain loop is compiled.
TEST_CASE("a row of cells under a cone has the same figures to the last bit, however many are worked at once") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> share(0, 1);
  for (int round = 0; round < 2000; ++round) {
    const double turn = 2 * M_PI * share(random), steep = 0.5 + 3 * share(random);
    const double slope = 0.9 * steep * (2 * share(random) - 1);
    const ConeMove m{40 * share(random),
                     30 * share(random),
                     -6 * share(random),
                     std::cos(turn),
                     std::sin(turn),
                     round % 5 == 0 ? 0.0 : 3 * share(random),
                     slope,
                     steep,
                     slope / std::sqrt(steep * steep - slope * slope),
                     round % 4 == 0 ? 4.0 : 40.0};
    const ConeRow row{-5, 0.1, static_cast<int>(300 * share(random)), 1 + round % 60, 4 * (share(random) - 0.5)};
    std::vector<float> z(static_cast<std::size_t>(row.count));
    double farthest = 0;
    std::size_t other = 0;
    const bool told = cone_row(m, row, z.data());
    for (int i = 0; i < row.count; ++i) {
      const double x = row.left + (row.first + i + 0.5) * row.cell - m.x0;
      const double u = x * m.dx + row.y * m.dy, w = std::abs(row.y * m.dx - x * m.dy);
      const double s = std::clamp(u - w * m.shift, 0.0, m.len), d = std::sqrt((u - s) * (u - s) + w * w);
      farthest = std::max(farthest, d);
      other += z[static_cast<std::size_t>(i)] != static_cast<float>(m.z0 + m.slope * s + m.steep * d);
    }
    INFO("round " << round << ", " << row.count << " cells");
    CHECK(other == 0);
    CHECK(told == (farthest <= m.body));
  }
}

// A sharp V's rows are worked at once; with the least tip flat they are worked cell by cell.
TEST_CASE("a sharp V leaves what one with a tip of a billionth of a millimetre does") {
  std::mt19937 random(31);
  std::uniform_real_distribution<double> place(2, 38), depth(-7, 1), step(-2, 2);
  for (int round = 0; round < 40; ++round) {
    const double angle = round % 3 == 0 ? 20 : 60, across = round % 4 == 0 ? 3.2 : 30;
    Pass pass;
    Point3 p{place(random), place(random), depth(random)};
    for (int i = 0; i < 12; ++i) {
      pass.points.push_back(p);
      if (i % 4 == 3)
        p = {place(random), place(random), depth(random)};
      else if (i % 4 == 2)
        p.z -= 0.5;  // straight down
      else
        p = {p.x + step(random), p.y + step(random), p.z + 0.5 * step(random)};
    }
    const HeightField sharp = carved({pass}, oracle::v_bit(angle, 0, across), {0, 0, 40, 40}, 0.21);
    const HeightField blunt = carved({pass}, oracle::v_bit(angle, 1e-9, across), {0, 0, 40, 40}, 0.21);
    float apart = 0;
    for (std::size_t r = 0; r < sharp.rows(); ++r) {
      for (std::size_t c = 0; c < sharp.columns(); ++c)
        apart = std::max(apart, std::abs(sharp.at(c, r) - blunt.at(c, r)));
    }
    INFO("round " << round);
    CHECK(apart < 2e-6F);
  }
}

TEST_CASE("swept surfaces agree with the profile moved in small steps") {
  std::mt19937 random(9);
  std::uniform_real_distribution<double> place(2, 18), depth(-6, -0.2);
  Bit ball = oracle::flat_bit(5);
  ball.kind = BitKind::Ball;
  Bit taper = oracle::v_bit(30, 1.0, 6);
  taper.kind = BitKind::Taper;
  const Bit bits[] = {oracle::v_bit(60),
                      oracle::v_bit(30),
                      oracle::v_bit(20, 0.4, 3.2),
                      oracle::v_bit(90, 0.3),
                      oracle::flat_bit(3),
                      ball,
                      taper};
  for (const Bit& bit : bits) {
    for (int round = 0; round < 6; ++round) {
      Pass pass;
      Point3 p{place(random), place(random), depth(random)};
      for (int i = 0; i < 5; ++i) {  // short steps that turn and sink gently, as grooves do, and long ones that do not
        pass.points.push_back(p);
        if (round % 2 == 0)
          p = {place(random), place(random), depth(random)};
        else
          p = {p.x + 1.1, p.y + 0.4 * i - 0.5, std::min(-0.1, p.z + 0.3 * (i % 3) - 0.3)};
      }
      const std::vector<Pass> passes{pass};
      const HeightField field = carved(passes, bit, {0, 0, 20, 20}, 0.37);
      Bit judge = bit;  // an upright wall counts as cut half a micron inside itself
      if (bit.kind == BitKind::Flat) judge.diameter -= 0.001;
      double deeper = 0, shallower = 0;
      for (std::size_t r = 0; r < field.rows(); ++r) {
        for (std::size_t c = 0; c < field.columns(); ++c) {
          const double expected = stepped(passes, judge, field.x_of(c), field.y_of(r));
          if (bit.kind != BitKind::Flat && expected > -0.002) continue;
          const double off = field.at(c, r) - expected;
          deeper = std::max(deeper, -off);
          shallower = std::max(shallower, off);
        }
      }
      INFO(static_cast<int>(bit.kind) << " " << bit.angle << " round " << round);
      CHECK(shallower < 1e-3);
      // Steps of a fortieth of a millimetre miss the very rim of an upright or steep wall: only there may the exact one
      // be deeper.
      if (bit.kind == BitKind::V && bit.diameter > 20) CHECK(deeper < 0.08);
    }
  }
}

TEST_CASE("a plunged cone takes pi/3 r^2 h, a flat bit pi r^2 h") {  // any handbook of mathematics
  const Pass plunge{{{10, 10, -4}}};
  const double r = 4 * std::tan(std::numbers::pi / 6);
  CHECK(volume(carved({plunge}, oracle::v_bit(60), {0, 0, 20, 20}, 0.02)) ==
        Approx(std::numbers::pi / 3 * r * r * 4).epsilon(0.003));
  CHECK(volume(carved({plunge}, oracle::flat_bit(6), {0, 0, 20, 20}, 0.02)) ==
        Approx(std::numbers::pi * 9 * 4).epsilon(0.003));
  const double flat = 0.6, wide = flat + 4 * std::tan(std::numbers::pi / 6);  // a frustum: h/3 (A + a + sqrt(A a))
  const double frustum = 4.0 / 3 * std::numbers::pi * (wide * wide + flat * flat + wide * flat);
  CHECK(volume(carved({plunge}, oracle::v_bit(60, 2 * flat), {0, 0, 20, 20}, 0.02)) == Approx(frustum).epsilon(0.003));
}

TEST_CASE("a bit never cuts wider than its body") {
  const Bit bit = oracle::v_bit(60, 0, 6);
  const HeightField field = carved({Pass{{{2, 10, -8}, {18, 10, -8}}}}, bit, {0, 0, 20, 20}, 0.1);
  for (std::size_t r = 0; r < field.rows(); ++r) {
    if (std::abs(field.y_of(r) - 10) > 3.0001) CHECK(field.at(100, r) == 0);
  }
}

TEST_CASE("measured figures beat nominal ones") {
  Bit bit = oracle::v_bit(60);
  CHECK(bit.tan_half() == Approx(std::tan(std::numbers::pi / 6)));
  bit.measured_angle = 61;
  CHECK(bit.tan_half() == Approx(std::tan(30.5 * std::numbers::pi / 180)));
  Bit flat = oracle::flat_bit(6);
  flat.measured_diameter = 5.92;
  CHECK(flat.true_diameter() == 5.92);
  CHECK(flat.depth_per_pass("unknown") == Approx(2.96));  // common practice: about half the diameter
}

TEST_CASE(
    "chip load is feed over turns and flutes") {  // standard machining handbooks: 100 in/min at 16,000 with 2 flutes
  const Bit bit = oracle::flat_bit(6.35);
  CHECK(chip_load(bit, {100 * 25.4, 500, 16000, 0}) / 25.4 == Approx(0.003125));
}

TEST_CASE("height files are NumPy's own format with the far row first") {  // published: numpy.lib.format, version 1.0
  HeightField field({0, 0, 3, 2}, 1);
  field.clear();
  field.row(1)[2] = -1.5F;
  const std::string path = "/tmp/doyen-test.npy";
  write_npy(field, path);
  FILE* f = std::fopen(path.c_str(), "rb");
  std::string bytes(4096, '\0');
  bytes.resize(std::fread(bytes.data(), 1, bytes.size(), f));
  std::fclose(f);
  CHECK(bytes.substr(0, 6) == "\x93NUMPY");
  CHECK(bytes.find("'shape': (2, 3)") != std::string::npos);
  const std::size_t start = 10 + static_cast<unsigned char>(bytes[8]) + 256 * static_cast<unsigned char>(bytes[9]);
  CHECK(start % 64 == 0);
  float values[6];
  std::memcpy(values, bytes.data() + start, sizeof values);
  CHECK(values[2] == -1.5F);
  std::remove(path.c_str());
}
