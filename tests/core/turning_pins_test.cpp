// Pins that a board is turned over onto: where the holes lie against turning a point by hand, and through what the
// written files leave of both sides.
#include <catch2/catch.hpp>
#include <random>

#include "holding/turning_pins.hpp"
#include "problem.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

Job two_sided(double edge_x, double edge_y) {
  Job job = workbench::board(320, 180, 18);
  add(job, "out", {kBox, 320 - 2 * edge_x, 180 - 2 * edge_y}, {160, 90}, cut(Kind::CutOut, 0));
  add(job, "front", {kBox, 100, 8}, {160, 120}, cut(Kind::Incise, 1));
  Treatment back = cut(Kind::Incise, 1);
  back.back = true;
  add(job, "back", {kBox, 60, 8}, {140, 60}, back);
  return job;
}

std::vector<Point> pins_of(const Job& job) {
  std::vector<Point> pins;
  for (const Item& item : job.items) {
    if (is_turning_pin(item)) pins.push_back(item.piece.at);
  }
  return pins;
}

}  // namespace

TEST_CASE(
    "turned over about either edge, each hole lies on a hole again, clear of all that is cut, and nothing stops") {
  for (const TurnOver turn : {TurnOver::LeftEdge, TurnOver::FrontEdge}) {
    for (const auto& [x, y] : {std::pair{34.0, 10.0}, std::pair{10.0, 34.0}, std::pair{34.0, 34.0}}) {
      Job job = two_sided(x, y);
      job.run.turn = turn;
      INFO((turn == TurnOver::LeftEdge ? "left" : "front") << " edge, waste of " << x << " and " << y);
      const Job with = with_turning_pins(job, load_rack());
      const std::vector<Point> pins = pins_of(with);
      REQUIRE(pins.size() == 2);
      CHECK(length(pins[1] - pins[0]) > 60);
      for (const Point& p : pins) {
        // By hand: as a page x counts from the other end; as a calendar y does.
        const Point there = turn == TurnOver::LeftEdge ? Point{320 - p.x, p.y} : Point{p.x, 180 - p.y};
        CHECK(std::min(length(there - pins[0]), length(there - pins[1])) < 1e-6);
      }
      const Plan p = planned(with);
      for (const Verdict& v : p.verdicts) {
        INFO(v.text);
        CHECK(v.grade != Grade::Stop);
      }
      CHECK(p.runs.front().side == Side::Back);  // the holes are made by the side that comes first
      // Right through, and into the waste board: the files of the side that makes them go below the board.
      const HeightField back = carved(p, 0.5, Side::Back);
      for (const Point& pin : pins) {
        const Point seen = turn == TurnOver::LeftEdge ? Point{320 - pin.x, pin.y} : Point{pin.x, 180 - pin.y};
        CHECK(at(back, seen) <= -18 - 3 + 0.01);
      }
      CHECK(with_turning_pins(with, load_rack()).items.size() == with.items.size());  // found anew, not once more
    }
  }
}

TEST_CASE("where no pins can be, it is said why") {
  Job narrow = two_sided(9, 9);  // a slit of 6.35 mm leaves no waste
  CHECK_THROWS_AS(with_turning_pins(narrow, load_rack()), Problem);
  Job whole = two_sided(34, 34);
  std::erase_if(whole.items, [](const Item& item) { return item.piece.id == "out"; });
  CHECK_THROWS_AS(with_turning_pins(whole, load_rack()), Problem);
  Job thick = two_sided(34, 34);
  thick.blank.readings = {40};
  try {
    (void)with_turning_pins(thick, load_rack());
    FAIL("no bit is that long");
  } catch (const Problem& problem) {
    CHECK_THAT(problem.what(), Catch::Contains("No end mill in the rack reaches 43 mm deep"));
  }
}

TEST_CASE("a pin that was moved, taken away, or is turned about another edge is a stop, and each remedy mends it") {
  const Job with = with_turning_pins(two_sided(34, 34), load_rack());
  CHECK(find(planned(with), "pins-do-not-meet") == nullptr);
  Job moved = with, alone = with, other = with;
  moved.shift("turning-pin-2", {0.4, 0});
  std::erase_if(alone.items, [](const Item& item) { return item.piece.id == "turning-pin-1"; });
  other.run.turn = TurnOver::FrontEdge;
  other.shift("turning-pin-1", {0, 6});
  for (const Job& job : {moved, alone, other}) {
    const Plan p = planned(job);
    const Verdict* verdict = find(p, "pins-do-not-meet");
    REQUIRE(verdict != nullptr);
    CHECK(verdict->grade == Grade::Stop);
    REQUIRE(verdict->remedies.size() == 2);
    for (const Remedy& remedy : verdict->remedies) {
      INFO(remedy.label);
      Job mended = job;
      remedy.apply(mended);
      CHECK(find(planned(mended), "pins-do-not-meet") == nullptr);
    }
  }
}
