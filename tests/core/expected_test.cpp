// The board as it is shown while it is being planned, from what its job wants alone, against what the planned moves
// leave: nearly everywhere the same, and told only where something has to be cut anew.
#include "planning/expected.hpp"

#include <catch2/catch.hpp>

#include "planning/finished_look.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace doyen;

namespace {

struct Told {
  std::vector<SetJob> sets;
  Plan plan;
};
Told planned_and_told(const Job& job, PlanCache* cache = nullptr) {
  Told told;
  const Progress progress{{}, [&](SetJob set) { told.sets.push_back(std::move(set)); }};
  told.plan = plan(job, load_rack(), machine_for(job), cache, {}, progress);
  return told;
}

// The share of cells whose heights differ by more than that.
double differing(const HeightField& a, const HeightField& b, float mm) {
  REQUIRE(a.columns() == b.columns());
  REQUIRE(a.rows() == b.rows());
  std::size_t n = 0;
  for (std::size_t r = 0; r < a.rows(); ++r) {
    for (std::size_t c = 0; c < a.columns(); ++c) n += std::abs(a.at(c, r) - b.at(c, r)) > mm;
  }
  return static_cast<double>(n) / static_cast<double>(a.columns() * a.rows());
}

}  // namespace

TEST_CASE("a board is expected to look as its plan then cuts it") {
  for (const char* demo : {"gate-sign", "gate-sign-raised", "heron-plaque", "fingerpost", "seed-drawer", "inlaid-lid",
                           "glasshouse-sign", "sundial-plate"}) {
    const Job job = load_job(data_file(std::string("demo/") + demo + ".doyen"));
    const Told told = planned_and_told(job);
    REQUIRE(told.sets.size() == 1);
    for (const Side side : {Side::Front, Side::Back}) {
      if (side == Side::Back && !told.plan.has_back()) continue;
      INFO(demo << (side == Side::Back ? ", back" : ""));
      const double cell = job.blank.width / 400;
      const HeightField wanted = expected_relief(told.sets.front(), job.blank.box(), cell, side);
      const HeightField made = finished_relief_of(told.plan, job.blank.box(), cell, {}, side);
      HeightField face(job.blank.box(), cell);
      face.clear();
      CHECK(differing(made, face, 0.1F) > 0.004);  // something is cut
      CHECK(differing(wanted, made, 0.3F) < 0.01);
    }
  }
}

TEST_CASE("what a board will look like is told only where something is cut anew, and is of the job as it is then") {
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  PlanCache cache;
  CHECK(planned_and_told(job, &cache).sets.size() == 1);
  CHECK(planned_and_told(job, &cache).sets.empty());
  Item& word =
      *std::find_if(job.items.begin(), job.items.end(), [](const Item& item) { return item.piece.id == "name"; });
  word.piece.at.y += 20;
  const Told told = planned_and_told(job, &cache);
  REQUIRE(told.sets.size() == 1);
  CHECK(told.sets.front().plan.job == job);
  CHECK(told.sets.front().plan.runs.empty());
  const HeightField wanted = expected_relief(told.sets.front(), job.blank.box(), 1, Side::Front);
  CHECK(differing(wanted, finished_relief_of(told.plan, job.blank.box(), 1), 0.3F) < 0.01);
  // Cancelled, it stops.
  Cancel cancel;
  cancel.request();
  CHECK_THROWS_AS(expected_relief(told.sets.front(), job.blank.box(), 1, Side::Front, cancel), Cancelled);
}

TEST_CASE("what a board is expected to look like follows edits, and is the picture made anew each time") {
  Job job = load_job(data_file("demo/gate-sign-raised.doyen"));
  Item& word =
      *std::find_if(job.items.begin(), job.items.end(), [](const Item& item) { return item.piece.id == "name"; });
  PlanCache cache;
  ExpectedPicture followed;
  const double cell = job.blank.width / 300;
  std::size_t lit = 0;
  const auto look = [&](std::size_t shrink, const Box& area) {
    const Told told = planned_and_told(job, &cache);
    REQUIRE(told.sets.size() == 1);
    const Picture& now = followed.bring_up(told.sets.front(), area, cell, Side::Front, shrink);
    const HeightField anew = expected_relief(told.sets.front(), area, cell, Side::Front);
    const Picture picture = lit_picture(anew, wood_look(job.blank), shrink);
    REQUIRE(now.width == picture.width);
    CHECK(now.pixels == picture.pixels);
    ++lit;
  };
  look(2, job.blank.box());
  for (int i = 0; i < 3; ++i) {
    word.piece.at.y += 3.7;
    look(2, job.blank.box());
  }
  word.cut.depth += 1;
  look(2, job.blank.box());
  word.piece.at.x += 5;
  look(1, job.blank.box());
  word.piece.turn = 4;
  look(1, Box{0, 0, job.blank.width / 2, job.blank.height});
  job.blank.species = "black-walnut";
  word.piece.turn = 6;
  look(1, Box{0, 0, job.blank.width / 2, job.blank.height});
  CHECK(lit == 8);
}
