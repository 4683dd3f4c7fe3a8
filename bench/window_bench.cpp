// The window with the demo: from nothing to its first painted frame, against an empty window of Qt's.
#include <benchmark/benchmark.h>

#include <QApplication>
#include <QMainWindow>
#include <chrono>

#include "main_window.hpp"

namespace {

using namespace doyen;
using Clock = std::chrono::steady_clock;

double seconds_since(Clock::time_point t) { return std::chrono::duration<double>(Clock::now() - t).count(); }

void start_to_first_paint(benchmark::State& state) {
  double ours = 0, empty = 0;
  for (auto _ : state) {
    auto from = Clock::now();
    {
      QMainWindow window;
      window.resize(1280, 800);
      window.show();
      QApplication::processEvents();
    }
    empty += seconds_since(from);
    from = Clock::now();
    MainWindow window;
    window.open_demo();
    window.show();
    QApplication::processEvents();
    ours += seconds_since(from);
    state.PauseTiming();
    window.planner().cancel();
    state.ResumeTiming();
  }
  state.counters["ours_ms"] = ours * 1000 / static_cast<double>(state.iterations());
  state.counters["ours/empty"] = ours / empty;
}
BENCHMARK(start_to_first_paint)->Unit(benchmark::kMillisecond)->Iterations(5)->UseRealTime();

}  // namespace
