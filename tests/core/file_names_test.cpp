// What the files are called: cases by hand, and rules over random names.
#include <algorithm>
#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "json_reading.hpp"
#include "planning/again.hpp"
#include "planning/file_names.hpp"
#include "run/plain_words.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"
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

TEST_CASE("files and folders are called in the user's language, in letters that every controller shows") {
  // By hand: what is said is made plain; what no small display has is spelled out.
  CHECK(word_in_file("Dateien: Räume aus") == "raume-aus");
  CHECK(word_in_file("Straße") == "strasse");
  const std::string path = data_file("words/de.json");
  const Json words = parse_json(read_file(path), path);
  struct Speaking {
    explicit Speaking(const Json& w) {
      speak([&w](std::string_view english) {
        const auto found = w["core"].find(std::string(english));
        return found == w["core"].end() ? std::string() : found->get<std::string>();
      });
    }
    ~Speaking() { speak({}); }
  };
  Job job = board(240, 160, 18);
  job.name = "Tor";
  add(job, "recess", {kBox, 60, 40}, {60, 60}, cut(Kind::Recess, 3, {"flat-1/4in-down"}));
  add(job, "groove", {kBox, 40, 6}, {150, 60}, cut(Kind::Incise, 1));
  add(job, "out", {kBox, 220, 140}, {120, 80}, cut(Kind::CutOut, 0));
  const auto names = [&] {
    std::vector<std::string> all;
    for (const BitRun& run : planned(job).runs) all.push_back(run.file);
    all.push_back(again_from(planned(job), 0, 0).name);
    return all;
  };
  const std::vector<std::string> english = names();
  CHECK(english[0].find("1-4in-down-clear") != std::string::npos);
  const Speaking german(words);
  const std::vector<std::string> said = names();
  REQUIRE(said.size() == english.size());
  for (std::size_t i = 0; i < said.size(); ++i) {
    INFO(said[i] << " for " << english[i]);
    CHECK(said[i].size() <= 60);
    CHECK(said[i].find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789-.") == std::string::npos);
    for (const char* word : {"carve", "clear", "cut-out", "down", "again"})
      CHECK(said[i].find(word) == std::string::npos);
  }
}
