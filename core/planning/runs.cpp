#include "planning/runs.hpp"

#include <algorithm>
#include <set>

#include "planning/plan.hpp"
#include "run/gcode.hpp"
#include "run/order.hpp"
#include "run/plain_words.hpp"
#include "stock/species.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

std::string file_name(int number, const BitRun& run, bool all_bits) {
  std::string name = (number < 10 ? "0" : "") + std::to_string(number) + "-";
  if (run.later) name += "glued-";
  if (run.side == Side::Back) name += "back-";
  if (all_bits) return name + "all-bits.nc";
  return name + plain_for_file(run.bit.id) + ".nc";  // flat-1/8in becomes flat-1-8in
}

struct Ordered {
  std::vector<BitRun> runs;
  double seconds = 0;
};

double changes_of(const std::vector<BitRun>& runs, const MachineProfile& machine) {
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

// One side's runs, those before gluing or those after, behind what is there already.
void add_side(Ordered& out, const Plan& plan, const Rack& rack, Side side, const std::vector<bool>& waits, bool later,
              const std::vector<std::string>& wish) {
  std::vector<std::vector<const Operation*>> per_piece;
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    auto& queue = per_piece.emplace_back();
    if (side == Side::Front && waits[i] != later) continue;
    for (const Operation& op : plan.pieces[i]->cuts.operations) {
      if (op.back == (side == Side::Back)) queue.push_back(&op);
    }
  }
  std::vector<std::vector<std::size_t>> grounds(plan.pieces.size());
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    for (std::size_t k = 0; k < plan.pieces.size(); ++k) {
      const Ground& ground = plan.pieces[i]->around.ground;
      const std::string& id = plan.job.items[k].piece.id;
      if (k != i && (id == ground.of || id == ground.half_on)) grounds[i].push_back(k);
    }
  }
  const Travel travel = travel_of(plan.job, plan.machine, side);
  const std::string wood = wood_class_of(plan.job.blank);
  const bool one_file = plan.job.run.one_file;
  int first = static_cast<int>(out.runs.size()) + 1;
  if (one_file) {
    std::set<std::string> files;
    for (const BitRun& run : out.runs) files.insert(run.file);
    first = static_cast<int>(files.size()) + 1;
  }
  const std::size_t before = out.runs.size();
  int number = first;
  const ZeroShift shift = zero_shift(plan.job, side);
  const Point zero{-shift.x, -shift.y};
  Point here = zero;
  for (OrderedGroup& group : order_operations(per_piece, grounds, wish)) {
    BitRun run;
    run.side = side;
    run.later = later;
    run.bit = *rack.find(group.bit);
    run.feeds = run.bit.feeds_in(wood);
    run.operations = std::move(group.operations);
    std::vector<TimedPasses> work;
    for (const Operation* op : run.operations) {
      work.push_back({&op->passes, run.feeds, run.bit.kind});
      work.back().feeds.feed *= op->feed_share;
      run.deepest = std::max(run.deepest, op->depth - op->ground);
    }
    if (!one_file) here = zero;  // each file is begun from there
    run.time = run_time(work, plan.machine, here, &travel);
    for (const Operation* op : run.operations) {
      if (!op->passes.empty()) here = op->passes.back().points.back().flat();
    }
    run.time.seconds += plan.machine.spin_up_seconds;
    run.file = file_name(one_file ? first : number++, run, one_file);
    out.seconds += run.time.seconds;
    out.runs.push_back(std::move(run));
  }
  // A single bit's file is called by it, also where one file was asked for.
  if (one_file && out.runs.size() == before + 1) out.runs.back().file = file_name(first, out.runs.back(), false);
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
  if (!back_cuts_out) add_side(out, plan, rack, Side::Back, waits, false, wish);
  add_side(out, plan, rack, Side::Front, waits, false, wish);
  add_side(out, plan, rack, Side::Front, waits, true, wish);
  if (back_cuts_out) add_side(out, plan, rack, Side::Back, waits, inlaid && plan.job.run.cut_out_last, wish);
  out.seconds += changes_of(out.runs, plan.machine);
  return out;
}

}  // namespace

void make_runs(Plan& plan) {
  const Rack& rack = plan.rack;
  Ordered own = ordered(plan, rack, {});
  plan.own_seconds = own.seconds;
  plan.own_bit_changes = own.runs.empty() ? 0 : static_cast<int>(own.runs.size()) - 1;
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
  for (const KeepOut& place : job.blank.keep_outs) {
    if (!place.metal()) continue;
    const Box box = place.box().grown(kRoom);
    // Where clamps stand on the turned board is not known: both ways are kept clear.
    travel.in_the_way.push_back(box);
    if (side == Side::Back) travel.in_the_way.push_back(turned_over(box, job.blank, job.run.turn));
  }
  return travel;
}

}  // namespace doyen
