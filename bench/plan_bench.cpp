// Planning again after one piece was moved, against planning everything; how soon planning stops when it is told so.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <thread>

#include "planning/plan.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;
using Clock = std::chrono::steady_clock;

double seconds_since(Clock::time_point t) { return std::chrono::duration<double>(Clock::now() - t).count(); }

Rack rack() {
  const std::string path = data_file("rack.json");
  return read_rack(read_file(path), path);
}

// Two hundred small words, each incised.
Job many_words() {
  Job job;
  job.blank.width = 1200;
  job.blank.height = 800;
  for (int i = 0; i < 200; ++i) {
    Lettering l;
    l.words = "bed " + std::to_string(i);
    l.cap_height = 12;
    Item item;
    item.piece = {"bed-" + std::to_string(i), l.words, l, {60.0 + 115 * (i % 10), 30.0 + 38 * (i / 10)}, 0};
    item.cut.kind = Treatment::Kind::Incise;
    job.items.push_back(std::move(item));
  }
  return job;
}

void warm_plan(benchmark::State& state, const Job& start, std::size_t piece) {
  const Rack bits = rack();
  Job job = start;
  PlanCache cache;
  auto t = Clock::now();
  plan(job, bits, machine_for(job), &cache);
  const double cold = seconds_since(t);
  double warm = 0;
  for (auto _ : state) {
    job.items[piece].piece.at.x += 0.37;
    t = Clock::now();
    benchmark::DoNotOptimize(plan(job, bits, machine_for(job), &cache));
    warm += seconds_since(t);
  }
  state.counters["warm/cold"] = warm / cold / static_cast<double>(state.iterations());
}

void every_piece_of(benchmark::State& state, const char* file) {
  const Job job = load_job(data_file(file));
  const auto piece = static_cast<std::size_t>(state.range(0));
  if (piece >= job.items.size()) return state.SkipWithError("so many pieces are not there");
  state.SetLabel(job.items[piece].piece.name);
  warm_plan(state, job, piece);
}
void gate_sign(benchmark::State& state) { every_piece_of(state, "demo/gate-sign.doyen"); }
void heron_plaque(benchmark::State& state) { every_piece_of(state, "demo/heron-plaque.doyen"); }
BENCHMARK(gate_sign)->DenseRange(0, 8)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(12);
BENCHMARK(heron_plaque)->DenseRange(0, 8)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(12);
void raised_gate_sign(benchmark::State& state) { every_piece_of(state, "demo/gate-sign-raised.doyen"); }
BENCHMARK(raised_gate_sign)->DenseRange(0, 8)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(12);

void two_hundred_words(benchmark::State& state) { warm_plan(state, many_words(), 77); }
BENCHMARK(two_hundred_words)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(12);

}  // namespace
