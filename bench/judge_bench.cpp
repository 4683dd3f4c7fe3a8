// What judging the written files costs beside carving the same relief at the same cells; and what an edit costs.
#include <benchmark/benchmark.h>

#include <chrono>

#include "clock.hpp"
#include "planning/judged.hpp"
#include "rack/own_rack.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;
void judge(benchmark::State& state, const char* demo) {
  const Job job = load_job(data_file("demo/" + std::string(demo) + ".doyen"));
  const Rack rack = load_rack();
  const Plan p = plan(job, rack, machine_for(job));
  const std::vector<OutputFile> files = gcode_files(p);
  const double cell = writing_cell(job.blank);
  Job moved = job;
  moved.items.back().piece.at.x += 1;
  const Plan then = plan(moved, rack, machine_for(moved));
  const std::vector<OutputFile> files_then = gcode_files(then);
  double carved = 0, judged = 0, edited = 0, read = 0;
  for (auto _ : state) {
    auto from = Clock::now();
    benchmark::DoNotOptimize(relief_of(p, job.blank.box(), cell).at(0, 0));
    carved += seconds_since(from);
    from = Clock::now();
    benchmark::DoNotOptimize(worked_by(p, files).size());
    read += seconds_since(from);
    JudgeMemory memory;
    from = Clock::now();
    benchmark::DoNotOptimize(judge_files(p, files, cell, {}, &memory).within);
    judged += seconds_since(from);
    from = Clock::now();
    benchmark::DoNotOptimize(judge_files(then, files_then, cell, {}, &memory).within);
    edited += seconds_since(from);
  }
  state.counters["judge/carve"] = (judged - read) / carved;
  state.counters["read/carve"] = read / carved;
  state.counters["edit/judge"] = edited / judged;
}
BENCHMARK_CAPTURE(judge, gate_sign, "gate-sign")->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(judge, gate_sign_raised, "gate-sign-raised")->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(judge, seed_drawer, "seed-drawer")->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
