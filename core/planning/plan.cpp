#include "planning/plan.hpp"

#include <algorithm>
#include <cstdlib>
#include <filesystem>

#include "atomic_file.hpp"
#include "data_folder.hpp"
#include "run/order.hpp"

namespace doyen {
namespace {

// Everything that cut_piece() looks at.
std::string key_of(const Job& job, const Item& item, const Blank& blank, const Rack& rack) {
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
  one.blank.width = one.blank.height = 1;
  one.blank.form = BlankForm::Rectangle;
  std::string key = write_job(one);
  Rack used;
  for (const std::string& id : item.cut.clearing) {
    if (const Bit* bit = rack.find(id)) used.bits.push_back(*bit);
  }
  if (const Bit* bit = rack.find(item.cut.bit)) used.bits.push_back(*bit);
  return key + write_rack(used);
}

// The outlines alone: a plan of a piece without cuts.
std::shared_ptr<const PiecePlan> set_piece(const Job& job, const Item& item) {
  auto out = std::make_shared<PiecePlan>();
  try {
    out->outlines = outlines_of(item.piece, job.source());
  } catch (const Problem& problem) {
    out->problem = problem.what();
  }
  return out;
}

std::shared_ptr<const PiecePlan> work_out(const PiecePlan& set, const Item& item, const Surroundings& around,
                                          const Blank& blank, const Rack& rack, const Cancel& cancel) {
  auto out = std::make_shared<PiecePlan>(set);
  out->around = around;
  try {
    if (out->problem.empty())
      out->cuts = cut_piece(item.piece.id, out->outlines, item.cut, blank, rack, cancel, around);
  } catch (const Problem& problem) {
    if (problem.kind() == Problem::Kind::Cancelled) throw;
    out->problem = problem.what();
  }
  return out;
}

// What of a piece's surroundings its cutting depends on.
std::string key_of(const Surroundings& around) {
  std::string key = '|' + format_number(around.ground.below, 5) + '|' + format_number(around.grown, 5) + '|' +
                    around.ground.of + '|' + around.ground.half_on + '|' + around.with + '|';
  for (const Island& island : around.sunk.islands) {
    for (const Ring& ring : island.rings)
      key.append(reinterpret_cast<const char*>(ring.data()), ring.size() * sizeof(Point));
  }
  return key;
}

std::string file_name(int number, const Bit& bit) {
  std::string name = (number < 10 ? "0" : "") + std::to_string(number) + "-";
  for (const char c : bit.id) name += c == '/' ? '-' : c;  // flat-1/8in becomes flat-1-8in
  return name + ".nc";
}

void make_runs(Plan& plan, const Rack& rack, const MachineProfile& machine, const std::string& wood) {
  std::vector<std::vector<const Operation*>> per_piece;
  for (const auto& piece : plan.pieces) {
    auto& queue = per_piece.emplace_back();
    for (const Operation& op : piece->cuts.operations) queue.push_back(&op);
  }
  Point here;
  std::vector<std::vector<std::size_t>> grounds(plan.pieces.size());
  for (std::size_t i = 0; i < plan.pieces.size(); ++i) {
    for (std::size_t k = 0; k < plan.pieces.size(); ++k) {
      if (k != i && !plan.pieces[i]->around.ground.of.empty() &&
          plan.job.items[k].piece.id == plan.pieces[i]->around.ground.of)
        grounds[i].push_back(k);
    }
  }
  for (OrderedGroup& group : order_operations(per_piece, grounds)) {
    BitRun run;
    run.bit = *rack.find(group.bit);
    run.feeds = run.bit.feeds_in(wood);
    // Nearest piece next, where the pieces' own order allows it: operations of different pieces are independent.
    std::stable_sort(group.operations.begin(), group.operations.end(),
                     [](const Operation* a, const Operation* b) { return a->kind < b->kind; });
    run.operations = std::move(group.operations);
    for (const Operation* op : run.operations) {
      const RunTime t = run_time(op->passes, run.feeds, machine, here);
      run.time.seconds += t.seconds;
      run.time.in_wood += t.in_wood;
      run.time.length += t.length;
      run.time.lifts += t.lifts;
      run.time.travel += t.travel;
      run.deepest = std::max(run.deepest, op->depth - op->ground);
      if (!op->passes.empty()) here = op->passes.back().points.back().flat();
    }
    run.time.seconds += machine.spin_up_seconds;
    run.file = file_name(static_cast<int>(plan.runs.size()) + 1, run.bit);
    plan.runs.push_back(std::move(run));
  }
  for (const BitRun& run : plan.runs) plan.seconds += run.time.seconds;
  plan.seconds += plan.bit_changes() * machine.bit_change_seconds;
}

}  // namespace

bool Plan::has_stop() const { return count(Grade::Stop) > 0; }

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

std::shared_ptr<const PiecePlan> PlanCache::find(const std::string& key) {
  const std::scoped_lock hold(lock_);
  const auto it = kept_.find(key);
  return it == kept_.end() ? nullptr : it->second;
}

void PlanCache::keep(const std::string& key, std::shared_ptr<const PiecePlan> plan) {
  constexpr std::size_t kMost = 400;
  const std::scoped_lock hold(lock_);
  if (!kept_.emplace(key, std::move(plan)).second) return;
  order_.push_back(key);
  if (order_.size() > kMost) {
    kept_.erase(order_.front());
    order_.erase(order_.begin());
  }
}

Plan plan(const Job& job, const Rack& rack, const MachineProfile& machine, PlanCache* cache, const Cancel& cancel,
          const Progress& progress) {
  Plan out;
  out.job = job;
  out.machine = machine;
  const int total = static_cast<int>(job.items.size());
  // First every piece's outlines, then what lies on what, then the cutting.
  std::vector<std::shared_ptr<const PiecePlan>> set;
  std::vector<Laid> laid;
  for (const Item& item : job.items) {
    cancel.check();
    Item bare{item.piece, {}};
    const std::string key = "set " + key_of(job, bare, job.blank, {});
    std::shared_ptr<const PiecePlan> piece = cache == nullptr ? nullptr : cache->find(key);
    if (!piece) {
      piece = set_piece(job, item);
      if (cache != nullptr) cache->keep(key, piece);
    }
    laid.push_back({item.piece.id, piece->problem.empty() ? &piece->outlines : nullptr, &item.cut});
    set.push_back(std::move(piece));
  }
  const std::vector<Surroundings> around = surroundings_of(laid, rack);
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    cancel.check();
    const Item& item = job.items[i];
    // Without chosen bits Doyen proposes from the whole rack.
    const bool proposes = makes_ground(item.cut.kind) && item.cut.clearing.empty();
    const std::string key =
        key_of(job, item, job.blank, rack) + key_of(around[i]) + (proposes ? write_rack(rack) : std::string());
    std::shared_ptr<const PiecePlan> piece = cache == nullptr ? nullptr : cache->find(key);
    if (!piece) {
      piece = work_out(*set[i], item, around[i], job.blank, rack, cancel);
      if (cache != nullptr) cache->keep(key, piece);
    }
    out.pieces.push_back(std::move(piece));
    if (progress.tell) progress.tell(static_cast<int>(out.pieces.size()), total);
  }
  cancel.check();
  make_runs(out, rack, machine, wood_class_of(job.blank));
  cancel.check();
  Situation situation{job, rack, machine, {}};
  for (const auto& piece : out.pieces) {
    if (piece->problem.empty())
      situation.pieces.push_back({&piece->outlines, &piece->cuts, &piece->around, ""});
    else
      situation.pieces.push_back({nullptr, nullptr, nullptr, piece->problem});
  }
  out.verdicts = judge(situation);
  return out;
}

const MachineProfile& machine_for(const Job& job) {
  const MachineProfile* machine = machine_table().find(job.run.machine);
  return machine == nullptr ? machine_table().machines.front() : *machine;
}

std::string own_rack_path() {
  const char* data = std::getenv("XDG_DATA_HOME");
  const char* home = std::getenv("HOME");
  const std::string base =
      data != nullptr && *data != 0 ? data : std::string(home == nullptr ? "." : home) + "/.local/share";
  return base + "/doyen/rack.json";
}

Rack load_rack() {
  const std::string own = own_rack_path();
  std::error_code error;
  const std::string path = std::filesystem::exists(own, error) ? own : data_file("rack.json");
  return read_rack(read_file(path), path);
}

}  // namespace doyen
