// The simulated controller: its motion against closed forms (v²/a, 2πr), its answers by the letter, and the time that
// the demos' files take there against what the plan says. It shares no code with the planner.
#include "controller.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>
#include <set>

#include "planning/file_names.hpp"
#include "run/gcode.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;
using controller::At;
using controller::Controller;
using controller::Figures;

namespace {

Figures figures() {
  Figures f;
  f.travel = {800, 600, 200};
  f.rapid = {6000, 6000, 3000};
  f.feed_most = {6000, 6000, 3000};
  f.acceleration = {400, 400, 200};
  f.origin = {100, 100, 100};
  return f;
}

int count(const std::string& text, const std::string& word) {
  int n = 0;
  for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) ++n;
  return n;
}

// Sends a whole file as a sender does, few lines on their way at once; returns what was answered.
std::string run(Controller& machine, const std::string& file) {
  std::string said;
  int open = 0;
  std::size_t at = 0;
  for (int guard = 0; guard < 10'000'000; ++guard) {
    while (open < 16 && at < file.size()) {
      const std::size_t end = file.find('\n', at);
      machine.receive(file.substr(at, end - at + 1));
      at = end + 1;
      ++open;
    }
    const std::string now = machine.take_replies();
    open -= count(now, "ok\n") + count(now, "error ");
    said += now;
    if (at >= file.size() && open <= 0 && machine.state() == Controller::State::Idle) return said;
    if (machine.state() == Controller::State::Alarm) return said;
    if (machine.state() == Controller::State::Wait) machine.receive("~");
    machine.advance(0.01);
  }
  return said;
}

double seconds_of(const std::string& file) {
  Controller machine(figures());
  (void)run(machine, file);
  return machine.seconds();
}

}  // namespace

TEST_CASE("a move from rest to rest takes what the closed form says; an arc its length; a corner slows") {
  // L/v + v/a with v = 20 mm/s, a = 400 mm/s².
  CHECK(seconds_of("G21 G90\nG1 X100 F1200\nM30\n") == Approx(100.0 / 20 + 20.0 / 400).epsilon(0.003));
  // Too short to get so fast: 2·√(L/a).
  CHECK(seconds_of("G21 G90\nG1 X1 F6000\nM30\n") == Approx(2 * std::sqrt(1.0 / 400)).epsilon(0.03));
  // z is slower in everything.
  CHECK(seconds_of("G21 G90\nG0 Z50\nM30\n") == Approx(50.0 / 50 + 50.0 / 200).epsilon(0.003));
  // A whole circle of radius 30.
  CHECK(seconds_of("G21 G90\nG2 X0 Y0 I30 J0 F1200\nM30\n") ==
        Approx(2 * std::numbers::pi * 30 / 20 + 20.0 / 400).epsilon(0.005));
  // Inches are inches.
  CHECK(seconds_of("G20 G90\nG1 X2 F40\nM30\n") == Approx(seconds_of("G21 G90\nG1 X50.8 F1016\nM30\n")).epsilon(1e-6));
  CHECK(seconds_of("G4 P1.5\nM30\n") == Approx(1.5).epsilon(1e-6));
  // Straight on in two parts costs nothing; back again costs a rest.
  const double whole = seconds_of("G21\nG1 X100 F3000\nM30\n");
  CHECK(seconds_of("G21\nG1 X50 F3000\nX100\nM30\n") == Approx(whole).epsilon(0.003));
  CHECK(seconds_of("G21\nG1 X50 F3000\nX0\nM30\n") == Approx(2 * seconds_of("G21\nG1 X50 F3000\nM30\n")).epsilon(0.01));
}

TEST_CASE("each line is answered once; what is not known is an error; room is waited for") {
  Controller machine(figures());
  CHECK(machine.take_replies() == "ready\n");
  machine.receive("G21 G90\n(a comment)\n\nG1 X10 F600\nG99\nX\nM77\nG1 Y\n");
  const std::string said = machine.take_replies();
  CHECK(count(said, "ok\n") == 4);
  CHECK(count(said, "error ") == 4);
  CHECK_THAT(said, Catch::Contains("G99") && Catch::Contains("line 5"));
  // No more lines than it holds are answered before any of them is done.
  Controller small([] {
    Figures f = figures();
    f.ahead = 5;
    return f;
  }());
  (void)small.take_replies();
  for (int i = 1; i <= 20; ++i) small.receive("G1 X" + std::to_string(i) + " F60\n");
  CHECK(count(small.take_replies(), "ok\n") == 5);
  small.advance(2.2);  // two of a millimetre a second
  CHECK(count(small.take_replies(), "ok\n") == 2);
  // A first move without a feed, an arc that does not close.
  Controller fresh(figures());
  fresh.receive("G1 X5\nG2 X10 Y0 I3 J0 F600\n");
  const std::string refused = fresh.take_replies();
  CHECK_THAT(refused, Catch::Contains("no feed") && Catch::Contains("different distances"));
  CHECK(fresh.place() == At{});
}

TEST_CASE("hold comes to rest on the way and goes on; stop forgets; the end of travel is an alarm") {
  Controller machine(figures());
  machine.receive("G21 G90\nG1 X100 F1200\n");
  machine.advance(2);
  CHECK(machine.place().x == Approx(20 * 2 - 0.5).margin(0.1));  // v·t − v²/2a
  machine.receive("!");
  machine.advance(1);
  CHECK(machine.state() == Controller::State::Hold);
  const double held = machine.place().x;
  CHECK(held == Approx(39.5 + 0.5).margin(0.15));  // it takes v²/2a to stop
  machine.advance(5);
  CHECK(machine.place().x == held);
  machine.receive("~");
  machine.advance(10);
  CHECK(machine.place().x == Approx(100));
  CHECK(machine.state() == Controller::State::Idle);
  machine.receive("G1 X0\n");
  machine.advance(1);
  machine.receive("\x18");
  CHECK(machine.state() == Controller::State::Idle);
  const double stopped = machine.place().x;
  machine.advance(5);
  CHECK(machine.place().x == stopped);
  // 100 mm of origin: −101 lies outside; nothing is taken until it is stopped.
  machine.receive("G1 X-101 F600\n");
  CHECK(machine.state() == Controller::State::Alarm);
  CHECK_THAT(machine.take_replies(), Catch::Contains("alarm past the end of x"));
  machine.receive("G1 X1\n");
  CHECK_THAT(machine.take_replies(), Catch::Contains("error"));
  machine.receive("\x18G1 X1 F600\n");
  machine.advance(60);
  CHECK(machine.place().x == Approx(1));
}

TEST_CASE(
    "pauses and changes wait to be told; feed is overridden, fast moves are not; a probe stops where it touches") {
  Controller machine(figures());
  machine.receive("G21\nG1 X10 F600\nM0\nG1 X20\nT3 M6\nG1 X30\nM30\n");
  machine.advance(20);
  CHECK(machine.state() == Controller::State::Wait);
  CHECK(machine.place().x == Approx(10));
  machine.receive("~");
  machine.advance(20);
  machine.receive("?");
  CHECK_THAT(machine.take_replies(), Catch::Contains("<wait") && Catch::Contains("change 3"));
  machine.receive("~");
  machine.advance(20);
  CHECK_THAT(machine.take_replies(), Catch::Contains("end"));
  CHECK(machine.place().x == Approx(30));
  const auto takes = [](const std::string& file, const char* share) {
    Controller m(figures());
    m.receive(share);
    (void)run(m, file);
    return m.seconds();
  };
  CHECK(takes("G21\nG1 X100 F600\nM30\n", "#override 200\n") == Approx(100.0 / 20 + 20.0 / 400).epsilon(0.003));
  CHECK(takes("G21\nG0 X100\nM30\n", "#override 50\n") == Approx(takes("G21\nG0 X100\nM30\n", "")).epsilon(1e-6));
  Controller probing(figures());
  probing.receive("#surface -4.25\nG21\nG38.2 Z-20 F100\n");
  probing.advance(60);
  CHECK(probing.place().z == Approx(-4.25));
  CHECK_THAT(probing.take_replies(), Catch::Contains("touched 0.0000 0.0000 -4.2500"));
}

TEST_CASE("every file of the demos takes what the plan says, within 3 per cent, and goes where it goes", "[heavy]") {
  for (const std::string name : {"gate-sign", "seed-drawer", "test-ladder", "sundial-plate"}) {
    const Job job = load_job(data_file("demo/" + name + ".doyen"));
    const Plan p = planned(job);
    const MachineProfile& m = p.machine;
    Figures f;
    f.travel = {5000, 5000, 5000};
    f.origin = {2000, 2000, 2000};
    f.rapid = m.rapid;
    f.feed_most = m.feed_most;
    f.acceleration = m.acceleration;
    f.corner = m.corner_deviation;
    std::map<std::string, double> told;
    for (const BitRun& run : p.runs) told[run.file] += run.time.seconds;
    for (const OutputFile& file : gcode_files(p)) {
      INFO(name << ", " << file.name);
      Controller machine(f);
      machine.receive("#place 0 0 " + std::to_string(m.clearance + seen_placement_of(job).z) + "\n");
      (void)machine.take_replies();
      const std::string said = run(machine, file.text);
      CHECK(count(said, "error") == 0);
      CHECK(count(said, "end\n") == 1);
      CHECK(machine.seconds() == Approx(told.at(file.name)).epsilon(0.03));
    }
  }
}

TEST_CASE("whatever is said to it, it answers each line once and goes on") {
  std::mt19937 random(7);
  const std::string letters = "GXYZIJFSMTP0123456789.-+ ()%;#?!~abc\t\x01\xff";
  for (int round = 0; round < 300; ++round) {
    Controller machine(figures());
    (void)machine.take_replies();
    int lines = 0;
    std::string said;
    for (int i = 0; i < 40; ++i) {
      std::string line;
      const int length = static_cast<int>(random() % 24);
      for (int k = 0; k < length; ++k) line += letters[random() % letters.size()];
      if (random() % 3 == 0)
        line = "G" + std::to_string(random() % 5) + " X" + std::to_string(static_cast<int>(random() % 400) - 150) +
               " I" + std::to_string(random() % 9) + " F" + std::to_string(random() % 3000);
      machine.receive(line + "\n");
      ++lines;
      machine.advance(0.5);
      if (random() % 8 == 0) machine.receive("~");
      said += machine.take_replies();
    }
    for (int i = 0; i < 2000; ++i) {  // what waits is told to go on, until nothing is left
      machine.receive("~");
      machine.advance(1);
      said += machine.take_replies();
    }
    INFO("round " << round);
    CHECK(count(said, "ok\n") + count(said, "error ") == lines);
    CHECK(std::isfinite(machine.place().x));
  }
}

TEST_CASE("its own words are taken at once, however they come in and whatever waits; waiting counts in its unit") {
  Controller machine([] {
    Figures f = figures();
    f.ahead = 3;
    return f;
  }());
  for (int i = 1; i <= 9; ++i) machine.receive("G1 X" + std::to_string(i) + " F60\n");  // more than it holds
  (void)machine.take_replies();
  machine.receive("#spe");
  machine.receive("ed 2");
  CHECK(machine.take_replies().empty());
  machine.receive("0\n");
  CHECK(machine.take_replies() == "ok\n");
  CHECK(machine.speed() == 20);
  machine.receive("#speed 0\n");
  CHECK_THAT(machine.take_replies(), Catch::Contains("error"));
  machine.advance(60);
  CHECK(count(machine.take_replies(), "ok\n") == 6);  // those that waited, and nothing of the words' is left over
  Figures f = figures();
  f.dwell_in_ms = true;
  Controller ms(f);
  (void)run(ms, "G4 P1500\nM30\n");
  CHECK(ms.seconds() == Approx(1.5));
}

TEST_CASE("files are framed, commented, closed and called as the machine wants them, and cut the same") {
  // NISTIR 6556, 3.1 (lines of %), 3.6.1 (M2, M30): any controller of that language takes them.
  Job job = board(120, 80, 18);
  add(job, "groove", {kBox, 40, 8}, {40, 40}, cut(Kind::Incise, 1));
  add(job, "hole", {PlainShape::Kind::Ellipse, 20, 20}, {90, 40}, cut(Kind::Recess, 3, {"flat-1/8in"}));
  const Plan usual = planned(job);
  for (int how = 1; how < 16; ++how) {
    MachineProfile machine = machine_for(job);
    machine.semicolons = (how & 1) != 0;
    machine.percent_lines = (how & 2) != 0;
    if ((how & 4) != 0) machine.end_word = "M2";
    if ((how & 8) != 0) machine.file_ending = "tap";
    const Plan p = plan(job, load_rack(), machine);
    const auto files = gcode_files(p), as_usual = gcode_files(usual);
    REQUIRE(files.size() == as_usual.size());
    for (std::size_t i = 0; i < files.size(); ++i) {
      INFO(how << ": " << files[i].name);
      CHECK(files[i].name.ends_with((how & 8) != 0 ? ".tap" : ".nc"));
      CHECK(files[i].text.starts_with("%\n") == machine.percent_lines);
      CHECK((files[i].text.find('(') == std::string::npos) == machine.semicolons);
      CHECK((files[i].text.find("M30") == std::string::npos) == (machine.end_word == "M2"));
      const GcodeProgram here = read_gcode(files[i].text, "x"), there = read_gcode(as_usual[i].text, "y");
      CHECK(here.ended);
      REQUIRE(here.sections.size() == there.sections.size());
      CHECK(here.sections[0].work == there.sections[0].work);
      REQUIRE(here.sections[0].passes.size() == there.sections[0].passes.size());
      for (std::size_t k = 0; k < here.sections[0].passes.size(); ++k)
        CHECK(here.sections[0].passes[k].points == there.sections[0].passes[k].points);
      // The simulated controller takes every line of them.
      Controller controller(figures());
      (void)controller.take_replies();
      const std::string said = run(controller, files[i].text);
      CHECK(count(said, "error") == 0);
      CHECK(count(said, "end\n") == 1);
    }
    CHECK(look_round_name("x", Side::Front, machine.file_ending).ends_with(machine.file_ending));
  }
  for (const char* bad : {"", "toolong", "n c", "pdf", "../x"}) CHECK_FALSE(sound_file_ending(bad));
}

TEST_CASE("a changer's bits are called by their places, and one that has none is a stop") {
  Job job = board(120, 80, 18);
  job.run.one_file = true;
  add(job, "groove", {kBox, 40, 8}, {40, 40}, cut(Kind::Incise, 1));
  add(job, "hole", {PlainShape::Kind::Ellipse, 20, 20}, {90, 40}, cut(Kind::Recess, 3, {"flat-1/8in"}));
  MachineProfile machine = machine_for(job);
  machine.bit_change = BitChange::ToolNumber;
  const auto calls = [&] {
    const std::string text = gcode_files(plan(job, load_rack(), machine)).at(0).text;
    std::set<std::string> all;
    for (std::size_t at = text.find("\nT"); at != std::string::npos; at = text.find("\nT", at + 1))
      all.insert(text.substr(at + 1, text.find(' ', at + 1) - at - 1));
    return all;
  };
  CHECK(calls() == std::set<std::string>{"T1", "T2"});  // no places told: as the files number them
  CHECK(put_into_place(machine, "flat-1/8in", 7).empty());
  CHECK(machine.places.size() == 7);
  const Plan lacks = plan(job, load_rack(), machine);
  REQUIRE(find(lacks, "not-in-changer") != nullptr);
  CHECK(find(lacks, "not-in-changer")->grade == Grade::Stop);
  CHECK(put_into_place(machine, "v60", 7) == "flat-1/8in");  // it had to make way
  CHECK(machine.tool_of("flat-1/8in", 0) == 0);
  CHECK(put_into_place(machine, "flat-1/8in", 3).empty());
  CHECK(find(plan(job, load_rack(), machine), "not-in-changer") == nullptr);
  CHECK(calls() == std::set<std::string>{"T3", "T7"});
  // Kept with the machine, and taken out again.
  CHECK(read_machines(write_machines({{machine}}), "there").machines.at(0) == machine);
  CHECK(put_into_place(machine, "v60", 0).empty());
  CHECK(put_into_place(machine, "flat-1/8in", 0).empty());
  CHECK(machine.places.empty());
}

TEST_CASE("drives that go in steps stand on one of them, and come back to where they were") {
  Figures f = figures();
  f.step = 0.05;
  Controller machine(f);
  const auto goes = [&](const std::string& lines, double x) {
    (void)run(machine, lines);
    CHECK(machine.place().x == Approx(x).margin(1e-9));
  };
  goes("G21 G90\nG1 X10.02 Y0.03 F1200\n", 10);
  CHECK(machine.place().y == Approx(0.05));
  for (int i = 0; i < 20; ++i) (void)run(machine, "G1 X10.02 F1200\nG1 X0 F1200\n");
  goes("G1 X10.03 F1200\n", 10.05);  // nothing adds up
}
