// Many boards of one job: a sheet of plates whose words were planned before, panels against the whole sign, letters
// laid on boards.
#include <benchmark/benchmark.h>

#include "clock.hpp"
#include "nesting/pack.hpp"
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

// 60 letters laid on boards, half a turn allowed, against growing all of them once by half of their gap.
void parts_on_boards(benchmark::State& state) {
  Job job;
  Lettering letters;
  letters.words = "MARROWBYPHYSICGARDEN\nBEETBORAGECHERVILDILLS\nENDIVEFENNELGARLICHYSSOP";
  letters.face = {"EB Garamond", "Bold"};
  letters.cap_height = 60;
  Item item{{"letters", "Letters", letters, {600, 300}, 0}, {}};
  item.cut.kind = Treatment::Kind::CutOut;
  job.items = {item};
  std::vector<Region> parts;
  const Outlines drawn = job.outlines(job.items[0]);
  for (const Island& island : drawn.region.islands) parts.push_back(Region{{island}});
  const std::vector<Region> boards(4, region_of(Box{0, 0, 600, 300}));
  double grown = 0, laid = 0;
  for (auto _ : state) {
    auto t = Clock::now();
    for (const Region& part : parts) benchmark::DoNotOptimize(grow(part, 5));
    grown += seconds_since(t);
    t = Clock::now();
    benchmark::DoNotOptimize(pack(parts, boards, 10, {0, 180}));
    laid += seconds_since(t);
  }
  state.counters["parts"] = static_cast<double>(parts.size());
  state.counters["laid/grown"] = laid / grown;
}
BENCHMARK(parts_on_boards)->Unit(benchmark::kMillisecond)->Iterations(3)->UseRealTime();

}  // namespace
