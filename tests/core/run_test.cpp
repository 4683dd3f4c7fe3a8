// Machine time and G-code: closed forms, the published rules, and the independent reader.
#include <catch2/catch.hpp>
#include <numbers>
#include <set>
#include <sstream>

#include "machine/motion.hpp"
#include "oracle.hpp"
#include "problem.hpp"
#include "run/gcode.hpp"
#include "run/order.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;

namespace {

MachineProfile plain_machine() {
  MachineProfile m;
  m.acceleration = {500, 500, 500};
  m.corner_deviation = 0.02;
  m.clearance = 5;
  return m;
}

const Feeds kFeeds{3000, 600, 16000, 3};

std::string written(const std::vector<Pass>& passes, const MachineProfile& machine, bool arcs = false,
                    Placement shift = {}) {
  static const Bit bit = oracle::flat_bit(6);
  return write_gcode({"a (title) with 100 % brackets;", "the face", shift, {{&bit, kFeeds, 1, {&passes}, arcs}}},
                     machine);
}

// Every line's words in order, comments gone.
std::vector<std::string> code_lines(const std::string& text) {
  std::vector<std::string> lines;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) {
    if (!line.empty() && line.front() != '(') lines.push_back(line);
  }
  return lines;
}

}  // namespace

TEST_CASE("a stretch from rest to rest takes L/v + v/a, or 2 sqrt(L/a) when it is short") {  // geometry.md, Time; any
                                                                                             // handbook of mechanics
  CHECK(rest_to_rest(100, 50, 500) == Approx(100 / 50.0 + 50 / 500.0));
  CHECK(rest_to_rest(2, 50, 500) == Approx(2 * std::sqrt(2 / 500.0)));
  CHECK(rest_to_rest(0, 50, 500) == 0);
  const Pass pass{{{0, 0, -1}, {100, 0, -1}}};
  CHECK(pass_seconds(pass, kFeeds, plain_machine()) == Approx(rest_to_rest(100, 50, 500)));
}

TEST_CASE("a controller that takes in few moves a second, or knows few ahead, is slower by closed forms") {
  MachineProfile m = plain_machine();
  const auto row = [](int n, double each) {
    Pass pass;
    for (int i = 0; i <= n; ++i) pass.points.push_back({i * each, 0, -1});
    return pass;
  };
  const double a = m.acceleration[0];
  // Straight on in moves of 0.2 mm, 60 a second: 12 mm/s, however much was asked for.
  m.moves_per_second = 60;
  const double v = 0.2 * 60;
  CHECK(pass_seconds(row(1000, 0.2), kFeeds, m) == Approx(rest_to_rest(200, v, a)));
  // Long moves are not held back.
  CHECK(pass_seconds(row(4, 50), kFeeds, m) == Approx(rest_to_rest(200, kFeeds.feed / 60, a)));
  // One move ahead, of l: at each end v² ≤ 2·a·l; between, the speed rises to the middle and falls again.
  m.moves_per_second = 0;
  m.moves_ahead = 1;
  const double l = 0.2, end = std::sqrt(2 * a * l), peak = std::sqrt(3 * a * l);
  REQUIRE(peak < kFeeds.feed / 60);
  CHECK(pass_seconds(row(1000, l), kFeeds, m) == Approx(2 * end / a + 998 * 2 * (peak - end) / a));
  // With all of them known it is as if nothing held it.
  m.moves_ahead = 1000;
  CHECK(pass_seconds(row(1000, l), kFeeds, m) == Approx(rest_to_rest(200, kFeeds.feed / 60, a)));
}

TEST_CASE("a slow controller takes an arc as one move, where the file says it as one") {
  MachineProfile m = plain_machine();
  m.arcs = true;
  Pass half;
  for (int i = 0; i <= 360; ++i) {
    const double angle = std::numbers::pi * 0.97 * i / 360;
    half.points.push_back({40 * std::cos(angle), 40 * std::sin(angle), -2});
  }
  const double free = run_time({half}, kFeeds, m, {}, nullptr, BitKind::Flat).seconds;
  m.moves_per_second = 30;
  CHECK(run_time({half}, kFeeds, m, {}, nullptr, BitKind::Flat).seconds == Approx(free));
  // 360 chords one by one.
  m.arcs = false;
  CHECK(run_time({half}, kFeeds, m, {}, nullptr, BitKind::Flat).seconds > 360 / 30.0);
}

TEST_CASE("a tight circle said as arcs is as slow as its radius allows") {  // v² = a·r; any textbook
  MachineProfile m;
  m.acceleration = {400, 400, 400};
  m.feed_most = {9000, 9000, 9000};
  const Feeds feeds{6000, 3000, 12000};
  for (const double r : {1.0, 1.7, 6.0, 40.0}) {
    Pass pass;
    constexpr int kTurns = 30, kPoints = 90;
    for (int i = 0; i <= kTurns * kPoints; ++i) {
      const double a = 2 * std::numbers::pi * i / kPoints;
      pass.points.push_back({r * std::cos(a), r * std::sin(a), -1});
    }
    const double length = 2 * std::numbers::pi * r * kTurns, top = std::min(100.0, std::sqrt(400 * r));
    // From rest to rest: v²/a of the way is run up and down.
    INFO(r);
    const RunTime time = run_time({pass}, feeds, m, {r, 0}, nullptr, BitKind::Flat);
    CHECK(time.in_wood == Approx(length / top).epsilon(0.03));
    m.arcs = false;  // chords do not know of it
    CHECK(run_time({pass}, feeds, m, {r, 0}, nullptr, BitKind::Flat).in_wood <= time.in_wood * 1.001);
    m.arcs = true;
  }
}

TEST_CASE("corner speed follows v^2 = a d sin(t/2) / (1 - sin(t/2))") {  // geometry.md, Time
  const double half = std::sin(std::numbers::pi / 4);
  CHECK(junction_speed(500, 0.02, std::numbers::pi / 2) == Approx(std::sqrt(500 * 0.02 * half / (1 - half))));
  CHECK(junction_speed(500, 0.02, std::numbers::pi) > 1e6);  // straight on: no limit
  CHECK(junction_speed(500, 0.02, 0) == Approx(0).margin(1e-9));
}

TEST_CASE("time falls between length over feed and stopping at every point") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> any(0, 60);
  for (int round = 0; round < 20; ++round) {
    Pass pass;
    for (int i = 0; i < 30; ++i) pass.points.push_back({any(random), any(random), -2});
    const double got = pass_seconds(pass, kFeeds, plain_machine());
    double stopping = 0;
    for (std::size_t i = 1; i < pass.points.size(); ++i) {
      const Point3 &a = pass.points[i - 1], &b = pass.points[i];
      const double ux = std::abs(b.x - a.x) / distance(a, b), uy = std::abs(b.y - a.y) / distance(a, b);
      stopping += rest_to_rest(distance(a, b), 50, 500 / std::max(ux, uy));
    }
    CHECK(got > path_length(pass) / 50);
    CHECK(got <= stopping + 1e-9);
  }
}

TEST_CASE("splitting a straight line changes nothing, tiny crooked segments cap the feed") {
  Pass whole{{{0, 0, -1}, {200, 0, -1}}}, split, crooked;
  for (int i = 0; i <= 400; ++i) {
    split.points.push_back({0.5 * i, 0, -1});
    crooked.points.push_back({0.5 * i, i % 2 ? 0.1 : 0.0, -1});
  }
  const MachineProfile m = plain_machine();
  CHECK(pass_seconds(split, kFeeds, m) == Approx(pass_seconds(whole, kFeeds, m)).epsilon(1e-6));
  CHECK(pass_seconds(crooked, kFeeds, m) > 1.5 * pass_seconds(whole, kFeeds, m));
}

TEST_CASE("the written file holds one motion word a line, sound numbers, and an end") {  // ISO 6983-1; NISTIR 6556, 3.3
                                                                                         // and 3.4
  std::mt19937 random(9);
  std::uniform_real_distribution<double> any(-50, 150);
  std::vector<Pass> passes;
  for (int k = 0; k < 5; ++k) {
    Pass& pass = passes.emplace_back();
    for (int i = 0; i < 40; ++i) pass.points.push_back({any(random), any(random), -std::abs(any(random)) / 20});
  }
  const std::string text = written(passes, plain_machine());
  const auto lines = code_lines(text);
  CHECK(lines.front() == "G21 G90 G17 G94");
  CHECK(lines.back() == "M30");
  bool spinning = false;
  for (const std::string& line : lines) {
    std::istringstream in(line);
    std::set<char> letters;
    int motions = 0;
    for (std::string word; in >> word;) {
      CHECK((word.front() == 'G' || letters.insert(word.front()).second));
      if (word == "G0" || word == "G1" || word == "G2" || word == "G3") ++motions;
      CHECK(word.find_first_not_of("0123456789.-", 1) == std::string::npos);
      CHECK(word != "X-0");
      if (word == "M3") spinning = true;
      if (word == "M5") spinning = false;
      if (word == "G1") CHECK(spinning);
    }
    CHECK(motions <= 1);
  }
  CHECK_THAT(text, !Catch::Contains("nan") && !Catch::Contains("inf") && !Catch::Contains("%"));
}

TEST_CASE("what is read back is what was written, in either unit, with any zero") {
  std::mt19937 random(31);
  std::uniform_real_distribution<double> any(0, 150);
  std::vector<Pass> passes;
  for (int k = 0; k < 4; ++k) {
    Pass& pass = passes.emplace_back();
    for (int i = 0; i < 25; ++i) pass.points.push_back({any(random), any(random), -any(random) / 20});
  }
  for (const Unit unit : {Unit::Millimetre, Unit::Inch}) {
    for (const Placement shift : {Placement{}, Placement{-75, -40, 19}}) {
      for (const bool numbered : {false, true}) {
        MachineProfile m = plain_machine();
        m.unit = unit;
        m.decimals = unit == Unit::Inch ? 5 : 3;
        m.line_numbers = numbered;
        const GcodeProgram program = read_gcode(written(passes, m, false, shift), "x.nc", shift.z);
        REQUIRE(program.sections.size() == 1);
        CHECK(program.ended);
        CHECK(program.sections[0].rapid_in_wood == 0);
        CHECK(program.sections[0].spindle == 16000);
        REQUIRE(program.sections[0].passes.size() == passes.size());
        for (std::size_t k = 0; k < passes.size(); ++k) {
          const auto& got = program.sections[0].passes[k].points;
          REQUIRE(got.size() == passes[k].points.size() + 1);  // the plunge's start comes first
          for (std::size_t i = 0; i < passes[k].points.size(); ++i) {
            const Point3& p = passes[k].points[i];
            CHECK(got[i + 1].x == Approx(p.x + shift.x).margin(0.0006));
            CHECK(got[i + 1].y == Approx(p.y + shift.y).margin(0.0006));
            CHECK(got[i + 1].z >= p.z + shift.z - 1e-5);  // rounding never cuts deeper
            CHECK(got[i + 1].z == Approx(p.z + shift.z).margin(0.0011));
          }
        }
      }
    }
  }
}

TEST_CASE("round stretches are written as arcs and read back as the same circle") {  // NISTIR 6556, 3.5.3
  Pass circle;
  for (int i = 0; i <= 180; ++i) {
    const double a = 2 * std::numbers::pi * i / 180;
    circle.points.push_back({50 + 20 * std::cos(a), 40 + 20 * std::sin(a), -3});
  }
  const std::vector<Pass> passes{circle};
  const std::string text = written(passes, plain_machine(), true);
  CHECK(code_lines(text).size() < 20);
  CHECK_THAT(text, Catch::Contains("G3") && Catch::Contains(" I"));
  const GcodeProgram program = read_gcode(text, "x.nc");
  for (const Point3& p : program.sections.at(0).passes.at(0).points) {
    if (p.z < -2.9) CHECK(std::hypot(p.x - 50, p.y - 40) == Approx(20).margin(0.006));
  }
  MachineProfile no_arcs = plain_machine();
  no_arcs.arcs = false;
  CHECK_THAT(written(passes, no_arcs, true), !Catch::Contains("G3") && !Catch::Contains("G2 "));
}

TEST_CASE("the reader follows the published rules for arcs, units, distance mode and comments") {  // NISTIR 6556,
                                                                                                   // chapters 2 and 3
  const auto last = [](const std::string& text) {
    return read_gcode(text, "t.nc").sections.at(0).passes.back().points.back();
  };
  CHECK(last("G21 G90\nG0 X0 Y0 Z5\nG1 Z-1 F100\nX10\nM2").x == 10);
  CHECK(last("G20\nG0 X0 Y0 Z1\nG1 X1 Z0 F10\nM30").x == Approx(25.4));
  CHECK(last("G21 G91\nG0 X1 Y1 Z5\ng1 x2 f100\nx2\nM30").x == Approx(5));
  CHECK(last("N10 G21 (a comment) G0 X0 Y0 Z5\nN20 G1 X3.5 F50 ; the rest\nM30").x == 3.5);
  // Half a turn by R: from (10,0) anticlockwise about the origin to (-10,0) passes (0,10).
  const auto arc = read_gcode("G21\nG0 X10 Y0 Z0\nG3 X-10 Y0 R10 F100\nM30", "t.nc").sections.at(0).passes.at(0).points;
  CHECK(arc[arc.size() / 2].y == Approx(10).margin(0.01));
  // A negative R takes the longer way round: three quarters of a turn.
  const auto far = read_gcode("G21\nG0 X10 Y0 Z0\nG3 X0 Y10 R-10 F100\nM30", "t.nc").sections.at(0).passes.at(0).points;
  double length_of = 0;
  for (std::size_t i = 1; i < far.size(); ++i) length_of += distance(far[i - 1], far[i]);
  CHECK(length_of == Approx(1.5 * std::numbers::pi * 10).epsilon(1e-3));
}

TEST_CASE("files that no machine should be given are refused with line and word") {
  const struct {
    const char *text, *says;
  } bad[] = {{"G1 X1", "feed"},
             {"G21\nG99 X1", "line 2"},
             {"G1 X1 F0", "feed above zero"},
             {"X", "number"},
             {"G0 (open", "comment"},
             {"G3 X1 Y1 F10", "arc"},
             {"G1 F10\n G2 X1 Y0 R0.1", "circle"},
             {"M77", "M77"},
             {"G1 X1e99999 F1", "word E"},
             {"\x01", "word"},
             {"G1 X1 F100 X2", "twice"},
             {"G1 F100 G0 X5", "two motions"},
             {"G1 X1 F10 Y", "number"},
             {"G1 F9 X99999999", "far too large"}};
  for (const auto& b : bad)
    CHECK_THROWS_WITH(read_gcode(b.text, "bad.nc"), Catch::Contains("bad.nc") && Catch::Contains(b.says));
  CHECK_THROWS_AS(read_gcode(std::string(5000, 'X'), "bad.nc"), Problem);
}

TEST_CASE("rapid moves through the wood are seen") {
  const auto program = read_gcode("G21\nG0 X0 Y0 Z5\nG1 Z-2 F100\nX10\nG0 X20\nG0 Z5\nM30", "t.nc");
  CHECK(program.sections.at(0).rapid_in_wood > 0);
}

TEST_CASE("a coordinate that is none or out of reach writes no file") {
  CHECK_THROWS_AS(written({{{{NAN, 0, -1}, {1, 1, -1}}}}, plain_machine()), Problem);
  CHECK_THROWS_AS(written({{{{1e6, 0, -1}, {1, 1, -1}}}}, plain_machine()), Problem);
  CHECK_THROWS_AS(written({{{{1, 0, -1e4}, {1, 1, -1}}}}, plain_machine()), Problem);
}

TEST_CASE("pauses, tool numbers and spindle bounds follow the machine's profile") {
  const Bit v = oracle::v_bit(60), flat = oracle::flat_bit(6);
  const std::vector<Pass> passes{{{{0, 0, -1}, {10, 0, -1}}}};
  const Feeds fast{3000, 600, 60000, 3};
  const auto text = [&](BitChange change) {
    MachineProfile m = plain_machine();
    m.bit_change = change;
    return write_gcode({"t", "z", {}, {{&flat, kFeeds, 1, {&passes}, false}, {&v, fast, 2, {&passes}, false}}}, m);
  };
  CHECK_THAT(text(BitChange::Pause), Catch::Contains("M0\n") && !Catch::Contains("M6"));
  CHECK_THAT(text(BitChange::ToolNumber), Catch::Contains("T1 M6") && Catch::Contains("T2 M6"));
  CHECK_THAT(text(BitChange::Pause), Catch::Contains("S24000"));  // never faster than the spindle turns
  CHECK(read_gcode(text(BitChange::ToolNumber), "t").sections.size() == 2);
}

// Common practice, no source.
TEST_CASE("at a pause the bit stands in front of the work, high, however the board lies") {
  const Bit v = oracle::v_bit(60), flat = oracle::flat_bit(6);
  const std::vector<Pass> near{{{{30, 20, -1}, {80, 20, -1}}}}, far{{{{50, 220, -1}, {130, 60, -1}}}};
  MachineProfile m = plain_machine();
  m.bit_change = BitChange::Pause;
  for (const OnBed turn : {OnBed::AsDrawn, OnBed::QuarterLeft, OnBed::Half, OnBed::QuarterRight}) {
    const Placement lies{3, -7, 0, turn};
    Box work;
    for (const auto* passes : {&near, &far})
      for (const Point3& p : passes->front().points) work.add(lies.at_machine(p.flat()));
    const std::string text =
        write_gcode({"t", "z", lies, {{&flat, kFeeds, 1, {&near}, false}, {&v, kFeeds, 2, {&far}, false}}}, m);
    double x = 0, y = 0, z = 0;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line) && line != "M0";) {
      std::istringstream words(line.front() == '(' ? "" : line);
      for (std::string word; words >> word;) {
        if (word.front() == 'X') x = std::stod(word.substr(1));
        if (word.front() == 'Y') y = std::stod(word.substr(1));
        if (word.front() == 'Z') z = std::stod(word.substr(1));
      }
    }
    CHECK(z >= 40);
    CHECK(y == Approx(work.bottom).margin(0.001));
    CHECK(x == Approx((work.left + work.right) / 2).margin(0.001));
  }
}

TEST_CASE("bits are changed as seldom as what must come first allows, cut-outs last") {
  const auto op = [](Operation::Kind kind, const char* bit) {
    Operation o;
    o.kind = kind;
    o.bit = bit;
    return o;
  };
  using K = Operation::Kind;
  const Operation a1 = op(K::Clear, "flat"), a2 = op(K::Groove, "v"), b = op(K::Groove, "v"),
                  c = op(K::Profile, "flat"), d1 = op(K::Clear, "big"), d2 = op(K::Clear, "flat"),
                  d3 = op(K::Groove, "v");
  const auto groups = order_operations({{&c}, {&b}, {&a1, &a2}, {&d1, &d2, &d3}});
  std::vector<std::string> bits;
  for (const auto& g : groups) bits.push_back(g.bit);
  CHECK(bits == std::vector<std::string>{"big", "flat", "v", "flat"});
  CHECK(groups.back().operations == std::vector<const Operation*>{&c});
  // With a profile bit that clears too and nothing else, one stay is enough.
  CHECK(order_operations({{&a1}, {&c}}).size() == 1);
  CHECK(order_operations({}).empty());
}

TEST_CASE("machine profiles are read whole and refused with the place of a mistake") {
  const MachineTable& table = machine_table();
  CHECK(table.machines.size() >= 2);
  for (const MachineProfile& m : table.machines) {
    CHECK(m.travel[0] > 0);
    CHECK(m.acceleration[2] > 0);
    CHECK(m.spindle_least < m.spindle_most);
  }
  CHECK(table.find("no-such") == nullptr);
  CHECK_THROWS_WITH(read_machines("{}", "m.json"), Catch::Contains("m.json"));
}
