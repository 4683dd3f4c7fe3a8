// The files of a job stand in their folder as one set; nothing that is not of this job's last set is ever touched.
#include <catch2/catch.hpp>
#include <filesystem>

#include "command_line.hpp"
#include "files/output_set.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"
#include "tests/core/failing_calls.hpp"

using namespace doyen;
using command_line::Folder;
namespace fs = std::filesystem;

namespace {

// On a strip: its picture is small, and writing it takes a fifth of a second.
Job small(const std::string& name, double size = 40) {
  Job job;
  job.name = name;
  job.blank.width = 160;
  job.blank.height = 24;
  job.blank.margin = 2;
  Item item;
  item.piece = {"groove", "Groove", PlainShape{PlainShape::Kind::Ellipse, size, size / 4}, {80, 12}, 0};
  item.cut.kind = Treatment::Kind::Incise;
  item.cut.bit = "v60";
  job.items = {item};
  return job;
}

Written write(const Job& job, const std::string& folder, OutputOrder order) {
  return write_outputs(plan(job, load_rack(), machine_for(job)), {}, folder, order);
}

std::map<std::string, std::string> contents(const fs::path& folder) {
  std::map<std::string, std::string> all;
  for (const auto& entry : fs::recursive_directory_iterator(folder)) {
    if (entry.is_regular_file()) all[fs::relative(entry.path(), folder).string()] = read_file(entry.path().string());
  }
  return all;
}

template <typename Do>
std::string refusal(Do act) {
  try {
    act();
  } catch (const Problem& problem) {
    CHECK(problem.kind() == Problem::Kind::InTheWay);
    return problem.what();
  }
  return {};
}

}  // namespace

TEST_CASE("a job replaces its own last set, whole, and takes away what is left of it") {
  const Folder out;
  write(small("Gate"), out / "o", {false, false, {"a"}});
  write_file_atomically(out / "o/letter.txt", "mine");
  const auto first = contents(out / "o");
  REQUIRE(first.contains("01-gate-v60-carve.nc"));
  Job other = small("Gate");
  other.items[0].cut.bit = "v90";
  write(other, out / "o", {false, false, {"a"}});
  const auto now = contents(out / "o");
  CHECK_FALSE(now.contains("01-gate-v60-carve.nc"));
  CHECK(now.contains("01-gate-v90-carve.nc"));
  CHECK(now.at("letter.txt") == "mine");
}

TEST_CASE("another job's set is asked about by its name, and stays") {
  const Folder out;
  write(small("Gate"), out / "o", {false, false, {"a"}});
  const auto before = contents(out / "o");
  const std::string said = refusal([&] { write(small("Fingerpost", 30), out / "o", {false, false, {"b"}}); });
  CHECK(said.find("Gate") != std::string::npos);
  CHECK(said.find("plan.json") != std::string::npos);
  CHECK(contents(out / "o") == before);
  // The same name is not the same job; a job that got a file since is.
  CHECK_FALSE(refusal([&] { write(small("Gate", 30), out / "o", {false, false, {"c"}}); }).empty());
  CHECK(refusal([&] { write(small("Gate", 30), out / "o", {false, false, {"saved", "a"}}); }).empty());
  CHECK(refusal([&] { write(small("Fingerpost", 30), out / "o", {false, true, {"b"}}); }).empty());
}

TEST_CASE("files that Doyen did not write, or that were changed since, are never touched unasked") {
  const Folder out;
  fs::create_directories(out / "o");
  write_file_atomically(out / "o/01-gate-v60-carve.nc", "somebody's");
  CHECK(refusal([&] {
          write(small("Gate"), out / "o", {false, false, {"a"}});
        }).find("01-gate-v60-carve.nc") != std::string::npos);
  CHECK(contents(out / "o").size() == 1);
  fs::remove(out / "o/01-gate-v60-carve.nc");
  write(small("Gate"), out / "o", {false, false, {"a"}});
  write_file_atomically(out / "o/01-gate-v60-carve.nc",
                        read_file(out / "o/01-gate-v60-carve.nc") + "(edited by hand)\n");
  const auto before = contents(out / "o");
  CHECK(refusal([&] {
          write(small("Gate", 30), out / "o", {false, false, {"a"}});
        }).find("changed") != std::string::npos);
  CHECK(contents(out / "o") == before);
  // A file of the last set that was changed by hand and does not come again stays where it is.
  Job other = small("Gate", 30);
  other.items[0].cut.bit = "v90";
  write(other, out / "o", {false, false, {"a"}});
  CHECK(contents(out / "o").at("01-gate-v60-carve.nc").find("edited by hand") != std::string::npos);
  // A plan that names files outside its folder takes none of them away.
  write_file_atomically(out / "dear.txt", "dear");
  std::string evil = read_file(out / "o/plan.json");
  evil.replace(evil.find("\"name\": \"01-gate-v90-carve.nc\""), 30, "\"name\": \"../dear.txt\"");
  write_file_atomically(out / "o/plan.json", evil);
  write(other, out / "o", {false, true, {"a"}});
  CHECK(read_file(out / "dear.txt") == "dear");
}

TEST_CASE("a set that cannot be completed leaves the old one whole", "[heavy]") {  // every call: file_set_test
  const Folder out;
  const Plan first = plan(small("Gate"), load_rack(), machine_for(small("Gate")));
  const Plan second = plan(small("Gate", 30), load_rack(), machine_for(small("Gate", 30)));
  const OutputOrder order{false, false, {"a"}};
  int calls = 0;
  {
    write_outputs(first, {}, out / "count", order);
    workbench::Failing count(-1, false);
    const SystemCalls::Instead instead(count);
    write_outputs(second, {}, out / "count", order);
    calls = count.seen;
  }
  const int step = std::max(1, calls / 5);
  for (int n = 1; n <= calls; n += step) {
    INFO("call " << n << " of " << calls);
    const std::string folder = out / ("o" + std::to_string(n));
    write_outputs(first, {}, folder, order);
    const auto old = contents(folder);
    bool threw = false;
    {
      workbench::Failing failing(n, false);
      const SystemCalls::Instead instead(failing);
      try {
        write_outputs(second, {}, folder, order);
      } catch (const Problem&) {
        threw = true;
      }
    }
    auto now = contents(folder);
    std::erase_if(now, [](const auto& file) { return file.first.rfind(".doyen-replacing-", 0) == 0; });
    CHECK((now == old) == threw);
  }
}
