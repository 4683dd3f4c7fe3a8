// The proof of an inlay against the bare carving of both halves from the same moves.
#include <benchmark/benchmark.h>

#include <chrono>

#include "clock.hpp"
#include "inlay/fit.hpp"
#include "rack/own_rack.hpp"
#include "relief/carve.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;
struct Lid {
  Job job = load_job(data_file("demo/inlaid-lid.doyen"));
  Rack rack = load_rack();
  Plan pocket = plan(job, rack, machine_for(job));
  FurtherBoard board = plug_boards(job).at(0);
  Plan plug = plan(board.job, rack, machine_for(board.job));
};

const Lid& lid() {
  static const Lid kept;
  return kept;
}

void bare_carving(const std::vector<Halves::Stay>& stays, const Box& box, double cell) {
  HeightField field(box, cell);
  field.clear();
  for (const Halves::Stay& stay : stays) carve(field, stay.passes, stay.bit);
  benchmark::DoNotOptimize(field.row(0));
}

// Mating, with gaps and places, at the cell that the window uses.
void inlay_fit(benchmark::State& state) {
  const Halves halves = halves_of(lid().pocket, lid().plug, lid().board.places[0]);
  const double cell = fit_cell(halves.art);
  const Box box = bounds(halves.art).grown(3);
  const Point a = halves.place.on_plug({box.left, box.bottom}), b = halves.place.on_plug({box.right, box.top});
  const Box own{std::min(a.x, b.x), std::min(a.y, b.y), std::max(a.x, b.x), std::max(a.y, b.y)};
  double bare = 0, whole = 0;
  for (auto _ : state) {
    Clock::time_point start = Clock::now();
    bare_carving(halves.pocket, box, cell);
    bare_carving(halves.plug, own, cell);
    bare += seconds_since(start);
    start = Clock::now();
    const Fit fit = mate(halves, cell);
    benchmark::DoNotOptimize(face_after(fit, 0).widest_gap);
    benchmark::DoNotOptimize(binding_places(fit).size());
    whole += seconds_since(start);
  }
  state.counters["ratio"] = whole / bare;
  state.counters["ms"] = 1000 * whole / static_cast<double>(state.iterations());
}
BENCHMARK(inlay_fit)->Unit(benchmark::kMillisecond)->Iterations(5);

// Writing both boards' G-code, reading it back, and taking it for the proof, against the mating itself.
void inlay_files(benchmark::State& state) {
  double files = 0, mating = 0;
  for (auto _ : state) {
    Clock::time_point start = Clock::now();
    const Halves halves = halves_of(lid().pocket, lid().plug, lid().board.places[0]);
    files += seconds_since(start);
    start = Clock::now();
    benchmark::DoNotOptimize(mate(halves, fit_cell(halves.art)).rides_up);
    mating += seconds_since(start);
  }
  state.counters["ratio"] = files / mating;
  state.counters["ms"] = 1000 * files / static_cast<double>(state.iterations());
}
BENCHMARK(inlay_files)->Unit(benchmark::kMillisecond)->Iterations(5);

}  // namespace
