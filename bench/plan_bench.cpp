// Planning again after one piece was moved, against planning everything; how soon planning stops when it is told so.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <thread>

#include "clock.hpp"
#include "jobs.hpp"
#include "planning/judged.hpp"
#include "planning/plan.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;
Rack rack() {
  const std::string path = data_file("rack.json");
  return read_rack(read_file(path), path);
}

template <typename Change>
void plan_again(benchmark::State& state, const Job& start, Change change) {
  const Rack bits = rack();
  Job job = start;
  PlanCache cache;
  auto t = Clock::now();
  plan(job, bits, machine_for(job), &cache);
  const double cold = seconds_since(t);
  double warm = 0;
  for (auto _ : state) {
    change(job);
    t = Clock::now();
    benchmark::DoNotOptimize(plan(job, bits, machine_for(job), &cache));
    warm += seconds_since(t);
  }
  state.counters["warm/cold"] = warm / cold / static_cast<double>(state.iterations());
}

void warm_plan(benchmark::State& state, const Job& start, std::size_t piece) {
  plan_again(state, start, [piece](Job& job) { job.items[piece].piece.at.x += 0.37; });
}

// Another feed, or a thicker board: nothing that does not hang on it is cut anew.
void another_feed(benchmark::State& state, const char* file) {
  plan_again(state, load_job(data_file(file)), [](Job& job) {
    for (const Bit& bit : rack().bits) {
      Feeds feeds = bit.feeds_in("soft");
      if (!feeds.known()) continue;
      feeds.feed *= 0.9 + 0.01 * static_cast<double>(job.run.feeds.size() % 7);
      const auto [it, fresh] = job.run.feeds.try_emplace(bit.id, feeds);
      if (!fresh) it->second.feed *= 0.99;
    }
  });
}
void another_thickness(benchmark::State& state, const char* file) {
  plan_again(state, load_job(data_file(file)), [](Job& job) {
    for (double& mm : job.blank.readings) mm += 0.1;
  });
}
BENCHMARK_CAPTURE(another_feed, gate_sign, "demo/gate-sign.doyen")->Unit(benchmark::kMillisecond)->Iterations(8);
BENCHMARK_CAPTURE(another_feed, raised, "demo/gate-sign-raised.doyen")->Unit(benchmark::kMillisecond)->Iterations(8);
BENCHMARK_CAPTURE(another_thickness, gate_sign, "demo/gate-sign.doyen")->Unit(benchmark::kMillisecond)->Iterations(8);
BENCHMARK_CAPTURE(another_thickness, raised, "demo/gate-sign-raised.doyen")
    ->Unit(benchmark::kMillisecond)
    ->Iterations(8);

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

void heavy_moved(benchmark::State& state) { warm_plan(state, bench::heavy_drawing(), 0); }
void heavy_turned(benchmark::State& state) {
  Job job = bench::heavy_drawing();
  job.blank.height = 900;  // room for it whichever way it is turned
  job.items[0].piece.at = {450, 450};
  plan_again(state, job, [](Job& j) { j.items[0].piece.turn += 1.7; });
}
BENCHMARK(heavy_moved)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(12);
BENCHMARK(heavy_turned)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(12);

void two_hundred_words(benchmark::State& state) { warm_plan(state, bench::many_words(), 77); }
BENCHMARK(two_hundred_words)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(12);

// A drawing of 45,000 points, to be cleared: what planning has to stop in the middle of.
Job rough_drawing() {
  Job job;
  job.blank.width = job.blank.height = 420;
  std::string data;
  for (int k = 0; k < 45'000; ++k) {
    const double a = 2 * M_PI * k / 45'000, r = 150 + 8 * std::sin(37 * a) + 0.02 * (k % 3);
    data +=
        (k == 0 ? "M" : "L") + format_number(200 + r * std::cos(a), 4) + " " + format_number(200 + r * std::sin(a), 4);
  }
  Drawing d;
  d.page_width = d.page_height = 400;
  d.parts.edit().push_back({"a", "", data + "Z"});
  job.items.push_back({{"d", "Rough", d, {210, 210}, 0}, {}});
  job.items.back().cut.kind = Treatment::Kind::Recess;
  return job;
}

// How long plan, judge and remedies go on after they are told to stop, at the worst of so many moments.
void stops_when_told(benchmark::State& state, const Job& job) {
  const Rack bits = rack();
  const auto work = [&](const Cancel& cancel) {
    const Cancel::Scope stops(cancel);
    Plan p = plan(job, bits, machine_for(job), nullptr, cancel);
    if (!p.runs.empty()) add_judgement(p, judge_files(p, gcode_files(p), glancing_cell(job.blank), cancel));
    benchmark::DoNotOptimize(with_tried_remedies(p, bits, nullptr, cancel));
  };
  auto t = Clock::now();
  work({});
  const double whole = seconds_since(t);
  double worst = 0, at = 0;
  for (auto _ : state) {
    constexpr int kMoments = 40;
    for (int i = 0; i < kMoments; ++i) {
      Cancel cancel;
      Clock::time_point told;
      const double wait = whole * (i + 0.5) / kMoments;
      std::thread asker([&, cancel]() mutable {
        std::this_thread::sleep_for(std::chrono::duration<double>(wait));
        told = Clock::now();
        cancel.request();
      });
      bool stopped = false;
      try {
        work(cancel);
      } catch (const Cancelled&) {
        stopped = true;
      }
      const Clock::time_point ended = Clock::now();
      asker.join();
      const double took = std::chrono::duration<double>(ended - told).count();
      if (!stopped || took <= worst) continue;
      worst = took;
      at = wait;
    }
  }
  state.counters["worst_ms"] = worst * 1000;
  state.counters["told_at_ms"] = at * 1000;
  state.counters["whole_ms"] = whole * 1000;
  state.counters["worst/whole"] = worst / whole;
}
void stop_raised(benchmark::State& s) { stops_when_told(s, load_job(data_file("demo/gate-sign-raised.doyen"))); }
void stop_inlay(benchmark::State& s) { stops_when_told(s, load_job(data_file("demo/inlaid-lid.doyen"))); }
void stop_words(benchmark::State& s) { stops_when_told(s, bench::many_words()); }
void stop_rough(benchmark::State& s) { stops_when_told(s, rough_drawing()); }
BENCHMARK(stop_raised)->Unit(benchmark::kSecond)->UseRealTime()->Iterations(1);
BENCHMARK(stop_inlay)->Unit(benchmark::kSecond)->UseRealTime()->Iterations(1);
BENCHMARK(stop_words)->Unit(benchmark::kSecond)->UseRealTime()->Iterations(1);
BENCHMARK(stop_rough)->Unit(benchmark::kSecond)->UseRealTime()->Iterations(1);

}  // namespace
