#include "planning/ways.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

#include "cutting/proposals.hpp"
#include "grounds/grounds.hpp"
#include "planning/job_ways.hpp"
#include "run/order.hpp"
#include "stock/species.hpp"
#include "treatments/look.hpp"
#include "treatments/suits.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;
using Change = std::function<void(Treatment&)>;

// All choices but those that belong to the one piece alone.
Treatment choices(const Treatment& cut) {
  Treatment t = cut;
  t.through.tabs.placed.clear();
  t.ground.reset();
  t.raise.panel.clear();
  return t;
}

std::string listed(const Rack& rack, const std::vector<BitId>& bits) {
  std::string words;
  for (std::size_t i = 0; i < bits.size(); ++i) {
    const Bit* bit = rack.find(bits[i]);
    const std::string name = bit == nullptr ? bits[i] : bit->name;
    words = i == 0 ? name : i == 1 ? say("{0} first, then {1}", words, name) : say("{0}, then {1}", words, name);
  }
  return words;
}

// A ground that several pieces share is cut with one of them: with the one that is cut just like this one.
const PieceCuts& cuts_of_it(const Plan& plan, const Item& item) {
  const PieceCuts& own = plan.piece(item.piece.id)->cuts;
  if (!own.operations.empty()) return own;
  for (const std::string& id : cut_alike(plan.job, item.piece.id)) {
    const PiecePlan* other = plan.piece(id);
    if (other != nullptr && !other->cuts.operations.empty()) return other->cuts;
  }
  return own;
}

// Collects the ways of one piece and those like it.
class Collector {
 public:
  Collector(const Plan& plan, const Rack& rack, const Item& item)
      : plan_(plan),
        rack_(rack_for(plan.job, rack)),
        item_(item),
        cuts_(cuts_of_it(plan, item)),
        outlines_(plan.piece(item.piece.id)->outlines),
        wood_(wood_class_of(plan.job.blank)),
        alike_(cut_alike(plan.job, item.piece.id)) {
    ways_.push_back({say("As it is: {0}", as_it_is()), {}});
    seen_.push_back(choices(item.cut));
  }

  std::vector<Way> all() {
    switch (item_.cut.kind) {
      case Kind::Pierce:
        openings();
        break;
      case Kind::CutOut:
        cut_outs();
        break;
      case Kind::Incise:
        grooves();
        break;
      default:
        break;
    }
    if (look_of(item_.cut.kind).clears(item_.cut) && item_.cut.kind != Kind::Pierce) floors();
    if (ways_.size() < 2) return {};
    return std::move(ways_);
  }

 private:
  [[nodiscard]] std::string as_it_is() const {
    const Treatment& t = item_.cut;
    std::vector<BitId> bits;
    for (const Operation& op : cuts_.operations) {
      if (std::find(bits.begin(), bits.end(), op.bit) == bits.end()) bits.push_back(op.bit);
    }
    if (t.kind == Kind::Pierce && t.pierce.slug) return say("cut round with the {0}", listed(rack_, bits));
    if (bits.empty()) return say("no bit cuts it");
    return listed(rack_, bits);
  }

  void add(const std::string& words, const Change& change) {
    Treatment then = item_.cut;
    change(then);
    const Treatment now = choices(then);
    if (ways_.size() >= kMostWays || std::find(seen_.begin(), seen_.end(), now) != seen_.end()) return;
    seen_.push_back(now);
    ways_.push_back({words, [ids = alike_, change](Job& job) {
                       for (const std::string& id : ids) {
                         if (Item* it = job.find(id)) change(it->cut);
                       }
                     }});
  }

  [[nodiscard]] bool usable(const Bit& bit, double deep) const {
    return clears(bit, item_.cut, rack_.find(item_.cut.bit)) && bit.feeds_in(wood_).known() &&
           bit.flute_length >= deep - 1e-6;
  }
  // Bits that clear and can go so deep, large ones first; of one size the first in the rack.
  [[nodiscard]] std::vector<const Bit*> clearers(double deep) const {
    std::vector<const Bit*> bits;
    for (const Bit& bit : rack_.bits) {
      const auto same = [&](const Bit* b) {
        return std::abs(b->levels() - bit.levels()) < std::min(0.3, 0.3 * bit.levels());
      };
      if (usable(bit, deep) && std::none_of(bits.begin(), bits.end(), same)) bits.push_back(&bit);
    }
    std::sort(bits.begin(), bits.end(), [](const Bit* a, const Bit* b) { return a->levels() > b->levels(); });
    return bits;
  }

  void openings() {
    const Bit* own = rack_.find(item_.cut.bit);
    if (own == nullptr || outlines_.region.empty()) return;
    const double whole = area(outlines_.region);
    add(say("Cut round, middles taped down: {0}", own->name), [](Treatment& t) {
      t.pierce.slug = true;
      t.through.taped = true;
      t.through.tabs.wanted = false;
      t.clearing.clear();
    });
    for (const Bit* bit : clearers(cuts_.deepest)) {
      if (bit->true_diameter() < 1.4 * own->true_diameter()) continue;
      if (area(opening(outlines_.region, bit->true_diameter() / 2)) < 0.25 * whole) continue;
      add(say("Clear: {0}", listed(rack_, {bit->id, own->id})), [id = bit->id](Treatment& t) {
        t.pierce.slug = false;
        t.clearing = {id};
      });
      break;
    }
    add(say("Clear: {0} alone", own->name), [](Treatment& t) {
      t.pierce.slug = false;
      t.clearing.clear();
    });
    add(say("Cut round, middles held by tabs: {0}", own->name), [](Treatment& t) {
      t.pierce.slug = true;
      t.through.taped = false;
      t.through.tabs.wanted = true;
      t.clearing.clear();
    });
  }

  void cut_outs() {
    const Bit* own = rack_.find(item_.cut.bit);
    if (own == nullptr) return;
    // One pass fewer, where its passes are nearly as deep as that already.
    const double step = own->depth_per_pass(wood_), deep = cuts_.deepest;
    const int passes = step > 0 ? static_cast<int>(std::ceil(deep / step - 1e-6)) : 0;
    if (passes > 1 && deep / (passes - 1) <= 1.15 * step) {
      Feeds feeds = own->feeds_in(wood_);
      feeds.depth_per_pass = std::ceil(deep / (passes - 1) * 100) / 100;
      ways_.push_back({say("{0} {0|pass|passes} of {1} with the {2}, everywhere, instead of {3} of {4}", passes - 1,
                           show(feeds.depth_per_pass), own->name, passes, show(step)),
                       [id = own->id, feeds](Job& job) { job.run.feeds[id] = feeds; }});
    }
    for (const Bit* bit : clearers(deep)) {
      const double d = bit->true_diameter();
      if (bit->id == own->id || d < 0.4 * own->true_diameter() || d > 2.2 * own->true_diameter()) continue;
      add(say("With the {0}", bit->name), [id = bit->id](Treatment& t) { t.bit = id; });
    }
  }

  void grooves() {
    if (!cuts_.groove) return;
    const double open = cuts_.groove->deepest();
    const Bit* own = rack_.find(item_.cut.bit);
    if (own == nullptr) return;
    std::vector<const Bit*> others;
    for (const Bit& bit : rack_.bits) {
      if (bit.kind == BitKind::V && bit.feeds_in(wood_).known() && std::abs(bit.true_angle() - own->true_angle()) > 1)
        others.push_back(&bit);
    }
    std::sort(others.begin(), others.end(), [&](const Bit* a, const Bit* b) {
      return std::abs(a->true_angle() - own->true_angle()) < std::abs(b->true_angle() - own->true_angle());
    });
    for (std::size_t i = 0; i < std::min<std::size_t>(2, others.size()); ++i)
      add(say("With the {0}", others[i]->name), [id = others[i]->id](Treatment& t) { t.bit = id; });
    if (item_.cut.incise.floor_limit) {
      add(say("To full depth, no flat floor"), [](Treatment& t) {
        t.incise.floor_limit.reset();
        t.clearing.clear();
      });
    } else if (open > 3) {
      const double limit =
          plan_.job.lengths.unit == Unit::Inch ? std::round(open * 0.6 / 0.254) * 0.254 : std::round(open * 6) / 10;
      add(say("Flat floor at {0}", show(limit)), [limit](Treatment& t) { t.incise.floor_limit = limit; });
    }
  }

  // Floors: what leaving the smallest out saves, one bit alone, and whatever Doyen would propose.
  void floors() {
    if (!item_.cut.clearing.empty() && item_.cut.kind != Kind::Incise)
      add(say("The bits that Doyen proposes"), [](Treatment& t) { t.clearing.clear(); });
    std::vector<BitId> used = cuts_.bits;
    if (used.size() > 1) {
      std::vector<BitId> fewer(used.begin(), used.end() - 1);
      const Bit* last = rack_.find(used.back());
      add(say("Without the {0}", last == nullptr ? std::string(used.back()) : last->name),
          [fewer](Treatment& t) { t.clearing = fewer; });
      add(say("With the {0} alone", last == nullptr ? std::string(used.back()) : last->name),
          [only = used.back()](Treatment& t) { t.clearing = {only}; });
    }
    const Bit* smallest = used.empty() ? nullptr : rack_.find(used.back());
    for (const Bit* bit : clearers(std::max(floor_depth(item_.cut), cuts_.deepest - cuts_.ground))) {
      if (smallest != nullptr && bit->levels() >= 0.75 * smallest->levels()) continue;
      if (smallest == nullptr && !cuts_.floor.empty() &&
          area(opening(cuts_.floor, bit->levels() / 2)) < 0.5 * area(cuts_.floor))
        continue;
      std::vector<BitId> finer = used;
      finer.push_back(bit->id);
      add(used.empty() ? say("The floor cleared first with the {0}", bit->name)
                       : say("And into the corners with the {0}", bit->name),
          [finer](Treatment& t) { t.clearing = finer; });
      break;
    }
    const bool rings = item_.cut.moves.way == Moves::Way::Rings;
    if (!used.empty())
      add(rings ? say("In rows along the grain") : say("In rings"),
          [rings](Treatment& t) { t.moves.way = rings ? Moves::Way::AlongGrain : Moves::Way::Rings; });
  }

  [[nodiscard]] std::string show(double mm) const { return depth_in_words(mm, plan_.job.lengths); }

  const Plan& plan_;
  Rack rack_;
  const Item& item_;
  const PieceCuts& cuts_;
  const Outlines& outlines_;
  std::string wood_;
  std::vector<std::string> alike_;
  std::vector<Way> ways_;
  std::vector<Treatment> seen_;
};

}  // namespace

std::vector<std::string> cut_alike(const Job& job, const std::string& piece) {
  const Item* item = job.find(piece);
  if (item == nullptr) return {};
  std::vector<std::string> ids;
  const Treatment same = choices(item->cut);
  for (const Item& other : job.items) {
    if (choices(other.cut) == same) ids.push_back(other.piece.id);
  }
  return ids;
}

std::vector<Way> ways_of(const Plan& plan, const Rack& rack, const std::string& piece) {
  if (piece.empty()) return job_ways(plan);
  const Item* item = plan.job.find(piece);
  const PiecePlan* planned = plan.piece(piece);
  if (item == nullptr || planned == nullptr || !planned->problem.empty()) return {};
  return Collector(plan, rack, *item).all();
}

void work_out(Way& way, const Plan& plan, const Rack& rack, const std::string& piece, PlanCache* cache,
              const Cancel& cancel) {
  Job job = plan.job;
  if (way.take) way.take(job);
  const Plan then = way.take ? doyen::plan(job, rack, plan.machine, cache, cancel) : plan;
  way.seconds = then.seconds;
  way.bit_changes = then.bit_changes();
  way.bits.clear();
  for (const BitRun& run : then.runs) way.bits.emplace_back(run.bit.name, run.time.seconds);
  way.stops = then.count(Grade::Stop);
  way.minds = then.count(Grade::Mind);
  way.unreached = 0;
  way.unreached_where.clear();
  const std::vector<std::string> alike = cut_alike(plan.job, piece);
  for (std::size_t i = 0; i < then.pieces.size(); ++i) {
    const bool about = piece.empty() || std::find(alike.begin(), alike.end(), job.items[i].piece.id) != alike.end();
    if (!about) continue;
    way.unreached += then.pieces[i]->cuts.unreached.area;
    if (!then.pieces[i]->cuts.lost.empty()) way.unreached_where.push_back(then.pieces[i]->cuts.lost);
  }
  way.comes_free = std::any_of(then.verdicts.begin(), then.verdicts.end(), [](const Verdict& v) {
    return v.code == "comes-free" || v.code == "slug-falls" || v.code == "loose-inside" || v.code == "no-tabs" ||
           v.code == "tape-holds-little";
  });
  way.known = true;
}

void mark_best(std::vector<Way>& ways) {
  int least_stops = 1 << 20;
  for (Way& way : ways) {
    way.best_time = way.best_quality = way.fewest_changes = false;
    if (way.known && !way.another_board) least_stops = std::min(least_stops, way.stops);
  }
  // What counts first, second and third; less is better. Differences that nobody would see are none.
  using Cost = std::array<double, 3>;
  const auto mark = [&](bool Way::*best, Cost (*cost)(const Way&)) {
    Way* first = nullptr;
    bool differ = false;
    for (Way& way : ways) {
      if (!way.known || way.another_board || way.stops > least_stops) continue;
      differ = differ || (first != nullptr && cost(way) != cost(*first));
      if (first == nullptr || cost(way) < cost(*first)) first = &way;
    }
    if (first != nullptr && differ) first->*best = true;
  };
  mark(&Way::best_time, [](const Way& w) { return Cost{std::round(w.seconds)}; });
  mark(&Way::best_quality, [](const Way& w) {
    return Cost{w.comes_free ? 1.0 : 0.0, std::round(w.unreached), static_cast<double>(w.minds)};
  });
  mark(&Way::fewest_changes, [](const Way& w) { return Cost{static_cast<double>(w.bit_changes)}; });
}

}  // namespace doyen
