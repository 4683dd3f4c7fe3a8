// Clearing round raised lettering on a 1000 × 700 mm board with three bits, against the bare Clipper offsetting of the
// same rings; and a relief that follows an edit against one that is carved anew.
#include <benchmark/benchmark.h>

#include <chrono>

#include "clock.hpp"
#include "cutting/clearing.hpp"
#include "geometry/axis_rings.hpp"
#include "lettering.hpp"
#include "planning/outputs.hpp"
#include "planning/relief_keeper.hpp"
#include "references.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;
// Lettering that stays on a board of 1000 × 700 mm, sunk round it; flanks of 60 degrees, 6 mm deep.
Region sunk_floor() {
  Region letters;
  for (const Island& island : bench::lettering(25'000, false).islands) {
    const Box box = bounds(island);
    if (box.left > 830 && box.right < 1800 && box.bottom > 15 && box.top < 685) letters.islands.push_back(island);
  }
  letters = transformed(letters, Transform::move(-815, 0));
  return grow(subtract(clean({{{0, 0}, {1000, 0}, {1000, 700}, {0, 700}}}), letters), -6 * 0.57735026918962573);
}

// All rings of letters whose axes are there anyway, so many in the widest stroke, against Clipper's offsetting of the
// same ones, step by step.
void rings_out_of_the_axis(benchmark::State& state) {
  const Region letters = bench::lettering(5'000, false);
  std::vector<MedialAxis> axes;
  double widest = 0;
  for (const Island& island : letters.islands) {
    axes.push_back(medial_axis(island));
    for (const MedialAxis::Vertex& v : axes.back().vertices) widest = std::max(widest, v.r);
  }
  const double step = widest / static_cast<double>(state.range(0));
  double ours = 0, theirs = 0;
  std::size_t points = 0, untold = 0;
  for (auto _ : state) {
    points = untold = 0;
    const auto from = Clock::now();
    for (const MedialAxis& axis : axes) {
      const AxisRings rings(axis);
      for (double d = step; d < rings.widest(); d += step) {
        const auto lines = rings.at(d);
        untold += !lines;
        if (!lines) continue;
        for (const Line2& line : *lines) points += line.size();
      }
    }
    ours += seconds_since(from);
    theirs += bench::bare_offsets(letters, step, step);
  }
  state.counters["axis/offsetting"] = ours / theirs;
  state.counters["points"] = static_cast<double>(points);
  state.counters["untold"] = static_cast<double>(untold);
}
BENCHMARK(rings_out_of_the_axis)->Arg(17)->Arg(55)->Unit(benchmark::kMillisecond)->UseRealTime();

// Bit after bit on one processor (0), or all of them on both (1).
void clearing(benchmark::State& state) {
  const Region floor = sunk_floor();
  std::vector<ClearingShape> bits(3);
  for (std::size_t i = 0; i < bits.size(); ++i) {
    bits[i].diameter = 12.7 / std::pow(2, i);
    bits[i].floor = -6;
    bits[i].depth_per_pass = 6;
  }
  double ours = 0, theirs = 0;
  std::size_t points = 0;
  for (auto _ : state) {
    const auto from = Clock::now();
    std::vector<std::vector<Pass>> passes;
    if (state.range(0) == 1) {
      passes = clear_in_turn(DrawnIn(floor), bits);
    } else {
      Region already;
      for (const ClearingShape& shape : bits) {
        Region reached;
        passes.push_back(clear_floor(floor, already, shape, {}, &reached));
        already = std::move(reached);
      }
    }
    ours += seconds_since(from);
    points = 0;
    for (const std::vector<Pass>& by_one : passes) {
      for (const Pass& pass : by_one) points += pass.points.size();
    }
    // A bit that follows a larger one has only what is left to go round; bare offsetting of the whole floor by each
    // bit is what a plain planner would do.
    for (const ClearingShape& shape : bits)
      theirs += bench::bare_offsets(floor, shape.diameter / 2, 0.4 * shape.diameter);
  }
  state.counters["floor_points"] = static_cast<double>(point_count(floor));
  state.counters["path_points"] = static_cast<double>(points);
  state.counters["clearing/offsetting"] = ours / theirs;
}
BENCHMARK(clearing)->ArgName("both")->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond)->UseRealTime()->MinTime(0.1);

// The first bit alone: the same rings by both, so the ratio is what ordering, joining and ramps cost.
void clearing_one_bit(benchmark::State& state) {
  const Region floor = sunk_floor();
  const double d = static_cast<double>(state.range(0)) / 1000;
  double ours = 0, theirs = 0;
  for (auto _ : state) {
    ClearingShape shape;
    shape.diameter = d;
    shape.floor = -6;
    shape.depth_per_pass = 6;
    auto from = Clock::now();
    benchmark::DoNotOptimize(clear_floor(floor, {}, shape));
    ours += seconds_since(from);
    theirs += bench::bare_offsets(floor, d / 2, 0.4 * d);
  }
  state.counters["ours_s"] = ours / static_cast<double>(state.iterations());
  state.counters["clearing/offsetting"] = ours / theirs;
}
BENCHMARK(clearing_one_bit)
    ->Arg(12700)
    ->Arg(6350)
    ->Arg(3175)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->MinTime(0.1);

// One piece of the raised demo moved: its relief brought up to date, against carving all of it.
void relief_after_edit(benchmark::State& state) {
  const std::string path = data_file("rack.json");
  const Rack rack = read_rack(read_file(path), path);
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  const double cell = 0.25;
  PlanCache cache;
  ReliefKeeper keeper;
  keeper.bring_up(plan(job, rack, machine_for(job), &cache), job.blank.box(), cell, Side::Front);
  double follow = 0, anew = 0;
  int i = 0;
  for (auto _ : state) {
    job.find("sprig")->piece.at.x += ++i % 2 == 0 ? 1 : -1;
    const Plan p = plan(job, rack, machine_for(job), &cache);
    auto from = Clock::now();
    keeper.bring_up(p, job.blank.box(), cell, Side::Front);
    follow += seconds_since(from);
    from = Clock::now();
    benchmark::DoNotOptimize(relief_of(p, job.blank.box(), cell));
    anew += seconds_since(from);
  }
  state.counters["follow/anew"] = follow / anew;
}
BENCHMARK(relief_after_edit)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
