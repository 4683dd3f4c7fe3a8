// A relief that follows edits is the relief carved anew, and only what changed is carved again.
#include <catch2/catch.hpp>
#include <cmath>

#include "planning/outputs.hpp"
#include "planning/relief_keeper.hpp"
#include "problem.hpp"
#include "rack/own_rack.hpp"
#include "storage/data_folder.hpp"

using namespace doyen;

namespace {

void expect_same(const HeightField& a, const HeightField& b) {
  REQUIRE(a.columns() == b.columns());
  REQUIRE(a.rows() == b.rows());
  double worst = 0;
  for (std::size_t r = 0; r < a.rows(); ++r) {
    for (std::size_t c = 0; c < a.columns(); ++c) worst = std::max<double>(worst, std::abs(a.at(c, r) - b.at(c, r)));
  }
  CHECK(worst < 1e-4);
}

}  // namespace

TEST_CASE("after any edit the kept relief is what carving everything anew gives") {
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  const Rack rack = load_rack();
  PlanCache cache;
  ReliefKeeper keeper;
  const double cell = 0.5;
  const auto follow = [&](const Box& area) {
    const Plan p = plan(job, rack, machine_for(job), &cache);
    const Box changed = keeper.bring_up(p, area, cell, Side::Front);
    expect_same(keeper.field(), relief_of(p, area, cell));
    return changed;
  };
  const Box board = job.blank.box();
  Box changed = follow(board);
  CHECK(changed.width() == Approx(board.width()).margin(cell));
  CHECK(follow(board).empty());  // nothing was edited
  job.find("sprig")->piece.at.x += 7.3;
  changed = follow(board);
  CHECK(changed.width() * changed.height() < 0.25 * board.width() * board.height());
  job.find("sprig")->cut.kind = Treatment::Kind::None;
  follow(board);
  job.find("name")->cut.bit = "v90";
  follow(board);
  job.find("name")->cut.back = true;
  follow(board);
  const Box near{100.3, 50.2, 300.1, 150.7};
  CHECK(follow(near).width() == Approx(near.width()).margin(2 * cell));  // another view is carved anew
  job.find("name")->cut.back = false;
  follow(near);
}

TEST_CASE("after any edit the kept picture is what lighting everything anew gives") {
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  const Rack rack = load_rack();
  PlanCache cache;
  PictureKeeper keeper;
  const auto follow = [&](const Box& area, double cell, std::size_t shrink) {
    const Plan p = plan(job, rack, machine_for(job), &cache);
    const Picture& kept = keeper.bring_up(p, area, cell, Side::Front, shrink);
    const Picture anew = lit_picture(keeper.field(), wood_look(job.blank), shrink);
    REQUIRE(kept.width == anew.width);
    REQUIRE(kept.height == anew.height);
    std::size_t other = 0;
    for (std::size_t i = 0; i < anew.pixels.size(); ++i) other += kept.pixels[i] != anew.pixels[i];
    CHECK(other == 0);
  };
  const Box board = job.blank.box();
  follow(board, 0.4, 2);
  job.find("sprig")->piece.at.x += 7.3;
  follow(board, 0.4, 2);
  job.find("sprig")->cut.incise.floor_limit = 1;
  follow(board, 0.4, 2);
  job.find("name")->cut.bit = "v90";
  follow(board, 0.4, 2);
  follow({100.3, 50.2, 300.1, 150.7}, 0.4, 2);
  follow({110.3, 50.2, 310.1, 150.7}, 0.4, 2);  // panned
  job.find("sprig")->piece.at.y -= 3;
  follow({110.3, 50.2, 310.1, 150.7}, 0.4, 2);
  follow({110.3, 50.2, 310.1, 150.7}, 0.4, 1);
  job.blank.species = "white-oak";
  follow({110.3, 50.2, 310.1, 150.7}, 0.4, 1);
  job.blank.form = BlankForm::Oval;
  follow(board, 0.4, 1);
  Cancel cancel;
  cancel.request();
  job.find("sprig")->piece.at.x -= 5;
  CHECK_THROWS_AS(keeper.bring_up(plan(job, rack, machine_for(job)), board, 0.4, Side::Front, 1, cancel), Cancelled);
  follow(board, 0.4, 1);
}

TEST_CASE("a wall that comes to stand throws its shadow beyond what changed") {
  WoodLook look = wood_look(Blank{});
  look.board = {0, 0, 100, 80};
  look.thickness = 12;
  HeightField field(look.board, 0.5);
  for (std::size_t r = 0; r < field.rows(); ++r) std::fill_n(field.row(r), field.columns(), -10.0F);
  Picture picture = lit_picture(field, look, 2);
  const Box wall{40, 30, 44, 50};
  const auto columns = field.columns_in(wall.left, wall.right), rows = field.rows_in(wall.bottom, wall.top);
  for (std::size_t r = rows.begin; r < rows.end; ++r)
    std::fill(field.row(r) + columns.begin, field.row(r) + columns.end, 0.0F);
  light_again(picture, field, look, 2, wall);
  CHECK(picture.pixels == lit_picture(field, look, 2).pixels);
}

TEST_CASE("a cancelled follow-up is made good by the next one") {
  Job job = load_job(data_file("demo/gate-sign.doyen"));
  const Rack rack = load_rack();
  ReliefKeeper keeper;
  const Plan p = plan(job, rack, machine_for(job));
  keeper.bring_up(p, job.blank.box(), 0.5, Side::Front);
  job.find("name")->piece.at.x += 5;
  const Plan moved = plan(job, rack, machine_for(job));
  Cancel cancel;
  cancel.request();
  CHECK_THROWS_AS(keeper.bring_up(moved, job.blank.box(), 0.5, Side::Front, cancel), Cancelled);
  keeper.bring_up(moved, job.blank.box(), 0.5, Side::Front);
  expect_same(keeper.field(), relief_of(moved, job.blank.box(), 0.5));
}
