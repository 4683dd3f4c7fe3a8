// Boards laid out: when the first and the sixth arrangement are there, against one cold plan of the same board.
#include <benchmark/benchmark.h>

#include <chrono>

#include "arrange/arrangement.hpp"
#include "clock.hpp"
#include "rack/own_rack.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;
void arranging(benchmark::State& state, const char* demo) {
  const Job job = load_job(data_file(std::string("demo/") + demo + ".doyen"));
  const Rack rack = load_shipped_rack();
  const ArrangeWish wish = usual_wish(job);
  for ([[maybe_unused]] auto _ : state) {
    auto from = Clock::now();
    benchmark::DoNotOptimize(plan(job, rack, machine_for(job)));
    const double planned = seconds_since(from);
    from = Clock::now();
    double first = 0, sixth = 0;
    std::size_t told = 0;
    propose(job, rack, wish, 6, {}, [&](const Arrangement&) {
      sixth = seconds_since(from);
      if (++told == 1) first = sixth;
    });
    state.counters["first_ms"] = 1e3 * first;
    state.counters["sixth_ms"] = 1e3 * sixth;
    state.counters["first/plan"] = first / planned;
    state.counters["sixth/6_plans"] = sixth / (6 * planned);
  }
}
BENCHMARK_CAPTURE(arranging, gate_sign, "gate-sign")->Iterations(3)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(arranging, raised, "gate-sign-raised")->Iterations(2)->Unit(benchmark::kMillisecond);

}  // namespace
