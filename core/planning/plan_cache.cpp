#include "planning/plan_cache.hpp"

namespace doyen {
namespace {

std::size_t bytes_of(const Region& region) { return point_count(region) * sizeof(Point); }

std::size_t bytes_of(const std::vector<Pass>& passes) {
  std::size_t n = passes.size() * sizeof(Pass);
  for (const Pass& pass : passes) n += pass.points.size() * sizeof(Point3);
  return n;
}

// What is large of it; the same islands of several letters are counted once.
std::size_t bytes_of(const PiecePlan& plan) {
  std::size_t n = sizeof plan + bytes_of(plan.outlines.region);
  for (const Line2& line : plan.outlines.lines) n += line.size() * sizeof(Point);
  const Surroundings& a = plan.around;
  for (const Region* region : {&a.sunk, &a.raised, &a.floor, &a.part_floor, &a.open, &plan.cuts.floor, &plan.cuts.lost})
    n += bytes_of(*region);
  for (const Operation& op : plan.cuts.operations) n += bytes_of(op.passes);
  if (plan.cuts.groove) {
    const IslandGroove* before = nullptr;
    for (const auto& place : plan.cuts.groove->places) {
      if (place.island.get() != before) n += bytes_of(place.island->passes);
      before = place.island.get();
    }
  }
  return n;
}

}  // namespace

std::shared_ptr<const PiecePlan> PlanCache::find(const PieceKey& key, const Rack& rack, AskedRack::Asked* asked) {
  const std::scoped_lock hold(lock_);
  for (auto [it, end] = by_key_.equal_range(key); it != end; ++it) {
    const Place place = it->second;
    if (!place->asked.same_from(rack)) continue;
    place->used = plan_;
    kept_.splice(kept_.begin(), kept_, place);
    if (asked != nullptr) *asked = place->asked;
    return place->plan;
  }
  return nullptr;
}

void PlanCache::keep(const PieceKey& key, AskedRack::Asked asked, std::shared_ptr<const PiecePlan> plan) {
  const std::size_t bytes = bytes_of(*plan);
  const std::scoped_lock hold(lock_);
  kept_.push_front({key, std::move(asked), std::move(plan), bytes, plan_});
  by_key_.emplace(key, kept_.begin());
  ++given_;
}

void PlanCache::begin_plan() {
  const std::scoped_lock hold(lock_);
  ++plan_;
  std::size_t older = 0;
  for (auto it = kept_.begin(); it != kept_.end();) {
    const auto now = it++;
    if (now->used + 2 >= plan_) continue;
    older += now->bytes;
    if (older <= kOlder) continue;
    for (auto [entry, end] = by_key_.equal_range(now->key); entry != end; ++entry) {
      if (entry->second != now) continue;
      by_key_.erase(entry);
      break;
    }
    kept_.erase(now);
  }
}

std::size_t PlanCache::given() const {
  const std::scoped_lock hold(lock_);
  return given_;
}

std::size_t PlanCache::bytes() const {
  const std::scoped_lock hold(lock_);
  std::size_t n = 0;
  for (const Kept& kept : kept_) n += kept.bytes;
  return n;
}

}  // namespace doyen
