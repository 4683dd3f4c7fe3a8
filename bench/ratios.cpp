// The dearest work and what it is measured against, for tools/ratios to count the instructions of: shares that are the
// same on any machine and in any hour. Small jobs, on one thread.
#include <tbb/global_control.h>
#include <valgrind/callgrind.h>

#include <opencv2/imgproc.hpp>

#include "cutting/clearing.hpp"
#include "cutting/groove.hpp"
#include "geometry/axis_rings.hpp"
#include "jobs.hpp"
#include "lettering.hpp"
#include "planning/plan.hpp"
#include "rack/own_rack.hpp"
#include "references.hpp"
#include "relief/carve.hpp"

namespace {

using namespace doyen;

template <typename Work>
void counted(const char* name, const Work& work) {
  CALLGRIND_START_INSTRUMENTATION;
  CALLGRIND_ZERO_STATS;
  work();
  CALLGRIND_DUMP_STATS_AT(name);
  CALLGRIND_STOP_INSTRUMENTATION;
}

// The first so many letters of one line, where its first one begins.
Region letters(std::size_t count) {
  Region all = bench::lettering(1, false);
  all.islands.resize(std::min(count, all.islands.size()));
  const Box box = bounds(all);
  return moved_on_grid(std::move(all), {snap_to_grid(20 - box.left), snap_to_grid(20 - box.bottom)});
}

void grooves(const Region& region) {
  counted("groove", [&] { (void)plan_groove(region, {0.577, 0, 1e9}, Threads::One); });
  counted("groove-reference", [&] { bench::bare_build(region); });
}

void rings(const Region& region) {
  constexpr double kStep = 0.3;  // mm
  std::vector<MedialAxis> axes;
  for (const Island& island : region.islands) axes.push_back(medial_axis(island));
  counted("rings-out-of-the-axis", [&] {
    for (const MedialAxis& axis : axes) {
      const AxisRings all(axis);
      for (double d = kStep; d < all.widest(); d += kStep) (void)all.at(d);
    }
  });
  counted("rings-out-of-the-axis-reference", [&] { bench::bare_offsets(region, kStep, kStep); });
}

void clearing(const Region& region) {
  const Region floor = grow(subtract(region_of(bounds(region).grown(10)), region), -2);
  ClearingShape bit;
  bit.diameter = 3.175;
  bit.floor = -6;
  bit.depth_per_pass = 6;
  counted("clearing", [&] { (void)clear_floor(floor, {}, bit); });
  counted("clearing-reference", [&] { bench::bare_offsets(floor, bit.diameter / 2, bit.stepover * bit.diameter); });
}

void carving(const Region& region) {
  Bit v;
  v.kind = BitKind::V;
  v.angle = 60;
  v.diameter = 25;
  const std::vector<Pass> passes = plan_groove(region, {v.tan_half(), 0, 1e9}).passes(0);
  HeightField field(bounds(region).grown(2), 0.1);
  counted("short-v-moves", [&] { carve(field, passes, v); });
  cv::Mat mask(static_cast<int>(field.rows()), static_cast<int>(field.columns()), CV_8U, cv::Scalar(0));
  for (std::size_t r = 0; r < field.rows(); ++r) {
    for (std::size_t c = 0; c < field.columns(); ++c)
      mask.at<std::uint8_t>(static_cast<int>(r), static_cast<int>(c)) = field.at(c, r) < 0 ? 255 : 0;
  }
  counted("short-v-moves-reference", [&] {
    cv::Mat distances;
    cv::distanceTransform(mask, distances, cv::DIST_L2, cv::DIST_MASK_PRECISE);
  });
}

// A drawing planned, moved, and turned.
void planning_again() {
  Job job = bench::heavy_drawing();
  auto& parts = std::get<Drawing>(job.items[0].piece.what).parts.edit();
  parts.resize(8);
  for (std::size_t i = 0; i < parts.size(); ++i)  // none like another
    parts[i].data = bench::leaf({20.0 + 38 * static_cast<double>(i), 20}, 5 + 0.3 * static_cast<double>(i), 0.6);
  const Rack rack = load_rack();
  PlanCache cache;
  counted("moved-reference", [&] { (void)plan(job, rack, machine_for(job), &cache); });
  job.items[0].piece.at.x += 1;
  counted("moved", [&] { (void)plan(job, rack, machine_for(job), &cache); });
  job.items[0].piece.turn += 20;
  counted("turned", [&] { (void)plan(job, rack, machine_for(job), &cache); });
}

}  // namespace

int main() {
  CALLGRIND_STOP_INSTRUMENTATION;
  const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
  cv::setNumThreads(1);
  const Region some = letters(4);
  grooves(some);
  rings(some);
  clearing(some);
  carving(letters(2));
  planning_again();
}
