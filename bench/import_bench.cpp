// Reading drawings, beside the time that librsvg takes to render the same file at 1000 px.
#include <benchmark/benchmark.h>
#include <cairo.h>
#include <librsvg/rsvg.h>

#include <algorithm>
#include <chrono>
#include <filesystem>

#include "clock.hpp"
#include "files/svg/svg_read.hpp"
#include "problem.hpp"
#include "storage/atomic_file.hpp"

namespace {

using namespace doyen;
namespace fs = std::filesystem;
void render(const std::string& path) {
  GError* error = nullptr;
  RsvgHandle* handle = rsvg_handle_new_from_file(path.c_str(), &error);
  if (handle == nullptr) return;
  cairo_surface_t* surface = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, 1000, 1000);
  cairo_t* cairo = cairo_create(surface);
  const RsvgRectangle page{0, 0, 1000, 1000};
  rsvg_handle_render_document(handle, cairo, &page, nullptr);
  cairo_destroy(cairo);
  cairo_surface_destroy(surface);
  g_object_unref(handle);
}

// Every so-manieth drawing of Debian's openclipart-svg under 400 kB; the median and the worst ratio.
void import_of_openclipart(benchmark::State& state) {
  std::vector<std::string> all;
  std::error_code gone;
  for (const auto& entry : fs::recursive_directory_iterator("/usr/share/openclipart", gone)) {
    if (entry.path().extension() == ".svg" && fs::file_size(entry.path()) < 400'000)
      all.push_back(entry.path().string());
  }
  std::sort(all.begin(), all.end());
  if (all.empty()) return state.SkipWithError("openclipart-svg is not installed");
  std::vector<double> ratios;
  double ours = 0, theirs = 0;
  for (auto _ : state) {
    for (std::size_t i = 5; i < all.size(); i += std::max<std::size_t>(1, all.size() / 60)) {
      auto t = Clock::now();
      try {
        const Imported read = read_svg(read_file(all[i]), all[i]);
        benchmark::DoNotOptimize(drawing_region_as_drawn(read.drawing));
      } catch (const Problem&) {
        continue;
      }
      const double own = seconds_since(t);
      t = Clock::now();
      render(all[i]);
      const double other = seconds_since(t);
      ours += own;
      theirs += other;
      ratios.push_back(own / other);
    }
  }
  std::sort(ratios.begin(), ratios.end());
  state.counters["ours/librsvg"] = ours / theirs;
  state.counters["median_ratio"] = ratios[ratios.size() / 2];
  state.counters["worst_ratio"] = ratios.back();
  state.counters["ms_each"] = ours * 1000 / static_cast<double>(ratios.size());
}
BENCHMARK(import_of_openclipart)->Unit(benchmark::kMillisecond)->Iterations(1)->UseRealTime();

}  // namespace
