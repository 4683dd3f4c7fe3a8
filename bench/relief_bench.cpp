// The groove field painted from a plan against memset of the same field, and against OpenCV's distance transform.
#include <benchmark/benchmark.h>

#include <chrono>
#include <cstring>
#include <opencv2/imgproc.hpp>

#include "clock.hpp"
#include "lettering.hpp"
#include "relief/carve.hpp"
#include "relief/groove_field.hpp"

namespace {

using namespace doyen;
void groove_field(benchmark::State& state) {
  constexpr double kCell = 0.1;
  const Box board{0, 0, 1200, 900};
  Region region;  // lettering that fills the board
  for (const Island& island : bench::lettering(100'000, false).islands) {
    const Box box = bounds(island);
    if (box.left > 830 && box.right < 2010 && box.bottom > 5 && box.top < 895) region.islands.push_back(island);
  }
  region = transformed(region, Transform::move(-815, 0));
  const Groove groove = plan_groove(region, {0.57735026918962573, 0, 1e9});
  HeightField field(board, kCell);
  field.clear();  // every page touched once, so that memset is timed and not the system handing out memory
  double set = 0, painted = 0, theirs = 0;
  cv::Mat mask(static_cast<int>(field.rows()), static_cast<int>(field.columns()), CV_8U, cv::Scalar(0));
  for (const Island& island : region.islands) {
    std::vector<std::vector<cv::Point>> rings;
    for (const Ring& ring : island.rings) {
      auto& out = rings.emplace_back();
      for (const Point& p : ring) out.emplace_back(static_cast<int>(p.x / kCell), static_cast<int>(p.y / kCell));
    }
    cv::fillPoly(mask, rings, 255);
  }
  for (auto _ : state) {
    auto from = Clock::now();
    for (std::size_t r = 0; r < field.rows(); ++r) std::memset(field.row(r), 0, field.columns() * sizeof(float));
    set += seconds_since(from);
    from = Clock::now();
    paint_groove(field, groove);
    painted += seconds_since(from);
    from = Clock::now();
    cv::Mat distances;
    cv::distanceTransform(mask, distances, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    theirs += seconds_since(from);
    benchmark::DoNotOptimize(distances.data);
  }
  double carved = 0;
  for (const Island& island : region.islands) carved += area(Region{{island}});
  state.counters["carved"] = carved / (board.width() * board.height());
  state.counters["cells_M"] = static_cast<double>(field.rows() * field.columns()) / 1e6;
  state.counters["paint/memset"] = painted / set;
  state.counters["paint/OpenCV"] = painted / theirs;
}
BENCHMARK(groove_field)->Unit(benchmark::kMillisecond)->UseRealTime();

// The same letters carved by the moves of a V, most of them shorter than a millimetre, against OpenCV's distances of
// the cells that they take.
void short_v_moves(benchmark::State& state) {
  Region region;
  for (const Island& island : bench::lettering(20'000, false).islands) {
    const Box box = bounds(island);
    if (box.left > 830 && box.right < 1230 && box.bottom > 5 && box.top < 295) region.islands.push_back(island);
  }
  region = transformed(region, Transform::move(-815, 0));
  Bit v;
  v.kind = BitKind::V;
  v.angle = 60;
  v.diameter = 25;
  const std::vector<Pass> passes = plan_groove(region, {v.tan_half(), 0, 1e9}).passes(0);
  std::size_t moves = 0;
  double way = 0;
  for (const Pass& pass : passes) {
    moves += pass.points.size() - 1;
    for (std::size_t i = 1; i < pass.points.size(); ++i)
      way += distance(pass.points[i - 1].flat(), pass.points[i].flat());
  }
  HeightField field({0, 0, 420, 300}, 0.1);
  cv::Mat mask(static_cast<int>(field.rows()), static_cast<int>(field.columns()), CV_8U, cv::Scalar(0));
  double ours = 0, theirs = 0;
  for (auto _ : state) {
    field.clear();
    auto from = Clock::now();
    carve(field, passes, v);
    ours += seconds_since(from);
    for (std::size_t r = 0; r < field.rows(); ++r) {
      for (std::size_t c = 0; c < field.columns(); ++c)
        mask.at<std::uint8_t>(static_cast<int>(r), static_cast<int>(c)) = field.at(c, r) < 0 ? 255 : 0;
    }
    from = Clock::now();
    cv::Mat distances;
    cv::distanceTransform(mask, distances, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    theirs += seconds_since(from);
    benchmark::DoNotOptimize(distances.data);
  }
  state.counters["carve/OpenCV"] = ours / theirs;
  state.counters["us_a_move"] = ours * 1e6 / static_cast<double>(state.iterations()) / static_cast<double>(moves);
  state.counters["mm_a_move"] = way / static_cast<double>(moves);
}
BENCHMARK(short_v_moves)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
