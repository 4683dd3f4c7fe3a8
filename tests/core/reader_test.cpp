// What stands behind the proof finds what a strict reader finds: files with one thing wrong in them, each said.
#include <catch2/catch.hpp>

#include "json_reading.hpp"
#include "problem.hpp"
#include "workbench.hpp"

using namespace workbench;

TEST_CASE("a file that is cut off, says things twice or rushes through the wood is no proof") {
  Job job = board(120, 90);
  add(job, "groove", {kBox, 40, 6}, {60, 45}, cut(Kind::Incise, 1));
  const Plan p = planned(job);
  const OutputFile file = gcode_files(p).at(0);
  const auto proof = [&](const std::string& text) {
    return carve_files(plan_json(p), "plan", {{file.name, text}}, 1, Side::Front);
  };
  REQUIRE_NOTHROW(proof(file.text));
  const auto replaced = [&](const std::string& what, const std::string& by) {
    std::string text = file.text;
    const std::size_t at = text.find(what);
    REQUIRE(at != std::string::npos);
    return text.replace(at, what.size(), by);
  };
  CHECK_THROWS_WITH(proof(replaced("M30", "")), Catch::Contains("no end"));
  CHECK_THROWS_WITH(proof(file.text.substr(0, file.text.size() * 2 / 3)), Catch::Contains(file.name));
  const std::size_t feed = file.text.find(" F");
  REQUIRE(feed != std::string::npos);
  CHECK_THROWS_WITH(proof(replaced("M30", "G1 X1. X2.\nM30")), Catch::Contains("twice"));
  CHECK_THROWS_WITH(proof(replaced("M30", "G0 G1 X1.\nM30")), Catch::Contains("two motions"));
  CHECK_THROWS_WITH(proof(replaced("M30", "G0 Z-1.\nM30")), Catch::Contains("rapid"));
  std::string no_feed = file.text;
  for (std::size_t at = no_feed.find(" F"); at != std::string::npos; at = no_feed.find(" F", at))
    no_feed.erase(at, no_feed.find_first_of(" \n", at + 1) - at);
  CHECK_THROWS_WITH(proof(no_feed), Catch::Contains("feed"));
  // Cut off anywhere it is no whole file, and that is seen.
  for (std::size_t n = 40; n + 6 < file.text.size(); n += file.text.size() / 23)
    CHECK_THROWS_AS(proof(file.text.substr(0, n)), Problem);
}
