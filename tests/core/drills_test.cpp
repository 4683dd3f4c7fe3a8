// What is thrown into a rehearsal ends as it is foretold: told from the carved boards alone, and by hand.
#include "planning/drills.hpp"

#include <catch2/catch.hpp>

#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

Job with_everything(ZeroSurface zero) {
  Job job = board(220, 150, 12);
  job.run.zero_surface = zero;
  job.blank.film = zero == ZeroSurface::Face ? 0.4 : 0;
  add(job, "floor", {kBox, 50, 40}, {60, 90}, cut(Kind::Recess, 3, {"flat-1/4in"}));
  add(job, "one", {kBox, 70, 9}, {110, 40}, cut(Kind::Incise, 1));
  add(job, "two", {PlainShape::Kind::Star, 50, 50}, {150, 90}, cut(Kind::Incise, 1));
  add(job, "out", {kBox, 180, 120}, {110, 75}, cut(Kind::CutOut, 1));
  return job;
}

}  // namespace

TEST_CASE("each thing thrown in is seen on the board for what it is, knowing nothing of it") {
  for (const ZeroSurface zero : {ZeroSurface::Face, ZeroSurface::Bed}) {
    const Plan p = planned(with_everything(zero));
    const bool face = zero == ZeroSurface::Face;
    const double cell = 0.5;
    const HeightField wanted = relief_of(p, p.job.blank.box(), cell);
    const std::map<Drill, Seen> ends = {
        {Drill::None, Seen::AsWanted},      {Drill::ZeroHigh, Seen::Shallow},
        {Drill::ZeroAside, Seen::Aside},    {Drill::WrongBit, Seen::OddShape},
        {Drill::Clamp, Seen::HitMetal},     {Drill::LostSteps, Seen::HalfAside},
        {Drill::FilmForgotten, Seen::Deep}, {Drill::ThickerBoard, face ? Seen::NotThrough : Seen::Deep}};
    const std::vector<Drill> drills = drills_of(p);
    CHECK(drills.size() == (face ? 8 : 7));
    for (const Drill drill : drills) {
      INFO(drill_in_words(p, drill) << (face ? ", face" : ", bed"));
      const Drilled got = carve_with(p, drill, cell);
      CHECK(seen_on(p, wanted, got) == ends.at(drill));
      CHECK_FALSE(foretold(p, drill).empty());
    }
  }
}

TEST_CASE("what is foretold has the right figures") {
  const Plan p = planned(with_everything(ZeroSurface::Face));
  const double cell = 0.5;
  const HeightField wanted = relief_of(p, p.job.blank.box(), cell);
  // A floor 1 mm too high lies 1 mm higher, anywhere on it; the cut-out hangs by what it does not reach.
  const Drilled high = carve_with(p, Drill::ZeroHigh, cell);
  CHECK(at(high.board, {60, 90}) - at(wanted, {60, 90}) == Approx(1).margin(1e-3));
  double lowest = 0;
  for (std::size_t r = 0; r < high.board.rows(); ++r) {
    for (std::size_t c = 0; c < high.board.columns(); ++c) lowest = std::min<double>(lowest, high.board.at(c, r));
  }
  const double left = 12 + lowest;  // wood under the deepest place
  if (left > 0)
    CHECK_THAT(foretold(p, Drill::ZeroHigh), Catch::Contains(depth_in_words(left, p.job.lengths)));
  else
    CHECK_THAT(foretold(p, Drill::ZeroHigh), Catch::Contains("all the same"));
  // 10 mm to the right: the floor's middle is cut where 10 mm beside it was wanted.
  const Drilled aside = carve_with(p, Drill::ZeroAside, cell);
  CHECK(at(aside.board, {60 + 24 + 10, 90}) == Approx(at(wanted, {60 + 24, 90})).margin(1e-3));
  // The film twice.
  const Drilled film = carve_with(p, Drill::FilmForgotten, cell);
  CHECK(at(wanted, {60, 90}) - at(film.board, {60, 90}) == Approx(0.4).margin(1e-3));
  // The clamp is met where it stands: within its box and the bit's radius.
  const Drilled hit = carve_with(p, Drill::Clamp, cell);
  REQUIRE(hit.hit);
  double widest = 0;
  for (const BitRun& run : p.runs) widest = std::max(widest, run.bit.true_diameter() / 2);
  CHECK(thrown_in(p, Drill::Clamp, p.runs.front()).metal->box().grown(widest + 0.01).contains(*hit.hit));
}

TEST_CASE("only what can happen in a job is offered to be thrown in") {
  Job job = board();
  CHECK(drills_of(planned(job)) == std::vector<Drill>{Drill::None});
  add(job, "groove", {kBox, 60, 6}, {60, 60}, cut(Kind::Incise, 1));
  const std::vector<Drill> drills = drills_of(planned(job));
  const auto has = [&](Drill d) { return std::find(drills.begin(), drills.end(), d) != drills.end(); };
  CHECK(has(Drill::ZeroHigh));
  CHECK_FALSE(has(Drill::WrongBit));       // one bit only
  CHECK_FALSE(has(Drill::FilmForgotten));  // no film
  CHECK_FALSE(has(Drill::ThickerBoard));   // nothing comes through
}

TEST_CASE("the back is rehearsed as the front is: every drill ends as it does there") {
  Job job = with_everything(ZeroSurface::Face);
  for (Item& item : job.items) item.cut.back = true;
  for (const TurnOver turn : {TurnOver::LeftEdge, TurnOver::FrontEdge}) {
    job.run.turn = turn;
    const Plan p = planned(job);
    REQUIRE(p.has_back());
    CHECK(drills_of(p, Side::Front) == std::vector<Drill>{Drill::None});  // nothing is cut there
    const std::vector<Drill> drills = drills_of(p, Side::Back);
    CHECK(drills.size() == 7);  // the film is on the front
    const double cell = 0.5;
    const HeightField wanted = relief_of(p, p.job.blank.box(), cell, {}, Side::Back);
    const std::map<Drill, Seen> ends = {{Drill::None, Seen::AsWanted},          {Drill::ZeroHigh, Seen::Shallow},
                                        {Drill::ZeroAside, Seen::Aside},        {Drill::WrongBit, Seen::OddShape},
                                        {Drill::Clamp, Seen::HitMetal},         {Drill::LostSteps, Seen::HalfAside},
                                        {Drill::ThickerBoard, Seen::NotThrough}};
    for (const Drill drill : drills) {
      INFO(drill_in_words(p, drill));
      CHECK(seen_on(p, wanted, carve_with(p, drill, cell, Side::Back)) == ends.at(drill));
      CHECK_FALSE(foretold(p, drill, Side::Back).empty());
    }
  }
}
