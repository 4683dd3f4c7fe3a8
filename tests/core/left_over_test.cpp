// What is left of a board against figures worked out by hand: the free strips beside a sign, less the bit's way round
// it.
#include "planning/left_over.hpp"

#include <catch2/catch.hpp>
#include <random>

#include "random_jobs.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

Job with_sign(double width, double height, Point at) {
  Job job = board(400, 300, 18);
  Item sign{{"sign", "Sign", PlainShape{PlainShape::Kind::Rectangle, width, height}, at, 0}, {}};
  sign.cut.kind = Treatment::Kind::CutOut;
  sign.cut.bit = "flat-1/4in";
  job.items = {sign};
  return job;
}

std::vector<LeftOver> left_of(const Job& job) { return left_over(plan(job, load_rack(), machine_for(job))); }

}  // namespace

TEST_CASE("beside a sign that is cut out lies what is left, less the bit's way and 2 mm; the grain says which way") {
  Job job = with_sign(150, 200, {100, 150});  // its right edge at 175, its lower at 50
  job.blank.grain = Grain::AlongHeight;
  const double gone = 175 + 6.35 + 2;
  std::vector<LeftOver> found = left_of(job);
  REQUIRE_FALSE(found.empty());
  CHECK(found[0].box.left == Approx(gone).margin(1.2));
  CHECK(found[0].box.right == Approx(400).margin(0.6));
  CHECK(found[0].box.bottom == Approx(0).margin(0.01));
  CHECK(found[0].box.top == Approx(300).margin(0.6));
  CHECK(found[0].off_cut.along == Approx(300).margin(1));
  CHECK(found[0].off_cut.across == Approx(400 - gone).margin(2));
  CHECK(found[0].off_cut.across <= found[0].box.width());
  CHECK(found[0].off_cut.thickness == job.blank.thickest());
  CHECK(found[0].off_cut.species == job.blank.species);
  job.blank.grain = Grain::AlongWidth;
  CHECK(left_of(job)[0].off_cut.along == found[0].off_cut.across);
  // A sign that takes the whole board leaves nothing worth keeping; one that is not cut out leaves no board.
  CHECK(left_of(with_sign(380, 280, {200, 150})).empty());
  job.items[0].cut.kind = Treatment::Kind::Recess;
  job.items[0].cut.depth = 3;
  CHECK(left_of(job).empty());
}

TEST_CASE("what is left meets nothing that any bit cuts, on random boards, and no two of it overlap") {
  std::mt19937 random(21);
  std::uniform_real_distribution<double> any(0, 1);
  int kept = 0;
  for (int i = 0; i < 12; ++i) {
    Job job = with_sign(60 + 120 * any(random), 60 + 100 * any(random), {0, 0});
    job.items[0].piece.turn = 90 * any(random);
    job.items[0].piece.at = {110 + 60 * any(random), 110 + 60 * any(random)};
    Item hole{{"hole", "Hole", PlainShape{PlainShape::Kind::Ellipse, 20, 30}, {330, 40 + 200 * any(random)}, 0}, {}};
    hole.cut.kind = Treatment::Kind::Recess;
    hole.cut.bit = "flat-1/8in";
    hole.cut.depth = 4;
    hole.cut.back = any(random) < 0.4;
    job.items.push_back(hole);
    const Plan planned = plan(job, load_rack(), machine_for(job));
    const std::vector<LeftOver> found = left_over(planned);
    for (std::size_t k = 0; k < found.size(); ++k) {
      ++kept;
      const Box& box = found[k].box;
      CHECK(std::min(box.width(), box.height()) >= 50);
      CHECK(box.width() * box.height() >= 6000);
      for (std::size_t j = 0; j < k; ++j) CHECK(area(intersect(region_of(box), region_of(found[j].box))) < 1);
      CHECK(intersect(region_of(box), outlines_of(job.items[0].piece).region).empty());
      for (const auto& piece : planned.pieces) {
        for (const Operation& op : piece->cuts.operations) {
          const Bit* bit = planned.rack.find(op.bit);
          REQUIRE(bit != nullptr);
          const Box clear = box.grown(bit->true_diameter() / 2);
          const std::vector<Pass> passes = op.back ? turned_over(op.passes, job.blank, job.run.turn) : op.passes;
          for (const Pass& pass : passes) {
            for (const Point3& p : pass.points) {
              if (p.z < -0.05) CHECK_FALSE(clear.contains(p.flat()));
            }
          }
        }
      }
    }
  }
  CHECK(kept > 8);
}
