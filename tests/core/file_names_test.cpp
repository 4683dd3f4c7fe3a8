// What the files are called: cases by hand, and rules over random names.
#include <algorithm>
#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "planning/file_names.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

TEST_CASE("a file's name says number, job, bit, its direction and what it does, and no two of a job are alike") {
  // By hand: whole words up to thirteen letters; what a derived job adds behind its comma, with its number.
  CHECK(job_in_file("Marrowby gate sign") == "marrowby-gate");
  CHECK(job_in_file("Ätzstraße 12") == "atzstrasse-12");
  CHECK(job_in_file("Donaudampfschifffahrt") == "donaudampfsch");
  CHECK(job_in_file("Lid, plugs of sugar maple") == "lid-plugs");
  CHECK(job_in_file("Labels, sheet 2 of 4") == "labels-sheet-2");
  CHECK(job_in_file("../; rm *") == "rm");
  CHECK(job_in_file(" , ").empty());
  std::mt19937 random(3);
  for (int round = 0; round < 12; ++round) {
    Job job = board(240, 160, 18);
    job.name = std::string(random() % 30, static_cast<char>('!' + random() % 90)) + " x";
    add(job, "recess", {kBox, 60, 40}, {60, 60}, cut(Kind::Recess, 3, {"flat-1/4in", "flat-1/8in"}));
    add(job, "groove", {kBox, 40, 6}, {150, 60}, cut(Kind::Incise, 1));
    add(job, "out", {kBox, 220, 140}, {120, 80}, cut(Kind::CutOut, 0));
    std::set<std::string> names;
    const Plan p = planned(job);
    for (const BitRun& run : p.runs) {
      INFO(run.file);
      names.insert(run.file);
      CHECK(run.file.size() <= 60);
      CHECK(run.file.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789-.") == std::string::npos);
      CHECK(run.file.starts_with("0" + std::to_string(names.size()) + "-"));
      CHECK((run.file.find("cut-out") != std::string::npos) ==
            std::any_of(run.operations.begin(), run.operations.end(),
                        [](const Operation* op) { return op->kind == Operation::Kind::Profile; }));
    }
    CHECK(names.size() == p.runs.size());
  }
}
