// How the bits move and from which side: rows, helices, clean passes, steps, hatching, slots, the back, the order.
#include <catch2/catch.hpp>
#include <numbers>

#include "cutting/clearing.hpp"
#include "cutting/proposals.hpp"
#include "geometry/polyline.hpp"
#include "oracle.hpp"
#include "planning/outputs.hpp"
#include "rack/own_rack.hpp"
#include "run/gcode.hpp"
#include "run/order.hpp"
#include "storage/data_folder.hpp"
#include "workbench.hpp"

using namespace doyen;
using namespace workbench;

namespace {

// Cells that differ from an upright floor by more than a hair, away from its walls by more than a cell.
int wrong_cells(const HeightField& f, const Region& reached, const Region& floor, double depth) {
  const double cell = f.cell();
  const Region inner = grow(reached, -1.5 * cell), outer = grow(floor, 1.5 * cell);
  int wrong = 0;
  for (std::size_t r = 0; r < f.rows(); ++r) {
    for (std::size_t c = 0; c < f.columns(); ++c) {
      const Point q{f.x_of(c), f.y_of(r)};
      const double z = f.at(c, r);
      if (contains(inner, q)) wrong += std::abs(z + depth) > 0.005;
      if (!contains(outer, q)) wrong += z < -0.005;
      wrong += z < -depth - 0.005;
    }
  }
  return wrong;
}

Rack with_bits(std::initializer_list<std::pair<double, CutDirection>> sizes) {
  Rack rack;
  for (const auto& [diameter, direction] : sizes) {
    Bit bit;
    bit.id = std::to_string(diameter) + to_word(direction);
    bit.kind = BitKind::Flat;
    bit.diameter = diameter;
    bit.direction = direction;
    bit.flute_length = 30;
    bit.feeds["soft"] = {2000, 500, 16000, 3};
    rack.bits.push_back(bit);
  }
  return rack;
}

}  // namespace

TEST_CASE("rings, rows and helices all leave the same floor, on random outlines with holes", "[heavy]") {
  std::mt19937 random(23);
  for (int round = 0; round < 3; ++round) {
    const Region floor = subtract(clean({oracle::random_ring(random, {60, 60}, 25, 50, 13)}),
                                  clean({oracle::random_ring(random, {60, 60}, 6, 12, 8)}));
    const Region reached = opening(floor, load_rack().find("flat-1/8in")->true_diameter() / 2);
    for (const Moves::Way way : {Moves::Way::Rings, Moves::Way::AlongGrain, Moves::Way::AcrossGrain}) {
      for (const Moves::Entry entry : {Moves::Entry::Ramp, Moves::Entry::Helix}) {
        for (const bool climb : {true, false}) {
          for (const double leave_on : {0.0, 0.4}) {
            if (round > 0 && (climb == (leave_on > 0))) continue;  // half of them do for the later outlines
            Job job = board(120, 120);
            job.items.push_back({{"d", "D", frozen({floor, {}, {}, {}, {}, {}}, "d"), bounds(floor).centre(), 0},
                                 cut(Kind::Recess, 4, {"flat-1/4in", "flat-1/8in"})});
            job.items[0].cut.moves = {way, entry, climb, 0.4, leave_on};
            INFO(static_cast<int>(way) << static_cast<int>(entry) << climb << leave_on);
            CHECK(wrong_cells(carved(planned(job), 0.25), reached, floor, 4) == 0);
          }
        }
      }
    }
  }
}

TEST_CASE("climb keeps the kept wood on the bit's right, conventional on its left") {  // common practice, no source
  const Region floor = oracle::rectangle(0, 0, 60, 40);
  for (const bool climb : {true, false}) {
    ClearingShape shape;
    shape.diameter = 6;
    shape.floor = -2;
    shape.climb = climb;
    double turned = 0;  // the signed area of the outermost ring, by the last pass at the floor
    for (const Pass& pass : clear_floor(floor, {}, shape)) {
      Ring ring;
      for (const Point3& p : pass.points) {
        if (std::min({p.x, p.y, 60 - p.x, 40 - p.y}) < 3.01) ring.push_back(p.flat());
      }
      if (ring.size() > 3) turned += signed_area(ring);
    }
    CHECK((turned > 0) == climb);  // round the inside of a pocket, climbing goes counter-clockwise
  }
}

TEST_CASE("a helix leaves no core and stays inside; where it has no room the bit goes down a ramp") {
  ClearingShape shape;
  shape.diameter = 6;
  shape.floor = -6;
  shape.depth_per_pass = 6;
  shape.entry = Moves::Entry::Helix;
  const Region wide = oracle::rectangle(0, 0, 60, 40), slot = oracle::rectangle(0, 0, 60, 6.4);
  for (const Region& region : {wide, slot}) {
    const Region centres = grow(region, -3 + 0.003);
    double steepest = 0;
    for (const Pass& pass : clear_floor(region, {}, shape)) {
      for (std::size_t i = 0; i < pass.points.size(); ++i) {
        CHECK(contains(centres, pass.points[i].flat()));
        if (i == 0) continue;
        const double along = distance(pass.points[i - 1].flat(), pass.points[i].flat());
        if (along > 1e-6) steepest = std::max(steepest, (pass.points[i - 1].z - pass.points[i].z) / along);
      }
    }
    CHECK(steepest < 0.12);
    CHECK(steepest > 0.02);
  }
}

TEST_CASE("eased corners hold the feed: no inner ring of a square floor turns at a right angle") {
  ClearingShape shape;
  shape.diameter = 6;
  shape.floor = -2;
  int sharp = 0;
  for (const Pass& pass : clear_floor(oracle::rectangle(0, 0, 90, 90), {}, shape)) {
    for (std::size_t i = 2; i < pass.points.size(); ++i) {
      const Point a = pass.points[i - 2].flat(), b = pass.points[i - 1].flat(), c = pass.points[i].flat();
      // A square ring's corner would be a right angle between two long sides.
      if (distance(a, b) < 5 || distance(b, c) < 5 || std::min({b.x, b.y, 90 - b.x, 90 - b.y}) < 3.5) continue;
      sharp += std::abs(std::abs(std::atan2(cross(b - a, c - b), dot(b - a, c - b))) - std::numbers::pi / 2) < 0.05;
    }
  }
  CHECK(sharp == 0);
}

TEST_CASE("a profile leaves wood on, takes it in one clean pass, and leaves along its slit and upwards") {
  Job job = board();
  add(job, "plate", {kBox, 80, 50}, {120, 80}, cut(Kind::CutOut, 1));
  add(job, "ring", {PlainShape::Kind::Ellipse, 44, 44}, {120, 80}, cut(Kind::Pierce, 1));
  job.items[1].cut.pierce.slug = true;
  for (Item& item : job.items) item.cut.moves.leave_on = 0.3;
  const Plan p = planned(job);
  const double radius = load_rack().find("flat-1/4in")->true_diameter() / 2;
  for (const auto& piece : p.pieces) {
    const Region& region = piece->outlines.region;
    const bool inside = &piece != p.pieces.data();
    const auto beside = [&](Point q) {  // mm from the outline, positive on the waste's side
      const double d = distance_to_outline(region, q);
      return contains(region, q) == inside ? d : -d;
    };
    const std::vector<Pass>& passes = piece->cuts.cut_out->passes;
    REQUIRE(passes.size() == 2);
    for (const Pass& pass : passes) {
      // Never sideways into the waste, where a neighbour may stand: the slit is as wide as the two rounds need.
      for (const Point3& q : pass.points) {
        CHECK(beside(q.flat()) > radius - 0.01);
        CHECK(beside(q.flat()) < radius + 0.3 + 0.01);
      }
      CHECK(pass.points.back().z > deepest({pass}) + 5);
    }
    double rough = 1e300, clean = 1e300;
    for (const Point3& q : passes[0].points) rough = std::min(rough, beside(q.flat()));
    for (const Point3& q : passes[1].points) clean = std::min(clean, beside(q.flat()));
    CHECK(rough == Approx(radius + 0.3).margin(0.01));
    CHECK(clean == Approx(radius).margin(0.01));
    // The clean one goes once round at full depth, but for the tabs.
    int at_bottom = 0;
    for (const Point3& q : passes[1].points) at_bottom += q.z < -18;
    CHECK(at_bottom > 10);
  }
}

TEST_CASE("terraces lead down in even steps round what stays, sloped and upright") {
  for (const bool sloped : {true, false}) {
    Job job = board();
    Treatment t = cut(Kind::Raise, 6, {"flat-1/4in", "flat-1/8in"});
    t.raise.sloped = sloped;
    t.margin = 45;
    t.raise.steps = 3;
    t.raise.terrace = 5;
    add(job, "tile", {kBox, 60, 30}, {120, 80}, t);
    const Plan p = planned(job);
    const HeightField f = carved(p, 0.2);
    const double run = sloped ? 2 * std::tan(std::numbers::pi / 6) : 0;  // each flank's, 60 degrees and 2 mm
    CHECK(at(f, {120, 80}) == 0);
    double from = 120 + 30;
    for (int step = 1; step <= 3; ++step) {
      const double flat = from + run + 2.5;
      CHECK(at(f, {flat, 80}) == Approx(-2.0 * step).margin(0.005));
      if (step < 3) {
        CHECK(at(f, {from + run + 5 - 0.4, 80}) == Approx(-2.0 * step).margin(0.005));            // still on the flat
        CHECK(at(f, {from + run + 5 + run + 0.4, 80}) == Approx(-2.0 * step - 2).margin(0.005));  // on the next
      }
      from += run + 5;
    }
    CHECK(p.pieces[0]->cuts.deepest == Approx(6));
    // Each bit comes once: it takes all the steps before the next one.
    CHECK(p.runs.size() == (sloped ? 2 : 1));
    CHECK(read_back(p, gcode_files(p), 0.3).agrees());
  }
}

TEST_CASE("a bevel on a sunk ground's rim draws the ground in by its width") {  // depth · tan(α/2), geometry.md
  Job job = board();
  add(job, "panel", {kBox, 160, 100}, {120, 80}, Treatment{});
  Treatment t = cut(Kind::Raise, 6, {"flat-1/4in"});
  t.raise.sloped = false;
  t.raise.panel = "panel";
  add(job, "tile", {kBox, 40, 30}, {120, 80}, t);
  Treatment b = cut(Kind::Bevel, 6, {}, "v90");
  b.bevel.inside = true;
  add(job, "rim", {kBox, 160, 100}, {120, 80}, b);
  const HeightField f = carved(planned(job), 0.1);
  CHECK(at(f, {40 - 0.3, 80}) == 0);                        // the face keeps its size
  CHECK(at(f, {40 + 3, 80}) == Approx(-3).margin(0.1));     // 45 degrees down
  CHECK(at(f, {40 + 6.3, 80}) == Approx(-6).margin(0.01));  // and the ground at its foot
  CHECK(at(f, {40 + 9, 80}) == Approx(-6).margin(0.005));
}

TEST_CASE("engraved faces are filled with lines at an angle, and nothing passes the outline") {
  // A 20 degree cone with a 0.004 in tip, 0.01 in deep: 0.1016 + 2 · 0.254 · tan 10° = 0.19117 mm wide (checks.md).
  Job job = board(60, 40, 3);
  job.blank.species = "brass";
  job.run.least_wood = 0.5;
  Treatment t = cut(Kind::Line, 0.254, {}, "engrave20");
  t.line.hatch = 0.4;
  t.line.hatch_angle = 30;
  add(job, "star", {PlainShape::Kind::Ellipse, 20, 12}, {30, 20}, t);
  const Plan p = planned(job);
  const double wide = 0.1016 + 2 * 0.254 * std::tan(10 * std::numbers::pi / 180);
  CHECK(wide == Approx(0.19117).margin(1e-5));
  const Region& region = p.pieces[0]->outlines.region;
  int rows = 0;
  for (const Pass& pass : p.pieces[0]->cuts.operations[0].passes) {
    for (const Point3& q : pass.points) {
      CHECK(contains(grow(region, 0.001), q.flat()));
      CHECK(distance_to_outline(region, q.flat()) > wide / 2 - 0.003);
    }
    const Point a = pass.points.front().flat(), b = pass.points.back().flat();
    const double slant = std::atan2(b.y - a.y, b.x - a.x) * 180 / std::numbers::pi;
    if (distance(a, b) > 1) rows += std::abs(std::remainder(slant - 30, 180)) < 0.5;
  }
  const double a = 10, b = 6, turn = std::numbers::pi / 6;  // the oval's height across the rows
  const double across = 2 * std::sqrt(a * a * std::pow(std::sin(turn), 2) + b * b * std::pow(std::cos(turn), 2)) - wide;
  CHECK(rows == Approx(across / 0.4).margin(4));
}

TEST_CASE("an engraving cone clears a floor with its tip flat as its diameter") {
  Job job = board(40, 30, 3);
  job.blank.species = "brass";
  job.run.least_wood = 0.5;
  Treatment t = cut(Kind::Incise, 1, {}, "engrave20");
  t.incise.floor_limit = 0.2;
  add(job, "field", {kBox, 6, 4}, {20, 15}, t);
  const HeightField f = carved(planned(job), 0.02);
  for (double x = 18; x < 22; x += 0.11) CHECK(at(f, {x, 15.05}) == Approx(-0.2).margin(0.051));  // ridges under 0.05
  CHECK(at(f, {20, 15 + 2.05}) == 0);
}

TEST_CASE("a hanger slot is a hole for the head and a slot above it, on the board turned over") {
  for (const TurnOver turn : {TurnOver::LeftEdge, TurnOver::FrontEdge}) {
    Job job = board(240, 160, 20);
    job.run.turn = turn;
    Treatment t = cut(Kind::HangerSlot, 9.5, {}, "keyhole-3/8in");
    t.back = true;
    t.slot.length = 16;
    add(job, "slot", {PlainShape::Kind::Ellipse, 9, 9}, {60, 50}, t);
    Treatment v = cut(Kind::Incise, 1);
    add(job, "bar", {kBox, 100, 8}, {120, 120}, v);
    const Plan p = planned(job);
    REQUIRE(p.runs.size() == 2);
    CHECK(p.runs[0].side == Side::Back);  // while the board is whole
    CHECK(p.runs[0].file == "01-new-sign-back-keyhole-3-8in-slot.nc");
    CHECK(p.runs[1].file == "02-new-sign-v60-carve.nc");
    const HeightField front = carved(p, 0.2), back = carved(p, 0.2, Side::Back);
    const Blank& blank = job.blank;
    const auto on_back = [&](Point q) { return at(back, turned_over(q, blank, turn)); };
    CHECK(on_back({60, 50}) == Approx(-9.5).margin(1e-3));
    CHECK(on_back({60 + 4.5, 50}) == Approx(-9.5).margin(1e-3));  // the head's hole, 9.525 wide
    CHECK(on_back({60 + 4.5, 60}) == 0);                          // the neck's slot, 4.76 wide
    CHECK(on_back({60, 65.5}) == Approx(-9.5).margin(1e-3));      // upwards on the sign, whichever way it is turned
    CHECK(on_back({60, 42}) == 0);
    CHECK(at(front, {60, 50}) == 0);
    CHECK(at(front, {120, 120}) < -3);
    CHECK(read_back(p, gcode_files(p), 0.3).agrees());
    // Turned over twice it lies where it lay.
    CHECK(turned_over(turned_over(Point{3, 4}, blank, turn), blank, turn) == Point{3, 4});
  }
}

TEST_CASE("what the back leaves under the front's deepest groove is told, and too little is a stop") {
  Job job = board(240, 160, 20);
  job.run.least_wood = 5;
  Treatment t = cut(Kind::HangerSlot, 9.5, {}, "keyhole-3/8in");
  t.back = true;
  add(job, "slot", {PlainShape::Kind::Ellipse, 9, 9}, {120, 50}, t);
  Treatment v = cut(Kind::Incise, 1);  // a 6 mm bar is 3 / tan 30° = 5.196 deep
  add(job, "bar", {kBox, 6, 100}, {120, 80}, v);
  const Verdict* between = nullptr;
  Plan p = planned(job);
  REQUIRE((between = find(p, "wood-between")));
  CHECK(between->grade == Grade::Note);
  CHECK_THAT(between->text, Catch::Contains("5.3"));  // 20 − 9.5 − 5.196
  job.blank.readings = {19};
  p = planned(job);
  REQUIRE((between = find(p, "sides-meet")));
  CHECK(between->grade == Grade::Stop);
  Job mended = job;
  between->remedies.at(0).apply(mended);
  CHECK(find(planned(mended), "sides-meet") == nullptr);
  // The head is wider than its neck: a groove beside the slot's line is met by it too.
  job.blank.readings = {15};
  job.items[1].piece.at.x = 124;
  CHECK(find(planned(job), "sides-meet") != nullptr);
  job.items[1].piece.at.x = 140;
  CHECK(find(planned(job), "sides-meet") == nullptr);
}

TEST_CASE("lettering on the back reads right for whoever walks round the sign, however the board was turned over") {
  const auto weight_left = [](const HeightField& f) {  // where the wood is taken, as a share of the width
    double sum = 0, moment = 0;
    for (std::size_t r = 0; r < f.rows(); ++r) {
      for (std::size_t c = 0; c < f.columns(); ++c) {
        sum -= f.at(c, r);
        moment -= f.at(c, r) * f.x_of(c);
      }
    }
    return moment / sum;
  };
  for (const TurnOver turn : {TurnOver::LeftEdge, TurnOver::FrontEdge}) {
    Job job = board(200, 80, 20);
    job.run.turn = turn;
    Piece letters = oracle::lettering("Liii", "Open Sans", "Bold", 20);
    letters.at = {100, 40};
    job.items.push_back({letters, cut(Kind::Incise, 1)});
    job.items[0].cut.incise.floor_limit = 1;
    const double front = weight_left(relief_of(planned(job), job.blank.box(), 0.25));
    job.items[0].cut.back = true;
    const Plan p = planned(job);
    // Turned over about its front edge the board lies head down at the machine, and so must the words.
    const double back = weight_left(relief_of(p, job.blank.box(), 0.25, {}, Side::Back));
    CHECK(back == Approx(turn == TurnOver::LeftEdge ? front : 200 - front).margin(0.2));
    const HeightField face = relief_of(p, job.blank.box(), 0.5);
    for (std::size_t r = 0; r < face.rows(); ++r) {
      for (std::size_t c = 0; c < face.columns(); ++c) CHECK(face.at(c, r) == 0);
    }
  }
}

TEST_CASE("travel is low over free wood, and above clamps over clamps") {
  Job job = board(240, 160);
  job.blank.keep_outs = {{KeepOut::Kind::Clamp, 120, 80, 20, 20}};
  add(job, "left", {PlainShape::Kind::Ellipse, 20, 20}, {30, 80}, cut(Kind::Incise, 1));
  add(job, "right", {PlainShape::Kind::Ellipse, 20, 20}, {210, 80}, cut(Kind::Incise, 1));
  add(job, "above", {PlainShape::Kind::Ellipse, 20, 20}, {30, 130}, cut(Kind::Incise, 1));
  const Plan p = planned(job);
  const Travel travel = travel_of(job, p.machine, Side::Front);
  CHECK(travel.low == Approx(2));
  CHECK(travel.between({30, 80}, {30, 130}) == travel.low);
  // A clamp stands 30 mm where nothing is said, the board 0.1 mm uneven, and 3 mm to spare.
  CHECK(travel.between({30, 80}, {210, 80}) == Approx(33.1));
  CHECK(travel.between({120, 80}, {120, 80}) == Approx(33.1));
  const std::string text = gcode_files(p).at(0).text;
  CHECK_THAT(text, Catch::Contains("G0 Z2\n") && Catch::Contains("G0 Z33.1\n"));
  job.run.low_travel = false;
  CHECK_THAT(gcode_files(planned(job)).at(0).text, !Catch::Contains("G0 Z2\n"));
  CHECK(planned(job).seconds > p.seconds);
}

TEST_CASE("feeds belong to the job: the rack stays, the time follows, the chip load is judged") {
  // 100 in/min at 16,000 turns with 2 flutes: 0.003125 in a tooth (geometry.md).
  Job job = board();
  add(job, "dot", {PlainShape::Kind::Ellipse, 40, 40}, {60, 80}, cut(Kind::Recess, 5, {"flat-1/4in"}));
  const Rack rack = load_rack();
  const Feeds own = rack.find("flat-1/4in")->feeds_in("soft");
  CHECK(chip_load(*rack.find("flat-1/4in"), {100 * kMmPerInch, 500, 16000, 3}) == Approx(0.003125 * kMmPerInch));
  const Plan before = planned(job);
  CHECK(find(before, "chip-too-thin") == nullptr);
  CHECK(find(before, "chip-too-thick") == nullptr);
  job.run.feeds["flat-1/4in"] = {own.feed / 5, own.plunge, own.rpm, own.depth_per_pass};
  const Plan slow = planned(job);
  CHECK(slow.seconds > before.seconds * 1.5);
  CHECK(slow.runs[0].feeds.feed == Approx(own.feed / 5));
  REQUIRE(find(slow, "chip-too-thin"));
  find(slow, "chip-too-thin")->remedies.at(0).apply(job);
  CHECK(find(planned(job), "chip-too-thin") == nullptr);
  job.run.feeds["flat-1/4in"].feed = own.feed * 5;
  CHECK(find(planned(job), "chip-too-thick"));
  CHECK(read_job(write_job(job), "again").run.feeds == job.run.feeds);
  for (const Bit& bit : rack.bits) {  // nothing in the rack as it comes is outside what is usual
    for (const auto& [wood, feeds] : bit.feeds) {
      INFO(bit.name << " in " << wood);
      CHECK(chip_load(bit, feeds) >= chip_bounds(bit, wood).least * 0.999);
      CHECK(chip_load(bit, feeds) <= chip_bounds(bit, wood).most * 1.001);
    }
  }
}

TEST_CASE("delicate letters and deep edges are cut slower") {  // checks.md: 50 and 60 in/min where 80 to 100 is usual
  Job job = board();
  Treatment t = cut(Kind::Raise, 6, {"flat-1/8in"});
  t.raise.sloped = false;
  add(job, "thin", {kBox, 60, 2}, {120, 80}, t);
  add(job, "plate", {kBox, 200, 120}, {120, 80}, cut(Kind::CutOut, 1));
  const Plan thin = planned(job);
  CHECK(thin.pieces[0]->cuts.operations[0].feed_share == 0.5);
  CHECK(thin.pieces[1]->cuts.operations[0].feed_share == 0.6);
  job.items[0].piece.what = PlainShape{kBox, 60, 30};
  CHECK(planned(job).pieces[0]->cuts.operations[0].feed_share == 1);
  // It is in the files: half the raised bit's feed, as the machine's axes allow.
  const GcodeProgram program = read_gcode(gcode_files(thin).at(0).text, "f");
  CHECK(program.sections[0].fastest_feed ==
        Approx(load_rack().find("flat-1/8in")->feeds_in("soft").feed / 2).margin(1));
}

TEST_CASE("flutes are proposed by what must stay clean and whether chips can leave") {  // common practice, no source
  CHECK(direction_for_floor(3, 6, true).best == CutDirection::DownCut);
  CHECK(direction_for_floor(12, 6, true).best == CutDirection::UpCut);
  CHECK(direction_for_floor(3, 6, false).best == CutDirection::UpCut);
  CHECK(direction_for_through("sheet").best == CutDirection::Compression);
  CHECK(direction_for_through("hard").best == CutDirection::UpCut);
  const Rack rack = with_bits({{6, CutDirection::UpCut}, {6, CutDirection::DownCut}});
  const Region floor = oracle::rectangle(0, 0, 80, 60);
  CHECK(propose_clearing(floor, 3, rack, "soft").at(0).bit == rack.bits[1].id);
  CHECK(propose_clearing(floor, 15, rack, "soft").at(0).bit == rack.bits[0].id);
  CHECK(propose_clearing(floor, 3, rack, "soft", {}, false).at(0).bit == rack.bits[0].id);
}

TEST_CASE("the user's order of bits is kept where it can be, and what it costs and breaks is known") {
  Job job = board();
  add(job, "tray", {kBox, 120, 60}, {120, 80}, cut(Kind::Recess, 4, {"flat-1/4in"}));
  add(job, "dot", {PlainShape::Kind::Ellipse, 20, 20}, {120, 80}, cut(Kind::Incise, 1));  // on the tray's floor
  add(job, "far", {PlainShape::Kind::Ellipse, 20, 20}, {30, 140}, cut(Kind::Incise, 1));
  add(job, "plate", {kBox, 230, 150}, {120, 80}, cut(Kind::CutOut, 1));
  const Plan own = planned(job);
  REQUIRE(own.runs.size() == 3);  // clear, groove, cut out
  CHECK(own.seconds == Approx(own.own_seconds));
  job.run.order = {"v60", "flat-1/4in", "flat-1/4in#out"};
  const Plan wished = planned(job);
  // The V begins with what lies on the face, and comes back for what lies on the floor.
  REQUIRE(wished.runs.size() == 4);
  CHECK(wished.runs[0].bit.id == "v60");
  CHECK(wished.runs[1].bit.id == "flat-1/4in");
  CHECK(wished.runs[2].bit.id == "v60");
  CHECK(wished.seconds > wished.own_seconds + 100);
  CHECK(wished.own_bit_changes == 2);
  CHECK(read_back(wished, gcode_files(wished), 0.4).agrees());
  CHECK(find(wished, "cut-out-early") == nullptr);
  job.run.order = {"flat-1/4in", "flat-1/4in#out", "v60"};
  const Plan early = planned(job);
  CHECK(early.runs.size() == 2);
  REQUIRE(find(early, "cut-out-early"));
  find(early, "cut-out-early")->remedies.at(0).apply(job);
  CHECK(job.run.order.empty());
}

TEST_CASE("a skin is left under a through cut, tape is noted, and neither asks for tabs") {
  Job job = board();
  job.blank.readings = {18, 17.6};
  add(job, "plate", {kBox, 80, 50}, {120, 80}, cut(Kind::CutOut, 1));
  job.items[0].cut.through.tabs.wanted = false;
  CHECK(find(planned(job), "no-tabs"));
  job.items[0].cut.through.skin = 0.5;
  const Plan p = planned(job);
  CHECK(find(p, "no-tabs") == nullptr);
  CHECK(find(p, "not-through") == nullptr);
  CHECK(p.pieces[0]->cuts.deepest == Approx(17.1));  // from the thinnest reading
  job.items[0].cut.through.skin = 0;
  job.items[0].cut.through.taped = true;
  CHECK(find(planned(job), "no-tabs") == nullptr);
}

TEST_CASE("every new choice survives the job file, and nonsense in it is named") {
  Job job = board();
  Treatment t = cut(Kind::Raise, 6, {"flat-1/4in"});
  t.raise.steps = 4;
  t.raise.terrace = 3;
  t.moves = {Moves::Way::AcrossGrain, Moves::Entry::Helix, false, 0.33, 0.25};
  t.back = true;
  add(job, "a", {kBox, 40, 30}, {60, 80}, t);
  Treatment h = cut(Kind::HangerSlot, 9, {}, "keyhole-3/8in");
  h.slot.length = 21;
  add(job, "b", {kBox, 9, 9}, {160, 80}, h);
  Treatment l = cut(Kind::Line, 0.3, {}, "engrave20");
  l.line.hatch = 0.4;
  l.line.hatch_angle = -30;
  add(job, "c", {kBox, 9, 9}, {200, 80}, l);
  Treatment c = cut(Kind::CutOut, 1);
  c.through.skin = 0.4;
  c.through.taped = true;
  add(job, "d", {kBox, 9, 9}, {220, 80}, c);
  job.run.order = {"v60", "flat-1/4in#out"};
  job.run.turn = TurnOver::FrontEdge;
  job.run.low_travel = false;
  const Job again = read_job(write_job(job), "again");
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    Treatment expected = job.items[i].cut;
    if (goes_through(expected.kind)) expected.depth = again.items[i].cut.depth;  // it has none of its own
    CHECK(again.items[i].cut == expected);
  }
  CHECK(again.run == job.run);
  std::string text = write_job(job);
  text.replace(text.find("\"acrossGrain\""), 13, "\"sideways\"");
  CHECK_THROWS_WITH(read_job(text, "j"), Catch::Contains("sideways") && Catch::Contains("acrossGrain"));
}

TEST_CASE("a tab of what is cut out from the back stands where it was put, and stays there") {
  for (const TurnOver turn : {TurnOver::LeftEdge, TurnOver::FrontEdge}) {
    Job job = board();
    job.run.turn = turn;
    add(job, "plate", {kBox, 100, 60}, {110, 75}, cut(Kind::CutOut, 1));
    job.items[0].cut.back = true;
    // In the middle of the left side and a third along the front, as seen from the front.
    const Ring ring = job.outlines(job.items[0]).region.islands.front().rings.front();
    const Point wanted[] = {{60, 75}, {93, 45}};
    for (const Point& p : wanted) job.items[0].cut.through.tabs.placed.push_back({0, share_nearest(ring, p)});
    const Plan p = planned(job);
    const std::vector<PlacedTab>& tabs = p.pieces[0]->cuts.cut_out->tabs;
    REQUIRE(tabs.size() == 2);
    const HeightField back = carved(p, 0.25, Side::Back);
    const double half = load_rack().find("flat-1/4in")->true_diameter() / 2;
    for (int i = 0; i < 2; ++i) {
      CHECK(distance(tabs[static_cast<std::size_t>(i)].at, wanted[i]) < 0.05);
      CHECK(tabs[static_cast<std::size_t>(i)].place.along ==
            Approx(job.items[0].cut.through.tabs.placed[static_cast<std::size_t>(i)].along).margin(1e-6));
      const Point out = i == 0 ? Point{-half, 0} : Point{0, -half};  // the wood left beside the plate
      CHECK(at(back, turned_over(wanted[i] + out, job.blank, turn)) == Approx(-18 + 3.175).margin(0.01));
    }
  }
}

TEST_CASE("a slot whose head would slide past the board's edge is a stop, and so is an inlay from the back") {
  Job job = board();
  Treatment t = cut(Kind::HangerSlot, 9.5, {}, "keyhole-3/8in");
  t.back = true;
  add(job, "slot", {PlainShape::Kind::Ellipse, 9, 9}, {120, 120}, t);
  CHECK(find(planned(job), "slot-past-edge") == nullptr);
  job.items[0].cut.slot.length = 36;  // 120 + 36 + half the head of 9.5 is 0.8 past 160
  REQUIRE(find(planned(job), "slot-past-edge"));
  CHECK(find(planned(job), "slot-past-edge")->grade == Grade::Stop);
  job.items[0].cut = cut(Kind::Inlay, 5);
  job.items[0].cut.back = true;
  const Plan p = planned(job);
  REQUIRE(find(p, "inlay-on-back"));
  find(p, "inlay-on-back")->remedies.at(0).apply(job);
  CHECK(find(planned(job), "inlay-on-back") == nullptr);
}

TEST_CASE("usual tabs grow with the board and are larger in soft wood") {  // common practice, no source
  Blank blank;
  blank.readings = {19};
  blank.species = "western-red-cedar";
  const Tabs soft = usual_tabs(blank);
  CHECK(soft.height == Approx(4.18));
  blank.species = "sugar-maple";
  const Tabs hard = usual_tabs(blank);
  CHECK(hard.height < soft.height);
  CHECK(hard.length < soft.length);
  blank.readings = {3};
  CHECK(usual_tabs(blank).height == Approx(0.8));
  blank.readings = {1};
  CHECK(usual_tabs(blank).height == Approx(0.5));  // never as high as the board
  blank.readings = {50};
  CHECK(usual_tabs(blank).height == Approx(5));
}

TEST_CASE("letters are delicate when any of their panel is, whichever piece does the clearing") {
  Job job = board();
  add(job, "panel", {kBox, 180, 120}, {120, 80}, Treatment{});
  Treatment t = cut(Kind::Raise, 6, {"flat-1/8in"});
  t.raise.sloped = false;
  t.raise.panel = "panel";
  add(job, "block", {kBox, 30, 8}, {120, 110}, t);  // does the work
  add(job, "thin", {kBox, 120, 2.5}, {120, 60}, t);
  const Plan p = planned(job);
  CHECK(p.pieces[2]->around.with == "block");
  CHECK(p.pieces[1]->cuts.operations.at(0).feed_share == 0.5);
  job.items[2].piece.what = PlainShape{kBox, 120, 25};
  CHECK(planned(job).pieces[1]->cuts.operations.at(0).feed_share == 1);
}

TEST_CASE("a floor that only the V makes has ridges as high as it is for: painted, oiled or like a mirror") {
  // 6 mm wide and 1 mm deep: no flat bit is asked for. The ridges are measured on the wood that the written files
  // leave.
  const auto made = [](Moves::VFloor floor) {
    Job job = board(40, 30, 12);
    Treatment groove = cut(Kind::Incise, 1);
    groove.incise.floor_limit = 1;
    groove.moves.v_floor = floor;
    add(job, "groove", {kBox, 14, 6}, {20, 15}, groove);
    const Plan p = planned(job);
    const HeightField wood = carved(p, 0.02);
    double high = -1e9, low = 1e9;
    for (double x = 18; x < 22; x += 0.02) {
      for (double y = 13.5; y < 16.5; y += 0.02) {
        const double z = at(wood, {x, y});
        high = std::max(high, z);
        low = std::min(low, z);
      }
    }
    CHECK(low == Approx(-1).margin(0.002));
    return std::pair(high - low, p.seconds);
  };
  const auto [painted, soon] = made(Moves::VFloor::Painted);
  const auto [oiled, later] = made(Moves::VFloor::Oiled);
  const auto [mirror, last] = made(Moves::VFloor::Mirror);
  CHECK(painted < 0.05);
  CHECK(painted > 0.025);
  CHECK(oiled < 0.022);
  CHECK(mirror < 0.013);
  CHECK(soon < later);
  CHECK(later < last);
}
