// The time that is told against the time that the written files take: by a look-ahead of its own
// (bench/file_seconds.py) that knows nothing but the files' words. And what the demos take, so that nobody makes them
// slower unawares.
#include <catch2/catch.hpp>
#include <map>

#include "command_line.hpp"
#include "json_reading.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;
using namespace command_line;

namespace {

Json seconds_of(const std::string& machine, const std::vector<std::string>& files) {
  std::string command = "python3 " + data_file("../bench/file_seconds.py") + " --json --machine " + machine;
  for (const std::string& file : files) command += " '" + file + "'";
  const Ended e = run(command);
  INFO(e.said);
  REQUIRE(e.code == 0);
  return parse_json(e.said, "file_seconds.py");
}

}  // namespace

TEST_CASE("every file takes what the plan says, to 3 per cent, by an independent look-ahead", "[heavy]") {
  // Seconds (rounded up by 2 per cent), lifts and lines of both boards, as they are today.
  struct Most {
    double seconds;
    int lifts, lines;
  };
  const std::map<std::string, Most> demos = {
      {"gate-sign", {843, 68, 19'500}},     {"gate-sign-raised", {2385, 216, 24'100}},
      {"heron-plaque", {1785, 77, 17'800}}, {"seed-drawer", {665, 30, 4'000}},
      {"fingerpost", {655, 80, 13'450}},    {"inlaid-lid", {1790, 140, 14'700}},
      {"test-ladder", {390, 63, 3'130}},    {"sundial-plate", {700, 100, 2'130}},
  };
  const Folder out;
  for (const auto& [name, most] : demos) {
    INFO(name);
    const Ended e = doyen_cli("plan " + data_file("demo/" + name + ".doyen") + " --out " + (out / name));
    INFO(e.said);
    REQUIRE(e.code == 0);
    double seconds = 0;
    int lifts = 0, lines = 0;
    for (const auto& entry : fs::recursive_directory_iterator(out.path / name)) {
      if (entry.path().filename() != "plan.json") continue;
      const Json plan = parse_json(read_file(entry.path()), "plan.json");
      std::vector<std::string> files;
      for (const Json& file : plan["files"])
        files.push_back((entry.path().parent_path() / file["path"].get<std::string>()).string());
      const Json timed = seconds_of(plan["machine"]["id"].get<std::string>(), files);
      REQUIRE(timed.size() == files.size());
      for (std::size_t i = 0; i < files.size(); ++i) {
        INFO(files[i]);
        const double told = plan["files"][i]["seconds"].get<double>(), took = timed[i]["seconds"].get<double>();
        CHECK(told == Approx(took).epsilon(0.03));
        seconds += took;
        lifts += timed[i]["lifts"].get<int>();
        lines += timed[i]["lines"].get<int>();
      }
    }
    CHECK(seconds <= most.seconds);
    CHECK(lifts <= most.lifts);
    CHECK(lines <= most.lines);
  }
}

TEST_CASE("a slow controller's files take what the plan says, too, and what it holds back is said", "[heavy]") {
  const Folder out;
  for (const std::string name : {"gate-sign", "seed-drawer"}) {
    INFO(name);
    Json job = parse_json(read_file(data_file("demo/" + name + ".doyen")), name);
    const auto seconds_on = [&](const std::string& machine) {
      job["run"]["machine"] = machine;
      const std::string file = out / (machine + ".doyen"), folder = out / (name + machine);
      write_file_atomically(file, json_text(job, 1));
      const Ended e = doyen_cli("plan " + file + " --out " + folder);
      INFO(e.said);
      REQUIRE(e.code == 0);
      const Json plan = parse_json(read_file(folder + "/plan.json"), "plan.json");
      std::vector<std::string> files;
      for (const Json& one : plan["files"]) files.push_back(folder + "/" + one["path"].get<std::string>());
      const Json timed = seconds_of(machine, files);
      double told = 0;
      for (std::size_t i = 0; i < files.size(); ++i) {
        INFO(files[i]);
        told += plan["files"][i]["seconds"].get<double>();
        CHECK(plan["files"][i]["seconds"].get<double>() == Approx(timed[i]["seconds"].get<double>()).epsilon(0.03));
      }
      bool held = false;
      for (const Json& verdict : plan["verdicts"]) held = held || verdict["code"] == "controller-slow";
      CHECK(held == (machine == "mm-slow" && name == "gate-sign"));
      return told;
    };
    CHECK(seconds_on("mm-slow") > seconds_on("mm-plain"));
  }
}
