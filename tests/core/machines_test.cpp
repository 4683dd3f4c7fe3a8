// Machines as the user describes them, kept beside those that come with Doyen; what they change in the files.
#include <catch2/catch.hpp>
#include <filesystem>

#include "machine/own_machines.hpp"
#include "planning/judged.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;
namespace fs = std::filesystem;

namespace {

// The tests have no machines of the user's, before and after.
struct OwnMachines {
  OwnMachines() { clear(); }
  ~OwnMachines() {
    clear();
    (void)drop_machine("none");  // looks again
  }
  static void clear() {
    const fs::path own(own_machines_path());
    if (!fs::exists(own.parent_path())) return;
    for (const auto& entry : fs::directory_iterator(own.parent_path())) {
      if (entry.path().filename().string().starts_with("machines.json")) fs::remove(entry.path());
    }
  }
};

MachineProfile mine(const std::string& name) {
  MachineProfile m = machine_table().machines.front();
  m.id = fresh_machine_id(name);
  m.name = name;
  m.travel = {410.5, 290, 70};
  m.dwell_in_ms = true;
  m.keeps_length = true;
  m.moves_per_second = 80;
  m.moves_ahead = 15;
  m.least_step = 0.0125;
  return m;
}

Job grooved() {
  Job job = board();
  add(job, "groove", {kBox, 60, 6}, {60, 60}, cut(Kind::Incise, 1));
  return job;
}

}  // namespace

TEST_CASE("a machine of one's own is kept, found again, changed and taken away; shipped ones stay") {
  const OwnMachines none;
  const std::size_t shipped = machine_table().machines.size();
  const MachineProfile* held = &machine_table().machines.front();
  const MachineProfile m = mine("Shed 1");
  CHECK(m.id == "shed-1");
  CHECK(keep_machine(m).empty());
  REQUIRE(machine_table().machines.size() == shipped + 1);
  CHECK(*machine_table().find("shed-1") == m);
  CHECK(fresh_machine_id("Shed 1") == "shed-1-2");
  CHECK_FALSE(comes_with_doyen("shed-1"));
  CHECK(held->id == "mm-plain");  // what plans hold on to is not moved
  // Another window keeps one meanwhile: both stay.
  MachineTable theirs = read_machines(read_file(own_machines_path()), "own");
  theirs.machines.push_back(mine("Theirs"));
  write_file_atomically(own_machines_path(), write_machines(theirs));
  MachineProfile again = m;
  again.clearance = 9;
  (void)keep_machine(again);
  CHECK(machine_table().find("shed-1")->clearance == 9);
  CHECK(machine_table().find("theirs") != nullptr);
  // What a newer Doyen wrote beside it is kept.
  std::string text = read_file(own_machines_path());
  text.replace(text.find("\"clearance\""), 0, "\"laser\": {\"watts\": 5},\n   ");
  write_file_atomically(own_machines_path(), text);
  again.clearance = 7;
  again.unknown = read_machines(text, "own").machines.front().unknown;
  (void)keep_machine(again);
  CHECK(read_file(own_machines_path()).find("watts") != std::string::npos);
  (void)drop_machine("shed-1");
  (void)drop_machine("theirs");
  CHECK(machine_table().machines.size() == shipped);
  CHECK_FALSE(fs::exists(own_machines_path()));
}

TEST_CASE("a file of machines that cannot be read costs only itself, and is never overwritten") {
  const OwnMachines none;
  make_folder(fs::path(own_machines_path()).parent_path().string());
  write_file_atomically(own_machines_path(), "{ broken");
  (void)drop_machine("none");
  CHECK(read_file(own_machines_path()) == "{ broken");
  CHECK_THAT(own_machines_problem(), Catch::Contains("machines.json"));
  CHECK(machine_table().find("mm-plain") != nullptr);
  CHECK(keep_machine(mine("Mine")) == own_machines_path() + ".damaged-1");
  CHECK(read_file(own_machines_path() + ".damaged-1") == "{ broken");
  CHECK(own_machines_problem().empty());
  CHECK(machine_table().find("mine") != nullptr);
  const auto refused = [](const std::string& from, const std::string& to) {
    std::string text = write_machines({{mine("Mine")}});
    text.replace(text.find(from), from.size(), to);
    try {
      (void)read_machines(text, "own");
    } catch (const Problem& problem) {
      return std::string(problem.what());
    }
    return std::string();
  };
  CHECK_THAT(refused("\"M0\"", "\"%\""), Catch::Contains("pauseWord") && Catch::Contains("such as M0"));
  CHECK_THAT(refused("410.5", "-1"), Catch::Contains("travel") && Catch::Contains("above zero"));
  CHECK_THAT(refused("\"clearance\"", "\"clarence\""), Catch::Contains("clearance") && Catch::Contains("missing"));
}

TEST_CASE("waiting is written in the controller's unit; a touch plate is taken off by the files") {
  Job job = grooved();
  MachineProfile m = machine_for(job);
  m.spin_up_seconds = 2.5;
  const auto text = [&] { return gcode_files(plan(job, load_rack(), m)).at(0).text; };
  CHECK(text().find("G4 P2.5\n") != std::string::npos);
  m.dwell_in_ms = true;
  CHECK(text().find("G4 P2500\n") != std::string::npos);
  // Read by hand: the lowest z of the file lies the plate's thickness deeper, and the relief is the same.
  const auto lowest = [](const std::string& words) {
    double z = 1e9;
    for (std::size_t i = words.find(" Z"); i != std::string::npos; i = words.find(" Z", i + 1))
      z = std::min(z, std::stod(words.substr(i + 2)));
    return z;
  };
  const double without = lowest(text());
  job.run.plate = 12.5;
  CHECK(lowest(text()) == Approx(without - 12.5).margin(1e-3));
  const Plan p = planned(job);
  CHECK(read_back(p, gcode_files(p), 0.2).agrees());
  CHECK_THAT(zero_in_words(job), Catch::Contains("12.5 mm"));
}

TEST_CASE("a touch plate is taken off once: by the machine, by the files, or by hand and then it is said") {
  Job job = grooved();
  MachineProfile m = machine_for(job);
  const auto found = [&](const Plan& p, const std::string& code) {
    const auto v = std::find_if(p.verdicts.begin(), p.verdicts.end(), [&](const Verdict& w) { return w.code == code; });
    return v == p.verdicts.end() ? nullptr : &*v;
  };
  const char* const codes[] = {"plate-twice", "plate-differs", "plate-by-hand"};
  const auto check_only = [&](const char* code, Grade grade) {
    const Plan p = plan(job, load_rack(), m);
    const Verdict* v = nullptr;
    for (const char* each : codes) {
      CHECK((found(p, each) != nullptr) == (code != nullptr && std::string(code) == each));
      if (code != nullptr && std::string(code) == each) v = found(p, each);
    }
    if (code == nullptr) return;
    REQUIRE(v != nullptr);
    CHECK(v->grade == grade);
    REQUIRE(!v->remedies.empty());
    Job mended = job;
    v->remedies.front().apply(mended);
    const Plan after = plan(mended, load_rack(), m);
    for (const char* each : codes) CHECK(found(after, each) == nullptr);
  };
  check_only(nullptr, Grade::Note);
  m.plate = 15;
  check_only("plate-by-hand", Grade::Note);
  job.run.plate = 15;
  check_only(nullptr, Grade::Note);
  job.run.plate = 12;
  check_only("plate-differs", Grade::Mind);
  m.takes_off_plate = true;
  check_only("plate-twice", Grade::Stop);
  job.run.plate = 0;
  check_only(nullptr, Grade::Note);
  const MachineTable kept = read_machines(write_machines({{m}}), "kept");
  CHECK(kept.machines.front() == m);
}

namespace {

Plan on_steps(const Job& job, double step) {
  MachineProfile m = machine_for(job);
  m.least_step = step;
  return plan(job, load_rack(), m);
}

}  // namespace

TEST_CASE("the judge carves the files as a machine of coarse steps stands") {
  // Its walls lie 0.45 mm beside steps of 1 mm: there the machine stands.
  Job job = board();
  add(job, "slot", {kBox, 60, 12}, {60.45, 60.45}, cut(Kind::Recess, 2, {"flat-6mm"}));
  const auto faults = [&](double step) {
    const Plan p = on_steps(job, step);
    return judge_files(p, gcode_files(p), 0.1);
  };
  CHECK(faults(0).faults.empty());
  CHECK(faults(0.005).faults.empty());
  const Judgement coarse = faults(1);
  REQUIRE_FALSE(coarse.faults.empty());
  for (const Worked& w : worked_by(on_steps(job, 1), gcode_files(on_steps(job, 1)))) {
    for (const Pass& pass : w.passes) {
      for (const Point3& q : pass.points) CHECK(std::abs(std::remainder(q.x, 1)) < 1e-9);
    }
  }
}

TEST_CASE("a fit finer than the machine's steps is told, and goes with its remedy") {
  Job job = board();
  Treatment recess = cut(Kind::Recess, 2, {"flat-6mm"});
  recess.insert.thickness = 2;
  recess.insert.clearance = 0.03;
  add(job, "let-in", {kBox, 60, 40}, {60, 60}, recess);
  CHECK(find(on_steps(job, 0), "finer-than-steps") == nullptr);
  CHECK(find(on_steps(job, 0.01), "finer-than-steps") == nullptr);
  const Plan p = on_steps(job, 0.05);
  const Verdict* v = find(p, "finer-than-steps");
  REQUIRE(v != nullptr);
  REQUIRE(v->remedies.size() == 1);
  v->remedies.front().apply(job);
  CHECK(job.items.front().cut.insert.clearance == Approx(0.05));
  CHECK(find(on_steps(job, 0.05), "finer-than-steps") == nullptr);
}
