// A file of 30 MB written, stored and read back, against the least that it takes: its words by std::to_chars into one
// buffer, given to the disk by one fwrite.
#include <benchmark/benchmark.h>

#include <charconv>
#include <cmath>
#include <cstdio>
#include <filesystem>

#include "clock.hpp"
#include "planning/plan.hpp"
#include "run/gcode.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;

// Letters' worth of passes that go up and down along small waves: every move writes three words.
std::vector<Pass> long_passes(std::size_t moves) {
  std::vector<Pass> passes;
  for (std::size_t k = 0; k < moves; ++k) {
    if (k % 2000 == 0) passes.emplace_back();
    const auto t = static_cast<double>(k % 2000);
    const auto row = static_cast<double>(k / 2000);
    passes.back().points.push_back(
        {20 + t * 0.2137, 10 + std::fmod(row, 250) + 0.4 * std::sin(t * 0.31), -2 - 1.5 * std::sin(t * 0.17)});
  }
  return passes;
}

double least_it_takes(const std::vector<Pass>& passes, const std::string& path) {
  const auto t = Clock::now();
  std::string text;
  const auto word = [&](char letter, double v) {
    char buffer[40];
    buffer[0] = ' ';
    buffer[1] = letter;
    const char* end = std::to_chars(buffer + 2, buffer + sizeof buffer, v, std::chars_format::fixed, 4).ptr;
    text.append(static_cast<const char*>(buffer), end);
  };
  for (const Pass& pass : passes) {
    for (const Point3& p : pass.points) {
      text += "G1";
      word('X', p.x);
      word('Y', p.y);
      word('Z', p.z);
      text += '\n';
    }
  }
  if (std::FILE* file = std::fopen(path.c_str(), "wb")) {
    std::fwrite(text.data(), 1, text.size(), file);
    std::fclose(file);
  }
  return seconds_since(t);
}

void long_file(benchmark::State& state) {
  const std::string folder = std::filesystem::temp_directory_path() / "doyen-long-file";
  make_folder(folder);
  const std::vector<Pass> passes = long_passes(1'050'000);
  const std::string rack_file = data_file("rack.json");
  const Rack rack = read_rack(read_file(rack_file), rack_file);
  const Bit& bit = *rack.find("v60");
  MachineProfile machine = machine_table().machines.front();
  machine.travel = {2000, 2000, 200};
  GcodeJob job{"long", "the face, left front corner of the board", {}};
  job.parts.push_back({&bit, {1500, 500, 18000}, 1, {&passes}});
  double least = 0, wrote = 0, stored = 0, read = 0;
  std::size_t bytes = 0, points = 0;
  for (auto _ : state) {
    least += least_it_takes(passes, folder + "/least.nc");
    auto t = Clock::now();
    const std::string text = write_gcode(job, machine);
    wrote += seconds_since(t);
    t = Clock::now();
    write_file_atomically(folder + "/long.nc", text);
    stored += seconds_since(t);
    t = Clock::now();
    const GcodeProgram program = read_gcode(read_file(folder + "/long.nc"), "long.nc");
    read += seconds_since(t);
    bytes = text.size();
    points = 0;
    for (const Pass& pass : program.sections.front().passes) points += pass.points.size();
  }
  std::filesystem::remove_all(folder);
  if (points < 1'000'000) state.SkipWithError("it was not read back whole");
  state.counters["MB"] = static_cast<double>(bytes) / 1e6;
  state.counters["written/least"] = wrote / least;
  state.counters["stored/least"] = stored / least;
  state.counters["read/least"] = read / least;
  state.counters["all/least"] = (wrote + stored + read) / least;
}
BENCHMARK(long_file)->Unit(benchmark::kMillisecond)->Iterations(3)->UseRealTime();

}  // namespace
