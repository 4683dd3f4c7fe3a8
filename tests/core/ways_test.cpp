// Ways to cut a thing, side by side, against the same choices planned by hand and against facts of the trade.
#include "planning/ways.hpp"

#include <catch2/catch.hpp>

#include "oracle.hpp"
#include "planning/judged.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

// So many round openings in a board, cleared with a long 1/8 in bit.
Job openings(int columns, int rows, double across, double thick, const char* wood) {
  Job job;
  job.blank.species = wood;
  job.blank.readings = {thick};
  job.blank.width = columns * across * 1.6 + 20;
  job.blank.height = rows * across * 1.6 + 20;
  Item one;
  one.piece = {"one", "One", PlainShape{PlainShape::Kind::Ellipse, across, across}, {across + 5, across + 5}, 0};
  one.cut.left_uncut = true;
  Derived grid;
  grid.how = Derived::How::Grid;
  grid.from = {"one"};
  grid.columns = columns;
  grid.rows = rows;
  grid.step_x = grid.step_y = across * 1.6;
  Item all;
  all.piece = {"all", "Openings", grid, {}, 0};
  all.cut.kind = Kind::Pierce;
  all.cut.bit = "flat-1/8in";
  job.items = {one, all};
  return job;
}

// The rack's 1/8 in flat with flutes long enough for these boards.
Rack long_eighth() {
  Rack rack = load_rack();
  for (Bit& bit : rack.bits) {
    if (bit.id == "flat-1/8in") bit.flute_length = 20;
  }
  return rack;
}

const Way* way(const std::vector<Way>& ways, const std::string& words) {
  for (const Way& w : ways) {
    if (w.words.find(words) != std::string::npos) return &w;
  }
  return nullptr;
}

std::vector<Way> weighed(const Plan& now, const Rack& rack, const std::string& piece) {
  std::vector<Way> ways = ways_of(now, rack, piece);
  PlanCache cache;
  for (Way& w : ways) work_out(w, now, rack, piece, &cache);
  mark_best(ways);
  return ways;
}

}  // namespace

// Common practice, no source: all cleared with 1/8 in is several times slower than cutting round; a 1/4 in first cuts
// the time by about a third (checks' list of the trade's facts).
TEST_CASE("many openings show hours against minutes, and a larger bit first saves a good part", "[heavy]") {
  const Rack rack = long_eighth();
  struct {
    Job job;
    const char* what;
  } cases[] = {{openings(8, 6, 32, 15, "birch-plywood"), "48 openings of 32 mm in 15 mm birch plywood"},
               {openings(10, 5, 25, 12.7, "eastern-white-pine"), "50 of 25 mm in 1/2 in pine"}};
  for (const auto& one : cases) {
    INFO(one.what);
    const Plan now = plan(one.job, rack, machine_for(one.job));
    REQUIRE_FALSE(now.runs.empty());
    const std::vector<Way> ways = weighed(now, rack, "all");
    const Way *round = way(ways, "taped"), *first = way(ways, "first, then");
    REQUIRE(round != nullptr);
    REQUIRE(first != nullptr);
    INFO(ways.front().seconds << " s cleared, " << round->seconds << " s round, " << first->seconds
                              << " s larger first");
    CHECK(ways.front().seconds > 3 * round->seconds);
    CHECK(first->seconds < 0.75 * ways.front().seconds);
    CHECK(std::count_if(ways.begin(), ways.end(), [](const Way& w) { return w.best_time; }) == 1);
    CHECK_FALSE(ways.front().best_time);
  }
}

TEST_CASE("a way's figures are those of the job planned with its choices by hand", "[heavy]") {
  const Rack rack = load_rack();
  for (const char* name : {"gate-sign", "seed-drawer", "dibber-board"}) {
    const Job job = load_job(data_file(std::string("demo/") + name + ".doyen"));
    const Plan now = plan(job, rack, machine_for(job));
    for (const Item& item : job.items) {
      const std::vector<std::string> alike = cut_alike(job, item.piece.id);
      if (!alike.empty() && alike.front() != item.piece.id) continue;  // the same ways again
      for (const Way& w : weighed(now, rack, item.piece.id)) {
        INFO(name << ", " << item.piece.id << ": " << w.words);
        Job by_hand = job;
        if (w.take) w.take(by_hand);
        CHECK((w.as_it_is() || !(by_hand == job)));  // it does something
        const Plan then = plan(by_hand, rack, machine_for(by_hand));
        CHECK(w.seconds == Approx(then.seconds).epsilon(1e-9));
        CHECK(w.bit_changes == then.bit_changes());
        CHECK(w.stops == then.count(Grade::Stop));
      }
    }
  }
}

TEST_CASE("two to five ways, the first is how it is cut now, none twice, and none changes the job before it is taken") {
  const Rack rack = load_rack();
  const Job job = load_job(data_file("demo/gate-sign-raised.doyen"));
  const Plan now = plan(job, rack, machine_for(job));
  for (const std::string& id : {std::string("name"), std::string()}) {
    const std::vector<Way> ways = weighed(now, rack, id);
    INFO(id << ", " << ways.size() << " ways");
    REQUIRE(ways.size() >= 2);
    CHECK(ways.size() <= 5);
    CHECK(ways.front().as_it_is());
    CHECK(ways.front().seconds == Approx(now.seconds));
    int quickest = 0;
    for (std::size_t i = 0; i < ways.size(); ++i) {
      quickest += ways[i].best_time ? 1 : 0;
      for (std::size_t k = 0; k < i; ++k) CHECK(ways[i].words != ways[k].words);
    }
    CHECK(quickest <= 1);
  }
  CHECK(now.job == job);
  // Words and sprig share one ground, which is cut with one of them: either says by which bits.
  for (const char* id : {"name", "sprig"})
    CHECK_THAT(ways_of(now, rack, id).front().words, Catch::Contains("flat") && !Catch::Contains("no bit"));
}

TEST_CASE("what is cut just like a piece is cut otherwise together with it") {
  Job job = board();
  for (int i = 0; i < 3; ++i) {
    Item item;
    item.piece.id = "p" + std::to_string(i);
    item.piece.name = item.piece.id;
    item.piece.what = PlainShape{PlainShape::Kind::Rectangle, 30, 30};
    item.piece.at = {40.0 + 45 * i, 40};
    item.cut = cut(Kind::Recess, i == 2 ? 2 : 3);
    job.items.push_back(item);
  }
  CHECK(cut_alike(job, "p0") == std::vector<std::string>{"p0", "p1"});
  const Rack rack = load_rack();
  const Plan now = plan(job, rack, machine_for(job));
  const std::vector<Way> ways = ways_of(now, rack, "p0");
  REQUIRE(ways.size() > 1);
  Job then = job;
  ways[1].take(then);
  CHECK_FALSE(then.find("p0")->cut == job.find("p0")->cut);
  CHECK(then.find("p1")->cut == then.find("p0")->cut);
  CHECK(then.find("p2")->cut == job.find("p2")->cut);
}

// The files, read back and carved by the judge, who knows no ways.
TEST_CASE("openings cleared by a larger bit first are open to their edge, and no wider") {
  const Rack rack = long_eighth();
  Job job = openings(2, 2, 30, 15, "birch-plywood");
  // A square beside them, whose corners only the small bit comes into.
  Item square;
  square.piece = {"square", "Square", PlainShape{PlainShape::Kind::Rectangle, 28, 28}, {85, 85}, 0};
  job.blank.width += 40;
  square.piece.at = {job.blank.width - 22, 30};
  square.cut.kind = Kind::Pierce;
  square.cut.bit = "flat-1/8in";
  job.items.push_back(square);
  for (Item& item : job.items) {
    if (item.cut.kind == Kind::Pierce) item.cut.clearing = {"flat-1/4in", "flat-1/2in"};
  }
  const Plan p = plan(job, rack, machine_for(job));
  std::vector<std::string> bits;
  for (const BitRun& run : p.runs) bits.push_back(run.bit.id);
  CHECK(bits == std::vector<std::string>{"flat-1/2in", "flat-1/4in", "flat-1/8in"});
  const Judgement judged = judge_files(p, gcode_files(p), 0.15);
  INFO(judged_in_words(judged, job.lengths));
  CHECK(judged.faults.empty());
  // Area of what is open: circles and a square less its rounded corners, (4 − π) r² (any handbook of mathematics).
  const double r = 25.4 / 16;
  CHECK(p.piece("square")->cuts.unreached.area == Approx((4 - M_PI) * r * r).epsilon(0.02));
}

TEST_CASE("a bit too short to clear an opening is a stop, and leaving it out mends it") {
  const Rack rack = load_rack();
  Job job = openings(1, 1, 40, 19, "birch-plywood");
  job.items[1].cut.bit = "flat-1/4in";
  Rack shorter = rack;
  for (Bit& bit : shorter.bits) {
    if (bit.id == "flat-1/2in") bit.flute_length = 10;
  }
  job.items[1].cut.clearing = {"flat-1/2in"};
  const Plan p = plan(job, shorter, machine_for(job));
  const auto found =
      std::find_if(p.verdicts.begin(), p.verdicts.end(), [](const Verdict& v) { return v.code == "flutes-too-short"; });
  REQUIRE(found != p.verdicts.end());
  REQUIRE_FALSE(found->remedies.empty());
  Job mended = job;
  found->remedies.front().apply(mended);
  const Plan then = plan(mended, shorter, machine_for(mended));
  CHECK(std::none_of(then.verdicts.begin(), then.verdicts.end(),
                     [](const Verdict& v) { return v.code == "flutes-too-short"; }));
}

TEST_CASE("like bits of several pieces are offered as one, with what is risked, and save a change when taken") {
  // Two of one shape, one up-cut and one down-cut.
  Job job = board(200, 120, 18);
  add(job, "one", {kBox, 50, 40}, {45, 60}, cut(Kind::Recess, 3, {"flat-1/4in"}));
  add(job, "two", {kBox, 50, 40}, {145, 60}, cut(Kind::Recess, 3, {"flat-1/4in-down"}));
  const Plan p = planned(job);
  REQUIRE(p.bit_changes() == 1);
  int offered = 0;
  for (Way& way : ways_of(p, load_rack(), "")) {
    if (way.words.find("work, too") == std::string::npos) continue;
    ++offered;
    work_out(way, p, load_rack(), "");
    CHECK(way.bit_changes == 0);
    CHECK(way.stops == 0);
    CHECK(way.seconds < p.seconds - 100);  // a change takes three minutes
    Job taken = job;
    way.take(taken);
    const Plan then = planned(taken);
    CHECK(then.runs.size() == 1);
    // The same wood is gone.
    CHECK(at(carved(then, 0.5), {145, 60}) == Approx(-3).margin(0.01));
    CHECK(at(carved(then, 0.5), {45, 60}) == Approx(-3).margin(0.01));
    // Whatever became of the job meanwhile, it is not applied beside its place.
    Job other = job;
    other.items.erase(other.items.begin());
    way.take(other);
    CHECK(other.items.size() == 1);
  }
  CHECK(offered == 2);
}

TEST_CASE("a bit that comes back only for the cut-outs is offered in one stay") {
  Job job = board(200, 120, 18);
  add(job, "sunk", {kBox, 120, 60}, {100, 60}, cut(Kind::Recess, 3, {"flat-1/4in"}));
  add(job, "words", {kBox, 60, 6}, {100, 60}, cut(Kind::Incise, 1));
  Treatment out = cut(Kind::CutOut, 0);
  out.through.tabs.wanted = true;
  add(job, "out", {kBox, 180, 100}, {100, 60}, out);
  const Plan p = planned(job);
  REQUIRE(p.bit_changes() == 2);
  bool offered = false;
  for (Way& way : ways_of(p, load_rack(), "")) {
    if (way.words.find("in one stay") == std::string::npos) continue;
    offered = true;
    work_out(way, p, load_rack(), "");
    CHECK(way.bit_changes == 1);
    CHECK(way.seconds < p.seconds - 100);
    Job taken = job;
    way.take(taken);
    CHECK(planned(taken).bit_changes() == 1);
    CHECK(way.words.find("tabs") != std::string::npos);
  }
  CHECK(offered);
}

TEST_CASE(
    "a thinner board and a smaller sign are offered as another board, planned as told, and never called the best") {
  const Rack rack = load_rack();
  const Job job = load_job(data_file("demo/gate-sign.doyen"));  // 3/4 in, cut out, letters 1/4 in deep
  const Plan now = plan(job, rack, machine_for(job));
  const std::vector<Way> ways = weighed(now, rack, {});
  int thinner = 0, smaller = 0;
  for (const Way& way : ways) {
    if (!way.another_board) continue;
    CHECK_FALSE((way.best_time || way.best_quality || way.fewest_changes));
    Job then = job;
    way.take(then);
    const Plan by_hand = plan(then, rack, machine_for(then));
    CHECK(way.seconds == Approx(by_hand.seconds));
    if (then.blank.width == job.blank.width) {
      ++thinner;
      CHECK(then.blank.thickest() == Approx(0.625 * kMmPerInch));
      CHECK(then.blank.thinnest() < job.blank.thinnest());
      CHECK(way.seconds < now.seconds);  // one pass less round the sign
      CHECK_THAT(way.words, Catch::Contains("0.625 in thick"));
    } else {
      ++smaller;
      CHECK(then.blank.width == Approx(0.9 * job.blank.width));
      CHECK(then.blank.thickest() == job.blank.thickest());
    }
  }
  CHECK(thinner == 1);
  CHECK(smaller == 1);
  // Not where a floor would come through, and not where nothing goes through.
  Job deep = job;
  for (Item& item : deep.items) {
    if (item.cut.kind == Treatment::Kind::Incise) {
      item.cut.kind = Treatment::Kind::Recess;
      item.cut.bit = "flat-1/8in";
      item.cut.depth = 17;
    }
  }
  for (const Way& way : ways_of(plan(deep, rack, machine_for(deep)), rack, {}))
    CHECK_THAT(way.words, !Catch::Contains("thick instead"));
  Job solid = job;
  std::erase_if(solid.items, [](const Item& item) { return item.cut.kind == Treatment::Kind::CutOut; });
  for (const Way& way : ways_of(plan(solid, rack, machine_for(solid)), rack, {}))
    CHECK_THAT(way.words, !Catch::Contains("thick instead"));
}
