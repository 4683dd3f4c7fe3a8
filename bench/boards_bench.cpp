// Many boards of one job: a sheet of plates whose words were planned before, and panels against the whole sign.
#include <benchmark/benchmark.h>

#include "clock.hpp"
#include "planning/further_boards.hpp"
#include "planning/plan.hpp"
#include "plates/plates.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;

Rack rack_that_ships() {
  const std::string path = data_file("rack.json");
  return read_rack(read_file(path), path);
}

double planned_in(const Job& job, const Rack& bits, PlanCache* cache) {
  const auto t = Clock::now();
  benchmark::DoNotOptimize(plan(job, bits, machine_for(job), cache));
  return seconds_since(t);
}

// A sheet of bed labels whose words were all planned before, under other names, against the first.
void sheets_of_labels(benchmark::State& state) {
  const Rack bits = rack_that_ships();
  Job job = load_job(data_file("demo/bed-labels.doyen"));
  double first = 0, alike = 0;
  for (auto _ : state) {
    PlanCache cache;
    const PlateSheet sheet = plate_sheet(job, 0);
    first += planned_in(sheet.job, bits, &cache);
    Job again = sheet.job;
    for (Item& item : again.items) {
      item.piece.id += "-again";
      item.piece.name += " again";
    }
    alike += planned_in(again, bits, &cache);
  }
  state.counters["alike/first"] = alike / first;
}
BENCHMARK(sheets_of_labels)->Unit(benchmark::kMillisecond)->Iterations(3)->UseRealTime();

// All four panels, as they are written, against the whole sign.
void four_panels(benchmark::State& state) {
  const Rack bits = rack_that_ships();
  const Job job = load_job(data_file("demo/garden-map.doyen"));
  double whole = 0, panels = 0;
  for (auto _ : state) {
    whole += planned_in(job, bits, nullptr);
    const auto t = Clock::now();
    PlanCache cache;
    for (const FurtherBoard& board : further_boards(job, bits))
      benchmark::DoNotOptimize(plan(board.job, bits, machine_for(board.job), &cache));
    panels += seconds_since(t);
  }
  state.counters["panels/whole"] = panels / whole;
}
BENCHMARK(four_panels)->Unit(benchmark::kMillisecond)->Iterations(3)->UseRealTime();

}  // namespace
