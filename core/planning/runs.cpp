#include "planning/runs.hpp"

#include <algorithm>
#include <optional>
#include <set>

#include "holding/screws.hpp"
#include "planning/file_names.hpp"
#include "planning/plan.hpp"
#include "run/bed.hpp"
#include "run/gcode.hpp"
#include "run/order.hpp"
#include "stock/species.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

struct Ordered {
  std::vector<BitRun> runs;
  double seconds = 0;
};

// What is done by hand between two runs takes as long as a change of bits.
double pauses_of(const std::vector<BitRun>& runs, const MachineProfile& machine) {
  return runs.empty() ? 0 : static_cast<double>(runs.size() - 1) * machine.bit_change_seconds;
}

// Which of a board's pieces wait until its inlays are glued and level: bevels and cut-outs, since the board must be
// clamped and sawn whole before, and what is cut over a plug. Along the job's items.
std::vector<bool> waiting(const Plan& plan) {
  const std::vector<Item>& items = plan.job.items;
  std::vector<bool> waits(items.size(), false);
  if (!plan.job.run.cut_out_last) return waits;
  for (std::size_t i = 0; i < items.size(); ++i) {
    if (items[i].cut.kind != Treatment::Kind::Inlay || plan.pieces[i]->cuts.operations.empty()) continue;
    const Region& art = plan.pieces[i]->outlines.region;
    const Box box = bounds(art);
    for (std::size_t k = 0; k < items.size(); ++k) {
      const Treatment::Kind kind = items[k].cut.kind;
      if (waits[k] || kind == Treatment::Kind::Inlay || items[k].cut.back) continue;
      waits[k] = look_of(kind).on_edge;
      const Outlines& over = plan.pieces[k]->outlines;
      // Later in the list lies on top; its own ground was there before.
      if (waits[k] || k < i || plan.pieces[k]->cuts.operations.empty() ||
          plan.pieces[i]->around.ground.of == items[k].piece.id || !bounds(over).meets(box))
        continue;
      waits[k] = !intersect(over.region, art).empty();
      for (const Line2& line : over.lines)
        waits[k] = waits[k] || std::any_of(line.begin(), line.end(), [&](Point p) { return contains(art, p); });
    }
  }
  return waits;
}

// When a side is cut: holes for the screws that hold it, then all else; what waits until inlays are glued, last.
enum class Turn { Screws, First, Later };

bool comes_in(const Plan& plan, std::size_t i, Side side, const std::vector<bool>& waits, Turn turn) {
  if (holds_board(plan.job.items[i])) return turn == Turn::Screws;
  if (turn == Turn::Screws) return false;
  return side == Side::Back || waits[i] == (turn == Turn::Later);
}

// Each piece's operations of that side and turn.
std::vector<std::vector<const Operation*>> queues_of(const Plan& plan, Side side, const std::vector<bool>& waits,
                                                     Turn turn) {
  std::vector<std::vector<const Operation*>> per_piece;
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    auto& queue = per_piece.emplace_back();
    if (!comes_in(plan, i, side, waits, turn)) continue;
    for (const Operation& op : plan.pieces[i]->cuts.operations) {
      if (op.back == (side == Side::Back)) queue.push_back(&op);
    }
  }
  return per_piece;
}

// The pieces whose floors each piece waits for.
// What is cut out of wood that itself is cut out, or of a middle that falls out of it, comes first: afterwards it is
// loose, or hangs on tabs. By pieces, each with those that it waits for.
void wait_for_what_lies_inside(const Plan& plan, std::vector<std::vector<std::size_t>>& waits) {
  std::vector<std::size_t> outs;
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    const bool out = plan.job.items[i].cut.kind == Treatment::Kind::CutOut;
    if (out && !plan.pieces[i]->outlines.region.empty()) outs.push_back(i);
  }
  std::vector<Box> boxes;
  for (const std::size_t i : outs) boxes.push_back(bounds(plan.pieces[i]->outlines.region));
  for (std::size_t a = 0; a < outs.size(); ++a) {
    std::optional<Region> whole;
    for (std::size_t b = 0; b < outs.size(); ++b) {
      const Box &outer = boxes[a], &inner = boxes[b];
      const bool within = a != b && inner.left > outer.left && inner.right < outer.right &&
                          inner.bottom > outer.bottom && inner.top < outer.top;
      if (!within) continue;
      if (!whole) whole = filled(plan.pieces[outs[a]]->outlines.region);
      const Region& part = plan.pieces[outs[b]]->outlines.region;
      if (contains(*whole, part.islands.front().rings.front().front())) waits[outs[a]].push_back(outs[b]);
    }
  }
}

std::vector<std::vector<std::size_t>> grounds_of(const Plan& plan) {
  std::vector<std::vector<std::size_t>> grounds(plan.pieces.size());
  wait_for_what_lies_inside(plan, grounds);
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    for (std::size_t k = 0; k < plan.pieces.size(); ++k) {
      const Ground& ground = plan.pieces[i]->around.ground;
      const std::string& id = plan.job.items[k].piece.id;
      if (k != i && (id == ground.of || id == ground.half_on)) grounds[i].push_back(k);
    }
  }
  return grounds;
}

int files_in(const std::vector<BitRun>& runs) {
  std::set<std::string> files;
  for (const BitRun& run : runs) files.insert(run.file);
  return static_cast<int>(files.size());
}

// One side's runs of that turn, behind what is there already.
void add_turn(Ordered& out, const Plan& plan, const Rack& rack, Side side, const std::vector<bool>& waits, Turn turn,
              const std::vector<std::string>& wish) {
  const Travel travel = travel_of(plan.job, plan.machine, side);
  const std::string wood = wood_class_of(plan.job.blank);
  const bool one_file = plan.job.run.one_file && turn != Turn::Screws;
  const int first = files_in(out.runs) + 1;
  const std::size_t before = out.runs.size();
  int number = first;
  const MachineProfile machine = machine_along_board(plan.machine, plan.job.run.on_bed);
  const Point zero = placement_of(plan.job, plan.machine, side).on_board(Point{0, 0});
  Point here = zero;
  for (OrderedGroup& group : order_operations(queues_of(plan, side, waits, turn), grounds_of(plan), wish)) {
    BitRun run;
    run.side = side;
    run.later = turn == Turn::Later;
    run.bit = *rack.find(group.bit);
    run.feeds = run.bit.feeds_in(wood);
    run.operations = std::move(group.operations);
    std::vector<TimedPasses> work;
    for (const Operation* op : run.operations) {
      if (turn == Turn::Screws) run.screws += static_cast<int>(op->passes.size());
      work.push_back({&op->passes, run.feeds, run.bit.kind});
      work.back().feeds.feed *= op->feed_share;
      run.deepest = std::max(run.deepest, op->depth - op->ground);
    }
    if (!one_file) here = zero;  // each file is begun from there
    run.time = run_time(work, machine, here, &travel);
    for (const Operation* op : run.operations) {
      if (!op->passes.empty()) here = op->passes.back().points.back().flat();
    }
    run.time.seconds += plan.machine.spin_up_seconds;
    run.file = file_name(plan.job.name, one_file ? first : number++, run, one_file, plan.machine.file_ending);
    out.seconds += run.time.seconds;
    out.runs.push_back(std::move(run));
  }
  // A single bit's file is called by it, also where one file was asked for.
  if (one_file && out.runs.size() == before + 1)
    out.runs.back().file = file_name(plan.job.name, first, out.runs.back(), false, plan.machine.file_ending);
}

// The back first, while the board is whole and square, unless the back is what is cut out.
Ordered ordered(const Plan& plan, const Rack& rack, const std::vector<std::string>& wish) {
  bool back_cuts_out = false;
  for (const auto& piece : plan.pieces) {
    for (const Operation& op : piece->cuts.operations)
      back_cuts_out = back_cuts_out || (op.back && op.kind == Operation::Kind::Profile);
  }
  Ordered out;
  const std::vector<bool> waits = waiting(plan);
  const bool inlaid = std::any_of(plan.job.items.begin(), plan.job.items.end(),
                                  [](const Item& item) { return item.cut.kind == Treatment::Kind::Inlay; });
  const auto add = [&](Side side, std::initializer_list<Turn> turns) {
    for (const Turn turn : turns) add_turn(out, plan, rack, side, waits, turn, wish);
  };
  if (!back_cuts_out) add(Side::Back, {Turn::Screws, Turn::First});
  add(Side::Front, {Turn::Screws, Turn::First, Turn::Later});
  if (back_cuts_out) add(Side::Back, {Turn::Screws, inlaid && plan.job.run.cut_out_last ? Turn::Later : Turn::First});
  out.seconds += pauses_of(out.runs, plan.machine);
  return out;
}

}  // namespace

std::size_t pass_count(const BitRun& run) {
  std::size_t count = 0;
  for (const Operation* op : run.operations) count += op->passes.size();
  return count;
}

int changes_in(const std::vector<BitRun>& runs) {
  int changes = 0;
  for (std::size_t i = 1; i < runs.size(); ++i) changes += runs[i].bit.id != runs[i - 1].bit.id ? 1 : 0;
  return changes;
}

void make_runs(Plan& plan) {
  const Rack& rack = plan.rack;
  Ordered own = ordered(plan, rack, {});
  plan.own_seconds = own.seconds;
  plan.own_bit_changes = changes_in(own.runs);
  if (!plan.job.run.order.empty()) own = ordered(plan, rack, plan.job.run.order);
  plan.runs = std::move(own.runs);
  plan.seconds = own.seconds;
}

double highest_wood(const Job& job, Side side) {
  // Zero on the face may be taken where the board is thinnest; zero on the bed counts from the thickest reading.
  const double spread = job.run.zero_surface == ZeroSurface::Face ? job.blank.thickest() - job.blank.thinnest() : 0;
  return spread + job.blank.bed_unevenness + (side == Side::Front ? job.blank.film : 0);
}

Travel travel_of(const Job& job, const MachineProfile& machine, Side side) {
  Travel travel;
  const double top = highest_wood(job, side);
  travel.approach = top + kApproach;
  travel.high = std::max(machine.clearance, top + 3);
  travel.low = job.run.low_travel ? std::min(travel.high, std::max(2.0, top + 1.5)) : travel.high;
  constexpr double kRoom = 20;  // mm: the widest bits and a spindle's nut keep clear too
  for (const KeepOut& place : metal_on(job)) {
    if (!place.stands_while(side == Side::Back)) continue;
    const Box box = place.box().grown(kRoom);
    const double over = top + place.above_face() + kOverMetal;
    // Where nobody said whether it stays on the bed or goes with the wood, both ways are kept clear.
    if (side == Side::Front || place.up == KeepOut::Up::Whichever) travel.in_the_way.push_back({box, over});
    if (side == Side::Back) travel.in_the_way.push_back({turned_over(box, job.blank, job.run.turn), over});
  }
  if (const double above = fixture_stands(job) - job.blank.thinnest(); above > 0) {
    const Placement lies = lying_placement(job);
    for (const FixturePart& part : fixture_parts(job, machine)) {
      const Box near = part.box.grown(kRoom);
      Box box;
      box.add(lies.on_board(Point{near.left, near.bottom}));
      box.add(lies.on_board(Point{near.right, near.top}));
      travel.in_the_way.push_back({box, top + above + kOverMetal});
    }
  }
  return travel;
}

}  // namespace doyen
