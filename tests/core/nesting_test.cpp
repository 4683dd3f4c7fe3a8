// Parts laid on boards: distances and containment by GEOS, counts by arithmetic, and the boards' written files carved
// by the independent reader.
#include <geos_c.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <random>

#include "cancel.hpp"
#include "geometry/polyline.hpp"
#include "holding/screws.hpp"
#include "holding/turning_pins.hpp"
#include "nesting/cells.hpp"
#include "nesting/nest.hpp"
#include "planning/board_stops.hpp"
#include "planning/further_boards.hpp"
#include "problem.hpp"
#include "remedies.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace workbench;

namespace {

// The shapes as another library has them; all go with it.
class Geos {
 public:
  Geos() : context_(GEOS_init_r()) {}
  ~Geos() {
    for (GEOSGeometry* shape : all_) GEOSGeom_destroy_r(context_, shape);
    GEOS_finish_r(context_);
  }
  Geos(const Geos&) = delete;
  Geos& operator=(const Geos&) = delete;
  const GEOSGeometry* polygon(const Region& region) {
    std::vector<GEOSGeometry*> islands;
    for (const Island& island : region.islands) {
      std::vector<GEOSGeometry*> rings;
      for (const Ring& r : island.rings) rings.push_back(ring(r));
      islands.push_back(
          GEOSGeom_createPolygon_r(context_, rings[0], rings.data() + 1, static_cast<unsigned>(rings.size() - 1)));
    }
    all_.push_back(GEOSGeom_createCollection_r(context_, GEOS_MULTIPOLYGON, islands.data(),
                                               static_cast<unsigned>(islands.size())));
    return all_.back();
  }
  double apart(const GEOSGeometry* a, const GEOSGeometry* b) {
    double mm = 0;
    GEOSDistance_r(context_, a, b, &mm);
    return mm;
  }
  // What of b lies outside of a, mm².
  double outside(const GEOSGeometry* a, const GEOSGeometry* b) {
    GEOSGeometry* left = GEOSDifference_r(context_, b, a);
    double mm2 = 0;
    GEOSArea_r(context_, left, &mm2);
    GEOSGeom_destroy_r(context_, left);
    return mm2;
  }

 private:
  GEOSGeometry* ring(const Ring& r) {
    GEOSCoordSequence* at = GEOSCoordSeq_create_r(context_, static_cast<unsigned>(r.size() + 1), 2);
    for (std::size_t i = 0; i <= r.size(); ++i) {
      const Point p = r[i % r.size()];
      GEOSCoordSeq_setX_r(context_, at, static_cast<unsigned>(i), p.x);
      GEOSCoordSeq_setY_r(context_, at, static_cast<unsigned>(i), p.y);
    }
    return GEOSGeom_createLinearRing_r(context_, at);
  }
  GEOSContextHandle_t context_;
  std::vector<GEOSGeometry*> all_;
};

Region box(double width, double height) { return region_of(Box{0, 0, width, height}); }

// A star with arms of any length, somewhere.
Region star(std::mt19937& random, double most) {
  std::uniform_real_distribution<double> reach(0.25, 1), place(-200, 200);
  const int arms = 5 + static_cast<int>(random() % 12);
  Ring ring;
  const Point middle{place(random), place(random)};
  for (int i = 0; i < arms; ++i) {
    const double angle = 2 * M_PI * i / arms;
    ring.push_back(middle + Point{std::cos(angle), std::sin(angle)} * (most * reach(random)));
  }
  return clean({ring});
}

Region laid(const std::vector<Region>& parts, const PackedPart& at) { return transformed(parts[at.part], at.place()); }

std::size_t on_board(const Packed& packed, std::size_t board) {
  return static_cast<std::size_t>(
      std::count_if(packed.parts.begin(), packed.parts.end(), [&](const PackedPart& p) { return p.board == board; }));
}

Treatment cut_out(const char* bit = "flat-1/8in") {
  Treatment t = cut(Kind::CutOut, 1);
  t.bit = bit;
  t.through.tabs.wanted = false;
  t.through.taped = true;
  return t;
}

// Three ovals far apart, a groove in one, a hole in another, a word over none.
Job drawn() {
  Job job = board(500, 200, 12);
  job.blank.species = "birch-plywood";
  add(job, "leaf", {PlainShape::Kind::Ellipse, 120, 50}, {90, 100}, cut_out());
  add(job, "round", {PlainShape::Kind::Ellipse, 60, 60}, {250, 100}, cut_out());
  add(job, "plate", {kBox, 100, 60}, {400, 100}, cut_out());
  add(job, "vein", {PlainShape::Kind::Ellipse, 90, 6}, {90, 104}, cut(Kind::Incise, 1));
  add(job, "hole", {PlainShape::Kind::Ellipse, 12, 12}, {255, 112}, cut(Kind::Pierce, 1));
  job.nest.wanted = true;
  job.nest.margin = 5;
  return job;
}

const NestPart& part_of(const Nested& laid, const std::string& piece) {
  return *std::find_if(laid.drawn.parts.begin(), laid.drawn.parts.end(),
                       [&](const NestPart& part) { return part.piece == piece; });
}

// The piece that is of this one, on whichever board.
std::pair<const Job*, const Item*> found(const Nested& laid, const std::string& id) {
  for (const NestedBoard& b : laid.boards) {
    for (const Item& item : b.job.items) {
      if (item.piece.id.size() > id.size() && item.piece.id.substr(item.piece.id.size() - id.size() - 1) == "-" + id)
        return {&b.job, &item};
    }
  }
  return {};
}

}  // namespace

TEST_CASE("random parts keep their gap, lie within their boards, and are themselves, turned as they may be") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> gap(0, 20), size(12, 70), wide(150, 420), high(120, 420);
  for (int round = 0; round < 14; ++round) {
    Geos geos;
    std::vector<Region> parts, boards;
    for (std::size_t i = 0; i < 3 + random() % 20; ++i) parts.push_back(star(random, size(random)));
    for (int i = 0; i < 3; ++i) {
      Region room = box(wide(random), high(random));
      if (round % 2 == 1) room = subtract(room, region_of(Box{60, 40, 90, 75}));  // a knot
      if (round % 3 == 1) room = intersect(room, star(random, 250));
      if (!room.empty()) boards.push_back(room);
    }
    const std::vector<double> turns = round % 4 == 0   ? std::vector<double>{0}
                                      : round % 4 == 1 ? std::vector<double>{0, 180}
                                                       : std::vector<double>{0, 90, 180, 270, 45};
    const double apart = gap(random);
    const Packed packed = pack(parts, boards, apart, turns);
    std::vector<std::size_t> seen = packed.without;
    std::vector<const GEOSGeometry*> shapes, rooms;
    for (const Region& b : boards) rooms.push_back(geos.polygon(b));
    for (const PackedPart& at : packed.parts) {
      seen.push_back(at.part);
      const Region shape = laid(parts, at);
      shapes.push_back(geos.polygon(shape));
      CHECK(area(shape) == Approx(area(parts[at.part])).epsilon(1e-3));
      CHECK(std::find(turns.begin(), turns.end(), at.turn) != turns.end());
      CHECK(geos.outside(rooms[at.board], shapes.back()) < 0.01);
    }
    for (std::size_t a = 0; a < shapes.size(); ++a) {
      for (std::size_t b = a + 1; b < shapes.size(); ++b) {
        if (packed.parts[a].board == packed.parts[b].board) CHECK(geos.apart(shapes[a], shapes[b]) >= apart - 0.01);
      }
    }
    std::sort(seen.begin(), seen.end());
    CHECK(seen.size() == parts.size());
    CHECK(std::adjacent_find(seen.begin(), seen.end()) == seen.end());
  }
}

TEST_CASE("what fits by arithmetic is laid, and no more") {
  // 100 × 60 with 10 between on 1000 × 500: 9 by 7 (1000 + 10 over 110, 500 + 10 over 70), a cell's room beside.
  const std::vector<Region> plates(70, box(100, 60));
  const Packed packed = pack(plates, {box(1008, 504)}, 10, {0});
  CHECK(on_board(packed, 0) == 63);
  CHECK(packed.without.size() == 7);
  // Boards are begun only when they are needed, and of several orders the fewest.
  const Packed three = pack(plates, {box(1008, 504), box(1008, 504), box(1008, 504)}, 10, {0});
  CHECK(on_board(three, 0) == 63);
  CHECK(on_board(three, 1) == 7);
  CHECK(on_board(three, 2) == 0);
  CHECK(three.without.empty());
  CHECK(pack({}, {box(10, 10)}, 1, {0}).parts.empty());
  CHECK(pack(plates, {}, 1, {0}).without.size() == 70);
}

TEST_CASE("two wedges lie head to tail only where half a turn is allowed") {
  const Region wedge = clean({{{0, 0}, {200, 0}, {0, 80}}});
  const Region narrow = box(204 + 12, 80 + 12);  // the two as a rectangle, with the gap across
  CHECK(pack({wedge, wedge}, {narrow}, 2, {0, 180}).without.empty());
  CHECK(pack({wedge, wedge}, {narrow}, 2, {0}).without.size() == 1);
  // Long ones across a board that is too narrow for them.
  CHECK(pack({box(200, 20)}, {box(60, 240)}, 2, {0, 180}).without.size() == 1);
  CHECK(pack({box(200, 20)}, {box(60, 240)}, 2, {0, 90}).without.empty());
}

TEST_CASE("nothing is laid into a part's opening, and hollows outside of it are used") {
  const Region frame = subtract(box(200, 200), region_of(Box{20, 20, 180, 180}));
  CHECK(pack({frame, box(50, 50)}, {box(210, 210)}, 5, {0}).without.size() == 1);
  const Region hook = subtract(box(200, 200), region_of(Box{20, 20, 200, 180}));
  CHECK(pack({hook, box(120, 120)}, {box(210, 210)}, 5, {0}).without.empty());
}

TEST_CASE("the same question has the same answer, remembered or not, and stops when asked to") {
  std::mt19937 random(9);
  std::vector<Region> parts;
  for (int i = 0; i < 12; ++i) parts.push_back(star(random, 40));
  const std::vector<Region> boards{box(300, 200), box(300, 200)};
  const auto alike = [](const Packed& a, const Packed& b) {
    return a.without == b.without && std::equal(a.parts.begin(), a.parts.end(), b.parts.begin(), b.parts.end(),
                                                [](const PackedPart& x, const PackedPart& y) {
                                                  return x.part == y.part && x.board == y.board && x.turn == y.turn &&
                                                         x.shift == y.shift;
                                                });
  };
  const Packed first = pack(parts, boards, 4, {0, 180});
  CHECK(alike(first, packed_as_before(parts, boards, 4, {0, 180})));
  CHECK(alike(first, packed_as_before(parts, boards, 4, {0, 180})));
  CHECK_FALSE(alike(first, packed_as_before(parts, boards, 9, {0, 180})));
  Cancel cancel;
  cancel.request();
  const Cancel::Scope stops(cancel);
  CHECK_THROWS_AS(pack(parts, boards, 4, {0, 180}), Cancelled);
}

TEST_CASE("a part takes what lies in it along, turned with it, and its own letters of a word") {
  Job job = drawn();
  job.nest.boards = {{150, 400}};
  job.nest.turn = NestChoices::Turn::Any;
  const Nested laid = nested(job, load_rack());
  REQUIRE(laid.drawn.parts.size() == 3);
  REQUIRE(laid.boards.size() == 1);
  CHECK(laid.without.empty());
  CHECK(laid.drawn.beside.empty());
  CHECK(part_of(laid, "leaf").items.size() == 2);
  for (const auto& [inner, outer] : {std::pair("vein", "leaf"), std::pair("hole", "round")}) {
    const auto [where, in] = found(laid, inner);
    const auto [there, out] = found(laid, outer);
    REQUIRE(in != nullptr);
    REQUIRE(where == there);
    const Region small = where->outlines(*in).region, large = where->outlines(*out).region;
    const Item &was = *job.find(inner), &around = *job.find(outer);
    CHECK(area(small) == Approx(area(job.outlines(was).region)).epsilon(1e-4));
    CHECK(distance(centroid(small), centroid(large)) ==
          Approx(distance(centroid(job.outlines(was).region), centroid(job.outlines(around).region))).margin(0.01));
    CHECK(in->group == out->group);
    CHECK_FALSE(in->group.empty());
  }
  CHECK(laid.boards[0].share == Approx((M_PI * 60 * 25 + M_PI * 30 * 30 + 6000) / (150 * 400)).epsilon(0.01));
  // A word is as many parts as it has letters, named by them, each with its piece of what was drawn into them.
  Job word = board(600, 200, 12);
  Lettering letters;
  letters.words = "HE";
  letters.face = {"EB Garamond", "Bold"};
  letters.cap_height = 100;
  word.items.push_back({{"word", "HE", letters, {300, 100}, 0}, cut_out()});
  Derived inside;
  inside.from = {"word"};
  inside.how = Derived::How::Grow;
  inside.distance = -4;
  word.items.push_back({{"line", "Inside", inside, {}, 0}, cut(Kind::Incise, 1)});
  const NestParts parts = nest_parts(word, load_rack());
  REQUIRE(parts.parts.size() == 2);
  CHECK(parts.parts[0].name == "H of HE");
  CHECK(parts.parts[1].name == "E of HE");
  for (const NestPart& part : parts.parts) {
    REQUIRE(part.items.size() == 2);
    Job alone;
    CHECK(area(subtract(alone.outlines(part.items[1]).region, alone.outlines(part.items[0]).region)) < 0.01);
  }
}

TEST_CASE("each board is cut from its files as its parts are drawn", "[heavy]") {
  Job job = drawn();
  job.nest.boards = {{160, 150}, {300, 130}};
  const Plan whole = planned([&] {
    Job as_drawn = job;
    as_drawn.nest.wanted = false;
    return as_drawn;
  }());
  const HeightField wanted = carved(whole, 0.5);
  const Nested laid = nested(job, load_rack());
  REQUIRE(laid.without.empty());
  std::size_t looked_at = 0;
  const std::vector<FurtherBoard> boards = further_boards(job, load_rack());
  REQUIRE(boards.size() == laid.boards.size());
  for (const FurtherBoard& one : boards) {
    CHECK(one.kind == FurtherBoard::Kind::Parts);
    const Plan p = planned(one.job);
    CHECK_FALSE(p.has_stop());
    const HeightField got = carved(p, 0.5);
    for (const Item& item : one.job.items) {
      if (item.cut.kind != Kind::CutOut) continue;
      const std::string id = item.piece.id.substr(item.piece.id.rfind('-') + 1);
      const Region here = one.job.outlines(item).region, there = job.outlines(*job.find(id)).region;
      const Point from = centroid(there), to = centroid(here);
      // By half a turn or not: what it holds tells.
      std::size_t best = 1'000'000, cells = 0;
      for (const double way : {1.0, -1.0}) {
        std::size_t off = 0;
        cells = 0;
        const Box span = bounds(there);
        for (double x = span.left; x < span.right; x += 1) {
          for (double y = span.bottom; y < span.top; y += 1) {
            if (!contains(there, {x, y})) continue;
            ++cells;
            const Point q = to + (Point{x, y} - from) * way;
            // At a wall and on a flank the grids differ by a cell.
            if (std::abs(at(wanted, {x, y}) - at(got, q)) > 1.0) ++off;
          }
        }
        best = std::min(best, off);
      }
      CHECK(best < cells / 25);
      ++looked_at;
    }
  }
  CHECK(looked_at == 3);
}

TEST_CASE("what a part is cut with comes along: tabs by hand, a panel, what is cut from the back") {
  Job job = board(500, 200, 12);
  Treatment outside = cut_out();
  outside.through.tabs.wanted = true;
  outside.through.taped = false;
  add(job, "sign", {kBox, 200, 100}, {150, 100}, outside);
  Job plain = job;
  const Region ring = job.outlines(job.items[0]).region;
  const double low = share_nearest(ring.islands[0].rings[0], {120, 50});  // on its front side
  job.items[0].cut.through.tabs.placed = {{0, low}};
  add(job, "ground", {kBox, 160, 60}, {150, 100}, Treatment{});
  Treatment raised = cut(Kind::Raise, 3);
  raised.raise.panel = "ground";
  add(job, "proud", {PlainShape::Kind::Ellipse, 60, 30}, {130, 100}, raised);
  Treatment behind = cut(Kind::Recess, 2);
  behind.back = true;
  add(job, "pocket", {kBox, 30, 10}, {200, 90}, behind);
  add(job, "stray", {kBox, 10, 10}, {400, 100}, cut(Kind::Recess, 1));
  job.nest.wanted = true;
  job.nest.turn = NestChoices::Turn::Any;
  job.nest.boards = {{140, 300}};  // it must be turned by a quarter
  const Nested laid = nested(job, load_rack());
  REQUIRE(laid.boards.size() == 1);
  CHECK(laid.drawn.beside == std::vector<std::string>{"stray"});
  const Job& there = laid.boards[0].job;
  CHECK(there.items.size() == 4);
  const Item &sign = *found(laid, "sign").second, &proud = *found(laid, "proud").second,
             &pocket = *found(laid, "pocket").second, &ground = *found(laid, "ground").second;
  CHECK(proud.cut.raise.panel == ground.piece.id);
  REQUIRE(sign.cut.through.tabs.placed.size() == 1);
  // Its tab stands as far from the raised oval's middle as it was drawn, and as far from the pocket's.
  const Region edge = there.outlines(sign).region;
  const Point tab = on_ring(edge.islands[0].rings[0], sign.cut.through.tabs.placed[0].along).at;
  CHECK(distance(tab, bounds(there.outlines(proud)).centre()) ==
        Approx(distance(Point{120, 50}, Point{130, 100})).margin(0.05));
  CHECK(distance(tab, bounds(there.outlines(pocket)).centre()) ==
        Approx(distance(Point{120, 50}, Point{200, 90})).margin(0.05));
  CHECK(pocket.cut.back);
}

TEST_CASE("what was said of pieces goes along: colours, what was accepted and why; a ground over two parts does not") {
  Job job = drawn();
  job.finish.colours["vein"] = "green";
  job.run.accepted = {"missed/vein", "in-the-waste/"};
  job.run.reasons = {{"missed/vein", "it is meant so"}};
  const Nested laid = nested(job, load_rack());
  const auto [where, vein] = found(laid, "vein");
  REQUIRE(vein != nullptr);
  CHECK(where->finish.colours.at(vein->piece.id) == "green");
  CHECK(where->run.accepted == std::vector<std::string>{"missed/" + vein->piece.id});
  REQUIRE(where->run.reasons.size() == 1);
  CHECK(where->run.reasons[0].because == "it is meant so");
  // Raised on a ground that runs from the oval to the plate: neither has it whole.
  add(job, "ground", {kBox, 200, 40}, {310, 100}, Treatment{});
  Treatment raised = cut(Kind::Raise, 2);
  raised.raise.panel = "ground";
  add(job, "proud", {PlainShape::Kind::Ellipse, 20, 10}, {400, 100}, raised);
  const Nested again = nested(job, load_rack());
  CHECK(again.drawn.over_several == std::vector<std::string>{"proud"});
  for (const NestedBoard& b : again.boards) CHECK_NOTHROW(read_job(write_job(b.job), "board"));
}

TEST_CASE("boards are held by screws and turned over onto pins where the drawing is") {
  Job job = load_job(data_file("demo/fingerpost.doyen"));
  job.nest.wanted = true;
  job.nest.boards = {{job.blank.width + 60, job.blank.height + 40}};
  job = with_screws(job, load_rack(), kScrewHead);
  const Nested laid = nested(job, load_rack());
  REQUIRE(laid.boards.size() == 1);
  CHECK(laid.drawn.beside.empty());
  const std::vector<Item>& items = laid.boards[0].job.items;
  CHECK(std::count_if(items.begin(), items.end(), is_turning_pin) == 2);
  CHECK(std::count_if(items.begin(), items.end(), holds_board) >= 2);
  CHECK_FALSE(planned(laid.boards[0].job).has_stop());
}

TEST_CASE("clamps stand on each of the job's own boards, faults are of the first, and named boards have none") {
  Job job = drawn();
  job.blank.width = 160;
  job.blank.height = 90;
  KeepOut clamp, knot;
  clamp.x = 10;
  clamp.y = 45;
  clamp.width = clamp.height = 20;
  knot = clamp;
  knot.kind = KeepOut::Kind::Knot;
  knot.x = 150;
  job.blank.keep_outs = {clamp, knot};
  const Nested laid = nested(job, load_rack());
  REQUIRE(laid.boards.size() > 1);
  CHECK(laid.boards[0].job.blank.keep_outs.size() == 2);
  CHECK(laid.boards[1].job.blank.keep_outs.size() == 1);
  for (const NestedBoard& b : laid.boards) {
    CHECK_FALSE(b.job.made_as_others());
    for (const Item& item : b.job.items) {
      const Region shape = b.job.outlines(item).region;
      for (const KeepOut& place : b.job.blank.keep_outs)
        CHECK(intersect(grow(region_of(place), job.nest.margin), shape).empty());
    }
  }
  job.nest.boards = {{400, 200}};
  CHECK(nested(job, load_rack()).boards.at(0).job.blank.keep_outs.empty());
}

TEST_CASE("what no board has room for, lies in no part or over several is told, and each remedy mends it") {
  Job job = drawn();
  CHECK(find(planned(job), "nest-no-room") == nullptr);
  job.nest.boards = {{100, 150}};
  check_remedies_mend(job, "nest-no-room");
  job.nest.boards = {{160, 60}};
  job.nest.turn = NestChoices::Turn::Never;
  check_remedies_mend(job, "nest-no-room");
  job = drawn();
  add(job, "stray", {kBox, 10, 10}, {180, 20}, cut(Kind::Recess, 1));
  check_remedies_mend(job, "nest-beside");
  add(job, "band", {kBox, 300, 6}, {250, 100}, cut(Kind::Recess, 1));
  check_remedies_mend(job, "nest-over-several");
  job = board();
  job.nest.wanted = true;
  add(job, "groove", {kBox, 40, 6}, {100, 80}, cut(Kind::Incise, 1));
  check_remedies_mend(job, "nest-no-parts");
  // Where they are drawn says nothing of where they are cut: over each other, past the board.
  job = drawn();
  job.find("round")->piece.at = {-40, 100};
  job.find("plate")->piece.at = {480, 100};
  const Plan p = planned(job);
  CHECK_FALSE(p.has_stop());
  job.nest.wanted = false;
  CHECK(planned(job).has_stop());
}

TEST_CASE("what stops a board that parts are laid on is told with the drawing, and is gone with it") {
  Job job = drawn();
  job.nest.boards = {{4000, 200}};  // longer than any machine here travels
  const auto told = [](const Job& asked) {
    PlanCache cache;
    return board_stops(planned(asked), load_rack(), &cache);
  };
  // What lies near its end is within travel: the board is, where nothing is cut.
  CHECK(told(job).empty());
  job.nest.boards = {{200, 4000}};
  job.blank.readings = {60};  // and thicker than the bit's flutes are long
  const std::vector<Verdict> stops = told(job);
  REQUIRE(stops.size() == 1);
  CHECK(stops[0].code == "board-stops");
  CHECK(stops[0].text.find("board-1: ") == 0);
  const NestedBoard board = nested(job, load_rack()).boards.at(0);
  CHECK(planned(board.job).has_stop());
  job.nest.wanted = false;
  CHECK(told(job).empty());
}

TEST_CASE("lists of boards are read as they are written, and what is none is said") {
  const auto read = [](const char* words, Unit unit = Unit::Millimetre) { return parse_nest_boards(words, unit); };
  CHECK(read("1200 × 600").size() == 1);
  CHECK(read("2 x 1200x600; 800*300").size() == 3);
  CHECK(read("2 x 1200x600; 800*300")[2] == NestBoard{800, 300});
  CHECK(read("48 × 24", Unit::Inch)[0].width == Approx(1219.2));
  CHECK(read("3/4 in × 600 mm")[0].width == Approx(19.05));
  CHECK(read("").empty());
  for (const char* wrong :
       {"1200", "0 × 600", "2.5 × 1200 × 600", "a × b", "1 × 2 × 3 × 4", "-3 × 10 × 10", "30000 × 10", "501 × 10 × 10"})
    CHECK_THROWS_AS(read(wrong), Problem);
  LengthStyle style;
  const std::vector<NestBoard> boards{{1200, 600}, {1200, 600}, {800, 300}};
  CHECK(parse_nest_boards(nest_boards_in_words(boards, style), style.unit) == boards);
  Job job = drawn();
  job.nest.boards = boards;
  job.nest.turn = NestChoices::Turn::Any;
  CHECK(read_job(write_job(job), "job").nest == job.nest);
  Json text = Json::parse(write_job(job));
  text["nest"]["boards"][0] = Json::array({10});
  CHECK_THROWS_AS(read_job(text.dump(), "job"), Problem);
}

TEST_CASE("cells are every cell that a shape touches, by the distance to their middles") {
  std::mt19937 random(4);
  for (int round = 0; round < 20; ++round) {
    const Region shape = star(random, 30);
    const Box span = bounds(shape).grown(2);
    const double cell = 1.3;
    Cells cells(static_cast<int>(span.width() / cell) + 1, static_cast<int>(span.height() / cell) + 1);
    cells.mark(shape, {span.left, span.bottom}, cell);
    for (int c = 0; c < cells.columns(); ++c) {
      for (int r = 0; r < cells.rows(); ++r) {
        const Box one{span.left + c * cell, span.bottom + r * cell, span.left + (c + 1) * cell,
                      span.bottom + (r + 1) * cell};
        const bool touched = !intersect(shape, region_of(one)).empty();
        if (touched) CHECK(cells.marked(c, r));
        // Never farther than a cell beside it.
        if (cells.marked(c, r)) CHECK_FALSE(intersect(grow(shape, 0.01), region_of(one.grown(0.01))).empty());
      }
    }
  }
}
