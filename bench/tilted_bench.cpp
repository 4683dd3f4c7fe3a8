// A frame of the demo's board tilted by hand, at the screen's resolution, against OpenCV turning its flat picture.
#include <benchmark/benchmark.h>

#include <opencv2/imgproc.hpp>

#include "clock.hpp"
#include "files/outputs.hpp"
#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"
#include "relief/tilted.hpp"
#include "storage/data_folder.hpp"

namespace {

using namespace doyen;

void tilted_frame(benchmark::State& state) {
  constexpr std::size_t kWide = 950, kHigh = 665;  // of a window of 1280 × 800
  const Job job = load_job(data_file("demo/gate-sign.doyen"));
  const Plan planned = plan(job, load_shipped_rack(), machine_for(job));
  const Box box = job.blank.box();
  TiltedBoard board(relief_of(planned, box, std::max(box.width(), box.height()) / 1300), wood_look(job.blank));
  const Picture flat = board_picture(planned, 1300);
  const cv::Mat from(static_cast<int>(flat.height), static_cast<int>(flat.width), CV_8UC4,
                     const_cast<std::uint32_t*>(flat.pixels.data()));
  std::vector<double> frames, lights, theirs;
  Stance stance;
  LightPlace lamp;
  for (auto _ : state) {
    stance.turn += 7;
    stance.tilt = 20 + std::fmod(stance.tilt + 11, 60);
    auto at = Clock::now();
    benchmark::DoNotOptimize(board.seen(stance, kWide, kHigh, 0xFFE4DCCB).pixels.data());
    frames.push_back(seconds_since(at));
    lamp.from += 9;
    at = Clock::now();
    board.light(lamp);
    lights.push_back(seconds_since(at));
    at = Clock::now();
    cv::Mat to;
    cv::warpAffine(from, to, cv::getRotationMatrix2D({650, 240}, stance.turn, 0.7), {kWide, kHigh}, cv::INTER_LINEAR);
    benchmark::DoNotOptimize(to.data);
    theirs.push_back(seconds_since(at));
  }
  const auto median = [](std::vector<double> all) {
    std::sort(all.begin(), all.end());
    return all[all.size() / 2];
  };
  state.counters["frame_ms"] = 1000 * median(frames);
  state.counters["worst_ms"] = 1000 * *std::max_element(frames.begin(), frames.end());
  state.counters["light_ms"] = 1000 * median(lights);
  state.counters["frame/OpenCV"] = median(frames) / median(theirs);
}
BENCHMARK(tilted_frame)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(60);

}  // namespace
