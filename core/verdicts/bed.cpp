// The machine's bed: how far it travels, where the board lies on it, and what it lies against there.
#include <algorithm>
#include <cmath>

#include "holding/screws.hpp"
#include "run/bed.hpp"
#include "verdicts/verdict.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

// What a machine must reach, in board coordinates, and where zero is taken among it, with the board lying so.
Box reach_with_zero(Box cuts, const Job& job, OnBed turn) {
  Job as_turned;
  as_turned.blank = job.blank;
  as_turned.run.zero_place = job.run.zero_place;
  as_turned.run.on_bed = turn;
  if (const Item* pin = job.find(kFirstPin)) as_turned.items.push_back(*pin);
  cuts.add(seen_placement_of(as_turned).on_board(Point{0, 0}));
  return cuts;
}

bool reached(const Box& reach, const MachineProfile& machine, OnBed turn) {
  const MachineProfile along = machine_along_board(machine, turn);
  return reach.width() <= along.travel[0] && reach.height() <= along.travel[1];
}

// Where the bits' middles go, in board coordinates, and how deep below the face, mm.
std::pair<Box, double> reach_of_cuts(const Situation& s) {
  Box cuts;
  double deepest = 0;
  for (const PieceState& piece : s.pieces) {
    if (piece.cuts == nullptr) continue;
    for (const Operation& op : piece.cuts->operations) {
      deepest = std::max(deepest, op.depth - op.ground);
      for (const Pass& pass : op.passes) {
        for (const Point3& p : pass.points) cuts.add(p.flat());
      }
    }
  }
  return {cuts, deepest};
}

// Zero stays at the same place of the machine, which is another of the board: each way of laying it is tried.
std::vector<Remedy> ways_to_lay(const Situation& s, const Box& cuts) {
  std::vector<Remedy> remedies;
  for (const OnBed turn : {OnBed::AsDrawn, OnBed::QuarterLeft, OnBed::QuarterRight}) {
    if (turn == s.job.run.on_bed || !reached(reach_with_zero(cuts, s.job, turn), s.machine, turn)) continue;
    remedies.push_back({turn == OnBed::AsDrawn       ? say("Lay it on the bed as it is drawn")
                        : turn == OnBed::QuarterLeft ? say("Lay it a quarter turned to the left")
                                                     : say("Lay it a quarter turned to the right"),
                        [turn](Job& job) { job.run.on_bed = turn; }});
  }
  return remedies;
}

// Whether the machine goes as far as the cuts, from where zero is taken, and as deep.
void check_travel(const Situation& s, std::vector<Verdict>& out) {
  const MachineProfile& m = s.machine;
  const auto [cuts, deepest] = reach_of_cuts(s);
  if (cuts.empty()) return;
  const OnBed lies = s.job.run.on_bed;
  const Box reach = reach_with_zero(cuts, s.job, lies);
  if (!reached(reach, m, lies)) {
    const bool quarter = lies == OnBed::QuarterLeft || lies == OnBed::QuarterRight;
    out.push_back({Grade::Stop, "past-travel", "", reach.centre(),
                   say("From where zero is taken the cuts span {0} × {1}; the machine travels {2} × {3}.",
                       s.show(quarter ? reach.height() : reach.width()),
                       s.show(quarter ? reach.width() : reach.height()), s.show(m.travel[0]), s.show(m.travel[1])),
                   say("Turn the board, make the work smaller, or choose the machine it is meant for."),
                   ways_to_lay(s, cuts)});
  }
  double clearance = m.clearance;
  // The face itself may stand higher than where zero was taken.
  const Blank& blank = s.job.blank;
  const double top = blank.thickest() - blank.thinnest() + blank.bed_unevenness + blank.film;
  for (const KeepOut& place : metal_on(s.job)) clearance = std::max(clearance, top + place.above_face() + kOverMetal);
  if (s.job.run.fixture.kind != Fixture::Kind::None && fixture_stands(s.job) > blank.thinnest())
    clearance = std::max(clearance, top + fixture_stands(s.job) - blank.thinnest() + kOverMetal);
  if (deepest + clearance > m.travel[2]) {
    out.push_back({Grade::Stop,
                   "past-travel-down",
                   "",
                   reach.centre(),
                   say("The deepest cut and the clearance together, {0}, are more than the machine's travel down.",
                       s.show(deepest + clearance)),
                   "",
                   {}});
  }
}

// Where the board lies, the cuts or zero itself may be beyond an end of the travel, though the travel is long enough.
void check_place(const Situation& s, std::vector<Verdict>& out) {
  const std::optional<Point> origin = left_front_on_bed(s.job);
  const Box cuts = reach_of_cuts(s).first;
  if (!origin || cuts.empty()) return;
  const Box reach = reach_with_zero(cuts, s.job, s.job.run.on_bed);
  if (!reached(reach, s.machine, s.job.run.on_bed)) return;  // said already
  const Placement lies = lying_placement(s.job);
  const Box lying = lies.at_machine(reach);
  const std::optional<Point> by = into_travel(lying, s.job, s.machine);
  if (by && length(*by) <= 0) return;
  std::vector<Remedy> remedies;
  if (by) {
    std::string way;
    if (by->x != 0) way = by->x > 0 ? say("{0} to the right", s.show(by->x)) : say("{0} to the left", s.show(-by->x));
    if (by->y != 0) {
      const std::string along =
          by->y > 0 ? say("{0} to the back", s.show(by->y)) : say("{0} to the front", s.show(-by->y));
      way = way.empty() ? along : say("{0} and {1}", way, along);
    }
    remedies.push_back({say("Move it on the bed: {0}", way), [b = *by](Job& job) { move_on_bed(job, b); }});
  }
  out.push_back(
      {Grade::Stop, "beyond-travel", "", reach.centre(),
       say("Where the board lies on the bed, the bits go from {0} to {1} across and from {2} to {3} away from you; "
           "the machine travels from 0 to {4} and to {5}.",
           s.show(origin->x + lying.left), s.show(origin->x + lying.right), s.show(origin->y + lying.bottom),
           s.show(origin->y + lying.top), s.show(s.machine.travel[0]), s.show(s.machine.travel[1])),
       say("It would stop against its end there, and everything after that be cut beside its place."), remedies});
}

void check_holes(const Situation& s, std::vector<Verdict>& out) {
  constexpr double kPlay = 0.5;  // mm, of a dowel in its hole (from memory, no source)
  const std::optional<Point> off = off_the_holes(s.job, s.machine);
  if (!off || length(*off) <= kPlay) return;
  out.push_back({Grade::Mind,
                 "off-the-holes",
                 "",
                 {},
                 say("Where the board lies, the dowels do not stand in the bed's holes: the nearest are {0} away.",
                     s.show(length(*off))),
                 say("What is said of its place on the bed would be wrong by that."),
                 {{say("Let it lie against the nearest holes"), [by = *off](Job& job) { move_on_bed(job, by); }}}});
}

constexpr double kClearOfFixture = 1;  // mm (common practice, no source)

struct FixtureHit {
  const FixturePart* part = nullptr;
  std::size_t piece = 0;
  Point at;  // mm on the board
};

// A move's stretch that lies lower than `top`, below the face of its side.
bool below(Point3& a, Point3& b, double top) {
  if (a.z >= top && b.z >= top) return false;
  if (a.z > top || b.z > top) {
    Point3& high = a.z > b.z ? a : b;
    const Point3& low = a.z > b.z ? b : a;
    const double share = (top - low.z) / (high.z - low.z);
    high = {low.x + (high.x - low.x) * share, low.y + (high.y - low.y) * share, top};
  }
  return true;
}

bool pass_hits(const Pass& pass, const Bit& bit, const FixturePart& part, double top, const Placement& lies) {
  const bool round = part.what == FixturePart::What::Dowel;
  const Box near = part.box.grown(bit.true_diameter() / 2 + kClearOfFixture);
  for (std::size_t i = 0; i < pass.points.size(); ++i) {
    Point3 a = lies.at_machine(pass.points[i > 0 ? i - 1 : 0]), b = lies.at_machine(pass.points[i]);
    Box move;
    move.add(a.flat());
    move.add(b.flat());
    if (!near.meets(move) || !below(a, b, top)) continue;
    const double wide = bit.half_width_at(top - std::min(a.z, b.z));
    const double apart = round ? distance(part.box.centre(), a.flat(), b.flat()) - part.box.width() / 2
                               : distance(part.box, a.flat(), b.flat());
    if (apart < std::min(wide, bit.true_diameter() / 2) + kClearOfFixture - 1e-6) return true;
  }
  return false;
}

// The first move that meets what the board lies against, when that stands so high above the bed.
FixtureHit fixture_hit(const Situation& s, const Job& job, const std::vector<FixturePart>& parts, double stands) {
  // It may lie against its thinnest place, where all of it stands highest.
  const double top = stands - job.blank.thinnest();
  const Placement lies = lying_placement(job);
  for (std::size_t i = 0; i < s.pieces.size(); ++i) {
    if (s.pieces[i].cuts == nullptr) continue;
    for (const Operation& op : s.pieces[i].cuts->operations) {
      const Bit* bit = s.rack.find(op.bit);
      if (bit == nullptr) continue;
      for (const Pass& pass : op.passes) {
        for (const FixturePart& part : parts) {
          if (pass_hits(pass, *bit, part, top, lies)) return {&part, i, lies.on_board(part.box.centre())};
        }
      }
    }
  }
  return {};
}

std::string name_of(FixturePart::What what) {
  switch (what) {
    case FixturePart::What::Stop:
      return say("a stop");
    case FixturePart::What::Fence:
      return say("the fence");
    case FixturePart::What::Dowel:
      return say("a dowel");
    case FixturePart::What::Wedge:
      return say("the wedge");
  }
  return {};
}

// Another corner of the board at them, the board staying where it lies.
void push_home(Job& job, Fixture::Corner corner) {
  const std::optional<Point> was = left_front_on_bed(job);
  job.run.fixture.corner = corner;
  if (const std::optional<Point> now = left_front_on_bed(job)) move_on_bed(job, *was - *now);
}

// A place typed for another board may lie beyond this one's end.
void check_stops_touch(const Situation& s, std::vector<Verdict>& out) {
  const Fixture& f = s.job.run.fixture;
  const double length = std::max(s.job.blank.width, s.job.blank.height),
               breadth = std::min(s.job.blank.width, s.job.blank.height);
  const bool two = f.kind == Fixture::Kind::Stops || f.kind == Fixture::Kind::Dowels;
  const bool beyond =
      (two && (f.first.value_or(0) > length || f.second.value_or(0) > length)) || f.end.value_or(0) > breadth;
  if (!beyond) return;
  out.push_back({Grade::Mind,
                 "stop-beyond-board",
                 "",
                 s.job.blank.box().centre(),
                 say("A stop is said to stand farther from the corner than the board is long, {0} × {1}.",
                     s.show(length), s.show(breadth)),
                 say("It would not touch the board."),
                 {{say("Let them stand as is usual"), [](Job& job) {
                     job.run.fixture.first.reset();
                     job.run.fixture.second.reset();
                     job.run.fixture.end.reset();
                   }}}});
}

void check_fixture(const Situation& s, std::vector<Verdict>& out) {
  const std::vector<FixturePart> parts = fixture_parts(s.job, s.machine);
  if (parts.empty()) return;
  check_stops_touch(s, out);
  const double stands = fixture_stands(s.job);
  const FixtureHit hit = fixture_hit(s, s.job, parts, stands);
  if (hit.part == nullptr) return;
  std::vector<Remedy> remedies;
  constexpr double kLeast = 3;  // mm: what still holds a board (from memory, no source)
  for (double lower = std::floor(stands - 0.5); lower >= kLeast; lower -= 1) {
    if (fixture_hit(s, s.job, parts, lower).part != nullptr) continue;
    remedies.push_back({say("Let them stand {0} above the bed", s.show(lower)),
                        [lower](Job& job) { job.run.fixture.stands = lower; }, true});
    break;
  }
  using Corner = Fixture::Corner;
  for (const auto& [corner, label] : {std::pair{Corner::LeftFront, say("Push its left front corner home instead")},
                                      std::pair{Corner::RightFront, say("Push its right front corner home instead")},
                                      std::pair{Corner::LeftBack, say("Push its left back corner home instead")},
                                      std::pair{Corner::RightBack, say("Push its right back corner home instead")}}) {
    if (corner == s.job.run.fixture.corner) continue;
    Job other = s.job;
    push_home(other, corner);
    if (fixture_hit(s, other, fixture_parts(other, s.machine), stands).part != nullptr) continue;
    remedies.push_back({label, [to = corner](Job& job) { push_home(job, to); }});
    break;
  }
  remedies.push_back({say("It is held otherwise: nothing stands there"),
                      [](Job& job) { job.run.fixture.kind = Fixture::Kind::None; }, true});
  out.push_back({Grade::Stop, "into-fixture", s.job.items[hit.piece].piece.id, hit.at,
                 say("“{0}” is cut where {1} stands, {2} above the bed.", s.job.items[hit.piece].piece.name,
                     name_of(hit.part->what), s.show(stands)),
                 say("The bit would run into it beside the board's edge."), remedies});
}

// What comes through the blank must end in the waste board, where its thickness was said, and not in the bed.
void check_waste_board(const Situation& s, std::vector<Verdict>& out) {
  const double thick = s.job.run.waste_board;
  if (thick <= 0) return;
  for (std::size_t i = 0; i < s.pieces.size(); ++i) {
    if (s.pieces[i].cuts == nullptr) continue;
    double deepest = 0;
    for (const Operation& op : s.pieces[i].cuts->operations) deepest = std::max(deepest, op.depth - op.ground);
    const double below = deepest - s.job.blank.thinnest();
    if (below <= thick) continue;
    const Item& item = s.job.items[i];
    std::vector<Remedy> remedies;
    const double least = std::ceil(below + 1);
    remedies.push_back({say("A waste board of {0} lies there", s.show(least)),
                        [least](Job& job) { job.run.waste_board = least; }, true});
    constexpr double kStays = 0.5, kLeastOver = 0.1;  // mm (from memory, no source)
    const double over = thick - kStays - (s.job.blank.thickest() - s.job.blank.thinnest());
    if (goes_through(item.cut.kind) && item.cut.through.over_cut && over >= kLeastOver) {
      remedies.push_back({say("Cut only {0} below the board", s.show(over)), [id = item.piece.id, over](Job& job) {
                            if (Item* it = job.find(id)) it->cut.through.over_cut = over;
                          }});
    }
    out.push_back({Grade::Stop, "through-waste-board", item.piece.id, s.pieces[i].cuts->deepest_at,
                   say("“{0}” is cut up to {1} below the board; the waste board is {2} thick.", item.piece.name,
                       s.show(below), s.show(thick)),
                   say("The bit would cut into the machine's bed."), remedies});
    return;
  }
}

}  // namespace

void check_bed(const Situation& s, std::vector<Verdict>& out) {
  if (s.job.made_as_panels() || s.job.made_as_parts()) return;  // its panels or parts lie there, not the sign
  check_waste_board(s, out);
  check_travel(s, out);
  check_place(s, out);
  check_holes(s, out);
  check_fixture(s, out);
}

}  // namespace doyen
