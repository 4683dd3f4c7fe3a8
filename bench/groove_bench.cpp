// The whole groove plan against R: the bare Boost.Polygon Voronoi build of the same segments on one thread.
#include <benchmark/benchmark.h>
#include <malloc.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>

#include "clock.hpp"
#include "cutting/groove.hpp"
#include "lettering.hpp"
#include "planning/outputs.hpp"
#include "planning/plan.hpp"
#include "references.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;
const GrooveShape kShape{0.57735026918962573, 0, 1e9};

// R and the plan in turn, so that a machine that changes its pace changes both.
void plan_against_bare(benchmark::State& state, Threads threads, bool repeated) {
  const Region region = bench::lettering(static_cast<std::size_t>(state.range(0)), repeated);
  double bare = 0, planned = 0;
  std::size_t lifts = 0;
  double cut = 0, retraced = 0;
  for (auto _ : state) {
    bare += bench::bare_build(region);
    const auto from = Clock::now();
    const Groove groove = plan_groove(region, kShape, threads);
    planned += seconds_since(from);
    lifts = 0;
    cut = retraced = 0;
    for (const auto& place : groove.places) {
      lifts += place.island->passes.size();
      cut += place.island->cut_length;
      retraced += place.island->retraced_length;
    }
  }
  state.counters["segments"] = static_cast<double>(point_count(region));
  state.counters["plan/R"] = planned / bare;
  state.counters["R_ms"] = bare * 1000 / static_cast<double>(state.iterations());
  state.counters["lifts/island"] = static_cast<double>(lifts) / static_cast<double>(region.islands.size());
  state.counters["retraced"] = retraced / cut;
}
void one_thread(benchmark::State& s) { plan_against_bare(s, Threads::One, false); }
void two_threads(benchmark::State& s) { plan_against_bare(s, Threads::All, false); }
void repeated_glyphs(benchmark::State& s) { plan_against_bare(s, Threads::All, true); }
BENCHMARK(one_thread)->Arg(2000)->Arg(20'000)->Arg(100'000)->Unit(benchmark::kMillisecond);
BENCHMARK(two_threads)->Arg(2000)->Arg(20'000)->Arg(100'000)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(repeated_glyphs)->Arg(20'000)->Arg(100'000)->Unit(benchmark::kMillisecond)->UseRealTime();

// Everything after the diagram: the plan less the axes alone, against R.
void after_the_diagram(benchmark::State& state) {
  const Region region = bench::lettering(static_cast<std::size_t>(state.range(0)), false);
  double bare = 0, after = 0;
  for (auto _ : state) {
    bare += bench::bare_build(region);
    double axes = 0, whole = 0;
    for (const Island& island : region.islands) {
      auto from = Clock::now();
      benchmark::DoNotOptimize(medial_axis(island));
      axes += seconds_since(from);
      from = Clock::now();
      benchmark::DoNotOptimize(plan_island(island, kShape));
      whole += seconds_since(from);
    }
    after += whole - axes;
  }
  state.counters["after/R"] = after / bare;
}
BENCHMARK(after_the_diagram)->Arg(20'000)->Arg(100'000)->Unit(benchmark::kMillisecond);

// The largest resident size of a child process that plans, or does nothing when there is no region. Bytes.
double peak_of_child(const Region* region) {
  const pid_t child = fork();
  if (child == 0) {
    if (region != nullptr) benchmark::DoNotOptimize(plan_groove(*region, kShape, Threads::One));
    _exit(0);
  }
  rusage used{};
  int status = 0;
  wait4(child, &status, 0, &used);
  return static_cast<double>(used.ru_maxrss) * 1024;
}

// Bytes a segment that a plan and its making take at their peak.
void memory(benchmark::State& state) {
  const Region region = bench::lettering(static_cast<std::size_t>(state.range(0)), false);
  malloc_trim(0);
  double bytes = 0;
  for (auto _ : state) bytes = peak_of_child(&region) - peak_of_child(nullptr);
  state.counters["peak_B/segment"] = bytes / static_cast<double>(point_count(region));
}
BENCHMARK(memory)->Arg(100'000)->Unit(benchmark::kMillisecond);

// One word of the demo edited: outlines, plan of what changed, coarse picture of the whole board.
void edit_to_coarse_picture(benchmark::State& state) {
  const std::string path = data_file("rack.json");
  const Rack rack = read_rack(read_file(path), path);
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  PlanCache cache;
  plan(job, rack, machine_for(job), &cache);
  int i = 0;
  for (auto _ : state) {
    std::get<Lettering>(job.find("motto")->piece.what).words = "herbs and seeds " + std::to_string(i++ % 90 + 10);
    const Plan p = plan(job, rack, machine_for(job), &cache);
    benchmark::DoNotOptimize(relief_of(p, job.blank.box(), job.blank.width / 290));
  }
}
BENCHMARK(edit_to_coarse_picture)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
