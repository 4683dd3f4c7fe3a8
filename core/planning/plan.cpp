#include "planning/plan.hpp"

#include <algorithm>
#include <set>

#include "geometry/polyline.hpp"
#include "grounds/grounds.hpp"
#include "run/order.hpp"
#include "run/plain_words.hpp"
#include "stock/species.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

// Everything that cut_piece() looks at but for the rack, which keeps account of that itself.
std::string key_of(const Job& job, const Item& item, const Blank& blank) {
  Job one;
  one.items = {item};
  for (const Piece* piece : job.with_sources(item.piece)) {
    if (piece != &item.piece) one.items.push_back({*piece, {}});
  }
  for (Item& each : one.items) {
    each.piece.name.clear();
    if (auto* drawing = std::get_if<Drawing>(&each.piece.what)) {  // neither changes what is cut
      drawing->original.clear();
      drawing->traced.reset();
    }
  }
  one.blank = blank;
  one.blank.margin = 0;
  one.blank.keep_outs.clear();
  if (!item.cut.back) one.blank.width = one.blank.height = 1;
  one.blank.form = BlankForm::Rectangle;
  one.run.turn = job.run.turn;
  return write_job(one);
}

// The outlines alone: a plan of a piece without cuts.
std::shared_ptr<const PiecePlan> set_piece(const Job& job, const Item& item) {
  auto out = std::make_shared<PiecePlan>();
  try {
    out->outlines = job.outlines(item);
  } catch (const Problem& problem) {
    out->problem = problem.what();
  }
  return out;
}

// What is cut from the back is worked out on the board turned over; what it says of places is said of the front again.
PieceCuts cut_from_back(const Item& item, const Outlines& outlines, const Surroundings& around, const Job& job,
                        const AskedRack& rack, const Cancel& cancel) {
  const Blank& blank = job.blank;
  const TurnOver turn = job.run.turn;
  const auto point = [&](Point p) { return turned_over(p, blank, turn); };
  // A slot hangs by the sign's own up and down, whichever edge the board is turned about.
  const bool as_seen = look_of(item.cut.kind).to_back;
  if (as_seen) {
    PieceCuts cuts = cut_piece(item.piece.id, outlines, item.cut, blank, rack, cancel, around);
    for (Operation& op : cuts.operations) {
      op.passes = turned_over(std::move(op.passes), blank, turn);
      op.back = true;
    }
    return cuts;
  }
  Outlines over = outlines;
  over.region = turned_over(outlines.region, blank, turn);
  for (Line2& line : over.lines) {
    for (Point& p : line) p = point(p);
  }
  Surroundings round = around;
  round.sunk = turned_over(around.sunk, blank, turn);
  round.raised = turned_over(around.raised, blank, turn);
  round.open = turned_over(around.open, blank, turn);
  // Tabs count along the outlines as seen from the front, whose rings run the other way here.
  Treatment cut = item.cut;
  const auto ring = [](const Outlines& o, int island) -> const Ring* {
    return island < 0 || island >= static_cast<int>(o.region.islands.size())
               ? nullptr
               : &o.region.islands[static_cast<std::size_t>(island)].rings.front();
  };
  for (TabPlace& place : cut.through.tabs.placed) {
    const Ring *front = ring(outlines, place.island), *back = ring(over, place.island);
    if (front != nullptr && back != nullptr) place.along = share_nearest(*back, point(on_ring(*front, place.along).at));
  }
  PieceCuts cuts = cut_piece(item.piece.id, over, cut, blank, rack, cancel, round);
  for (Operation& op : cuts.operations) op.back = true;
  cuts.floor = turned_over(cuts.floor, blank, turn);
  cuts.lost = turned_over(cuts.lost, blank, turn);
  cuts.unreached.at = point(cuts.unreached.at);
  cuts.deepest_at = point(cuts.deepest_at);
  for (Point& hole : cuts.holes) hole = point(hole);
  if (cuts.cut_out) {
    for (PlacedTab& tab : cuts.cut_out->tabs) {
      tab.at = point(tab.at);
      if (const Ring* front = ring(outlines, tab.place.island)) tab.place.along = share_nearest(*front, tab.at);
      tab.along = turn == TurnOver::LeftEdge ? Point{-tab.along.x, tab.along.y} : Point{tab.along.x, -tab.along.y};
    }
  }
  return cuts;
}

// What is cut of the same piece from another ground.
void add_part(PieceCuts& all, PieceCuts part) {
  for (Operation& op : part.operations) all.operations.push_back(std::move(op));
  for (const std::string& bit : part.bits) {
    if (std::find(all.bits.begin(), all.bits.end(), bit) == all.bits.end()) all.bits.push_back(bit);
  }
  all.holes.insert(all.holes.end(), part.holes.begin(), part.holes.end());
  for (auto [to, from] : {std::pair{&all.floor, &part.floor}, std::pair{&all.lost, &part.lost}})
    to->islands.insert(to->islands.end(), from->islands.begin(), from->islands.end());
  all.floor_by_v += part.floor_by_v;
  all.limited_by_body = all.limited_by_body || part.limited_by_body;
  if (part.unreached.width > all.unreached.width) {
    all.unreached.at = part.unreached.at;
    all.unreached.width = part.unreached.width;
  }
  all.unreached.area += part.unreached.area;
  if (all.groove && part.groove)
    all.groove->places.insert(all.groove->places.end(), part.groove->places.begin(), part.groove->places.end());
  else if (part.groove)
    all.groove = std::move(part.groove);
  if (part.deepest > all.deepest) {
    all.deepest = part.deepest;
    all.deepest_at = part.deepest_at;
    all.ground = part.ground;
  }
}

std::shared_ptr<const PiecePlan> work_out(const PiecePlan& set, const Item& item, const Surroundings& around,
                                          const Job& job, const AskedRack& rack, const Cancel& cancel,
                                          std::uint64_t key) {
  auto out = std::make_shared<PiecePlan>(set);
  out->around = around;
  out->key = key;
  try {
    if (out->problem.empty()) {
      bool first = true;
      for (const PartOnGround& part : parts_on_grounds(out->outlines, around)) {
        PieceCuts cuts = item.cut.back
                             ? cut_from_back(item, part.outlines, part.around, job, rack, cancel)
                             : cut_piece(item.piece.id, part.outlines, item.cut, job.blank, rack, cancel, part.around);
        if (first)
          out->cuts = std::move(cuts);
        else
          add_part(out->cuts, std::move(cuts));
        first = false;
      }
    }
  } catch (const Problem& problem) {
    if (problem.kind() == Problem::Kind::Cancelled) throw;
    out->problem = problem.what();
  }
  return out;
}

// The board's outline; its box where that is no path.
Region board_of(const Blank& blank) {
  try {
    return region_of(blank);
  } catch (const Problem&) {
    const Box b = blank.box();
    return clean({{{b.left, b.bottom}, {b.right, b.bottom}, {b.right, b.top}, {b.left, b.top}}});
  }
}

// What of a piece's surroundings its cutting depends on.
std::string key_of(const Surroundings& around) {
  std::string key = '|' + format_number(around.ground.below, 5) + '|' + format_number(around.grown, 5) + '|' +
                    format_number(around.wall, 5) + '|' + format_number(around.lean, 5) + '|' +
                    format_number(around.part_below, 5) + '|' + around.ground.of + '|' + around.ground.half_on + '|' +
                    around.with + '|';
  for (const Region* region : {&around.sunk, &around.raised, &around.open, &around.floor, &around.part_floor}) {
    for (const Island& island : region->islands) {
      for (const Ring& ring : island.rings)
        key.append(reinterpret_cast<const char*>(ring.data()), ring.size() * sizeof(Point));
    }
  }
  return key;
}

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
  Point here;
  for (OrderedGroup& group : order_operations(per_piece, grounds, wish)) {
    BitRun run;
    run.side = side;
    run.later = later;
    run.bit = *rack.find(group.bit);
    run.feeds = run.bit.feeds_in(wood);
    run.operations = std::move(group.operations);
    for (const Operation* op : run.operations) {
      Feeds feeds = run.feeds;
      feeds.feed *= op->feed_share;
      const RunTime t = run_time(op->passes, feeds, plan.machine, here, &travel);
      run.time.seconds += t.seconds;
      run.time.in_wood += t.in_wood;
      run.time.length += t.length;
      run.time.lifts += t.lifts;
      run.time.travel += t.travel;
      run.deepest = std::max(run.deepest, op->depth - op->ground);
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

void make_runs(Plan& plan, const Rack& rack) {
  Ordered own = ordered(plan, rack, {});
  plan.own_seconds = own.seconds;
  plan.own_bit_changes = own.runs.empty() ? 0 : static_cast<int>(own.runs.size()) - 1;
  if (!plan.job.run.order.empty()) own = ordered(plan, rack, plan.job.run.order);
  plan.runs = std::move(own.runs);
  plan.seconds = own.seconds;
}

// A cut-out that comes before other work is held by its tabs alone meanwhile.
void judge_order(Plan& plan) {
  if (plan.job.run.order.empty()) return;
  const Operation* out_first = nullptr;
  for (const BitRun& run : plan.runs) {
    for (const Operation* op : run.operations) {
      if (op->kind == Operation::Kind::Profile) {
        if (out_first == nullptr) out_first = op;
        continue;
      }
      if (out_first == nullptr) continue;
      const Item* item = plan.job.find(out_first->piece);
      plan.verdicts.push_back({Grade::Mind,
                               "cut-out-early",
                               out_first->piece,
                               out_first->passes.front().points.front().flat(),
                               "In your order “" + (item == nullptr ? out_first->piece : item->piece.name) +
                                   "” is cut out before the " + run.bit.name + " has done its work.",
                               "Only its tabs hold it meanwhile; it can shift or lift under the bit.",
                               {{"Take Doyen's order", [](Job& job) { job.run.order.clear(); }}}});
      return;
    }
  }
}

}  // namespace

bool Plan::has_stop() const { return count(Grade::Stop) > 0; }

bool Plan::has_later() const {
  return std::any_of(runs.begin(), runs.end(), [](const BitRun& run) { return run.later; });
}

int Plan::count(Grade grade) const {
  return static_cast<int>(
      std::count_if(verdicts.begin(), verdicts.end(), [&](const Verdict& v) { return v.grade == grade; }));
}

const PiecePlan* Plan::piece(const std::string& id) const {
  for (std::size_t i = 0; i < job.items.size() && i < pieces.size(); ++i) {
    if (job.items[i].piece.id == id) return pieces[i].get();
  }
  return nullptr;
}

std::shared_ptr<const PiecePlan> PlanCache::find(const std::string& key, const Rack& rack) {
  const std::scoped_lock hold(lock_);
  const auto it = kept_.find(key);
  if (it == kept_.end()) return nullptr;
  for (const Kept& kept : it->second) {
    if (kept.asked.same_from(rack)) return kept.plan;
  }
  return nullptr;
}

void PlanCache::keep(const std::string& key, AskedRack::Asked asked, std::shared_ptr<const PiecePlan> plan) {
  constexpr std::size_t kMost = 400, kMostOfOne = 4;
  const std::scoped_lock hold(lock_);
  std::vector<Kept>& all = kept_[key];
  if (all.empty()) order_.push_back(key);
  if (all.size() >= kMostOfOne) all.erase(all.begin());
  all.push_back({std::move(asked), std::move(plan)});
  if (order_.size() > kMost) {
    kept_.erase(order_.front());
    order_.erase(order_.begin());
  }
}

bool Plan::has_back() const {
  return std::any_of(runs.begin(), runs.end(), [](const BitRun& r) { return r.side == Side::Back; });
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

Rack rack_for(const Job& job, const Rack& rack) {
  Rack own = rack;
  const std::string wood = wood_class_of(job.blank);
  for (const auto& [id, feeds] : job.run.feeds) {
    for (Bit& bit : own.bits) {
      if (bit.id == id) bit.feeds[wood] = feeds;
    }
  }
  return own;
}

Plan plan(const Job& job, const Rack& whole_rack, const MachineProfile& machine, PlanCache* cache, const Cancel& cancel,
          const Progress& progress) {
  Plan out;
  const Rack rack = rack_for(job, whole_rack);
  out.job = job;
  out.machine = machine;
  out.rack = rack;
  const int total = static_cast<int>(job.items.size());
  // First every piece's outlines, then what lies on what, then the cutting.
  std::vector<std::shared_ptr<const PiecePlan>> set;
  std::vector<Laid> laid;
  for (const Item& item : job.items) {
    cancel.check();
    Item bare{item.piece, {}};
    bare.cut.back = item.cut.back;
    bare.cut.kind = item.cut.back ? item.cut.kind : Treatment::Kind::None;  // it mirrors what is cut from the back
    const std::string key = "set " + key_of(job, bare, job.blank);
    std::shared_ptr<const PiecePlan> piece = cache == nullptr ? nullptr : cache->find(key, rack);
    if (!piece) {
      piece = set_piece(job, item);
      if (cache != nullptr) cache->keep(key, {}, piece);
    }
    laid.push_back({item.piece.id, piece->problem.empty() ? &piece->outlines : nullptr, &item.cut});
    set.push_back(std::move(piece));
  }
  const std::vector<Surroundings> around = surroundings_of(laid, rack, board_of(job.blank));
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    cancel.check();
    const Item& item = job.items[i];
    const std::string key = key_of(job, item, job.blank) + key_of(around[i]);
    std::shared_ptr<const PiecePlan> piece = cache == nullptr ? nullptr : cache->find(key, rack);
    if (!piece) {
      const AskedRack asked(rack);
      piece = work_out(*set[i], item, around[i], job, asked, cancel, std::hash<std::string>{}(key));
      if (cache != nullptr) cache->keep(key, asked.asked(), piece);
    }
    out.pieces.push_back(std::move(piece));
    if (progress.tell) progress.tell(static_cast<int>(out.pieces.size()), total);
  }
  cancel.check();
  make_runs(out, rack);
  cancel.check();
  Situation situation{job, rack, machine, {}};
  for (const auto& piece : out.pieces) {
    if (piece->problem.empty())
      situation.pieces.push_back({&piece->outlines, &piece->cuts, &piece->around, ""});
    else
      situation.pieces.push_back({nullptr, nullptr, nullptr, piece->problem});
  }
  out.verdicts = judge(situation);
  judge_order(out);
  std::stable_sort(out.verdicts.begin(), out.verdicts.end(),
                   [](const Verdict& a, const Verdict& b) { return a.grade > b.grade; });
  return out;
}

const MachineProfile& machine_for(const Job& job) {
  const MachineProfile* machine = machine_table().find(job.run.machine);
  return machine == nullptr ? machine_table().machines.front() : *machine;
}

}  // namespace doyen
