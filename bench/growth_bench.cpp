// How planning grows with a job: points of an outline, pieces, openings, words on a sunk ground. Each row's `grows` is
// the power of its size that its time rose by since the row before: 1 is as fast as the job, 2 its square.
#include <benchmark/benchmark.h>

#include <cmath>
#include <map>
#include <random>

#include "clock.hpp"
#include "planning/plan.hpp"
#include "storage/atomic_file.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;

Rack growth_rack() {
  const std::string path = data_file("rack.json");
  return read_rack(read_file(path), path);
}

Job sheet(double width, double height) {
  Job job;
  job.blank.width = width;
  job.blank.height = height;
  job.blank.margin = 2;
  return job;
}

Item drawn(const std::string& id, const std::string& data, double side, Point at, Treatment::Kind kind) {
  Drawing d;
  d.page_width = d.page_height = side;
  d.parts.edit().push_back({"a", "", data});
  Item item{{id, id, d, at, 0}, {}};
  item.cut.kind = kind;
  item.cut.bit = goes_through(kind) ? "flat-1/8in" : "v60";
  if (kind == Treatment::Kind::Recess) item.cut.clearing = {"flat-1/8in"};
  item.cut.depth = 3;
  return item;
}

// A closed line of so many points; `jitter`, mm, makes it cross itself.
std::string wavy(long points, double radius, double jitter) {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> off(-jitter, jitter);
  std::string data;
  for (long k = 0; k < points; ++k) {
    const double a = 2 * M_PI * static_cast<double>(k) / static_cast<double>(points);
    const double r = radius * (1 + 0.12 * std::sin(23 * a)) + off(random);
    data +=
        (k == 0 ? "M" : "L") + format_number(200 + r * std::cos(a), 4) + " " + format_number(200 + r * std::sin(a), 4);
  }
  return data + "Z";
}

Job outline(long points, double jitter, Treatment::Kind kind) {
  Job job = sheet(420, 420);
  job.items.push_back(drawn("outline", wavy(points, 160, jitter), 400, {210, 210}, kind));
  return job;
}

// So many little leaves, each a piece of its own.
Job leaves(long count, Treatment::Kind kind) {
  const long across = static_cast<long>(std::ceil(std::sqrt(static_cast<double>(count))));
  const double step = 36;
  Job job = sheet(static_cast<double>(across) * step + 20, static_cast<double>(across) * step + 20);
  for (long i = 0; i < count; ++i) {
    std::string data;
    for (int k = 0; k < 60; ++k) {
      const double a = 2 * M_PI * k / 60, r = 11 + 2 * std::sin(5 * a);
      data +=
          (k == 0 ? "M" : "L") + format_number(15 + r * std::cos(a), 3) + " " + format_number(15 + r * std::sin(a), 3);
    }
    const Point at{28 + step * static_cast<double>(i % across), 28 + step * static_cast<double>(i / across)};
    job.items.push_back(drawn("leaf-" + std::to_string(i), data + "Z", 30, at, kind));
  }
  return job;
}

// Lines of words that stay standing on one sunk ground.
Job raised_words(long lines) {
  Job job = sheet(1000, 700);
  for (long i = 0; i < lines; ++i) {
    Lettering l;
    l.words = "Marrowby Physic Garden";
    l.cap_height = 40;
    Item item;
    item.piece = {"line-" + std::to_string(i), l.words, l, {500, 640 - 60 * static_cast<double>(i)}, 0};
    item.cut.kind = Treatment::Kind::Raise;
    item.cut.depth = 4;
    item.cut.clearing = {"flat-1/2in", "flat-1/4in", "flat-1/8in"};
    job.items.push_back(std::move(item));
  }
  return job;
}

void grows(benchmark::State& state, const std::string& row, const Job& job) {
  static std::map<std::string, std::pair<double, double>> before;  // size and seconds
  const Rack bits = growth_rack();
  double seconds = 1e300;
  for (auto _ : state) {
    const auto t = Clock::now();
    benchmark::DoNotOptimize(plan(job, bits, machine_for(job)));
    seconds = std::min(seconds, seconds_since(t));
  }
  const auto size = static_cast<double>(state.range(0));
  state.counters["s"] = seconds;
  if (const auto last = before.find(row); last != before.end() && last->second.first < size)
    state.counters["grows"] = std::log(seconds / last->second.second) / std::log(size / last->second.first);
  before[row] = {size, seconds};
}

using Kind = Treatment::Kind;
void growth_groove(benchmark::State& s) { grows(s, "groove", outline(s.range(0), 0, Kind::Incise)); }
void growth_jittery(benchmark::State& s) { grows(s, "jittery", outline(s.range(0), 0.6, Kind::Incise)); }
void growth_recess(benchmark::State& s) { grows(s, "recess", outline(s.range(0), 0, Kind::Recess)); }
void growth_cut_out(benchmark::State& s) { grows(s, "cut out", outline(s.range(0), 0, Kind::CutOut)); }
void growth_pieces(benchmark::State& s) { grows(s, "pieces", leaves(s.range(0), Kind::Incise)); }
void growth_openings(benchmark::State& s) { grows(s, "openings", leaves(s.range(0), Kind::Pierce)); }
void growth_cut_outs(benchmark::State& s) { grows(s, "cut-outs", leaves(s.range(0), Kind::CutOut)); }
void growth_raised(benchmark::State& s) { grows(s, "raised", raised_words(s.range(0))); }

void once(benchmark::internal::Benchmark* b) { b->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1); }

BENCHMARK(growth_groove)->Apply(once)->Arg(1000)->Arg(10'000)->Arg(50'000)->Arg(200'000);
BENCHMARK(growth_jittery)->Apply(once)->Arg(1000)->Arg(5000)->Arg(20'000)->Arg(42'000);
BENCHMARK(growth_recess)->Apply(once)->Arg(1000)->Arg(10'000)->Arg(50'000)->Arg(200'000);
BENCHMARK(growth_cut_out)->Apply(once)->Arg(1000)->Arg(10'000)->Arg(50'000)->Arg(200'000);
BENCHMARK(growth_pieces)->Apply(once)->Arg(10)->Arg(100)->Arg(400)->Arg(1000);
BENCHMARK(growth_openings)->Apply(once)->Arg(10)->Arg(100)->Arg(400)->Arg(1000);
BENCHMARK(growth_cut_outs)->Apply(once)->Arg(10)->Arg(100)->Arg(400);
BENCHMARK(growth_raised)->Apply(once)->Arg(1)->Arg(3)->Arg(6)->Arg(10);

}  // namespace
