// What-if at once: a first answer from the moves that there are, until the real one is planned.
#include <algorithm>
#include <cmath>

#include "machine/motion.hpp"
#include "planning/what_if.hpp"
#include "run/placement.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

class About {
 public:
  About(const Plan& plan, const std::string& piece, const Supposed& asked)
      : plan_(plan),
        piece_(piece),
        asked_(asked),
        wood_(wood_class_of(plan.job.blank)),
        machine_(machine_along_board(plan.machine, plan.job.run.on_bed)) {}

  double seconds() const {
    double all = plan_.seconds;
    for (const BitRun& run : plan_.runs) {
      double was = 0, then = 0;
      for (const Operation* op : run.operations) {
        const double now = timed(op->passes, run.feeds, *op, run.bit);
        was += now;
        then += seconds_of(run, *op, now);
      }
      // What else the run takes, spinning up and travelling between pieces, stays.
      all += then - was;
    }
    return std::max(0.0, all);
  }

 private:
  [[nodiscard]] bool meant(const Operation& op) const { return piece_.empty() || op.piece == piece_; }
  [[nodiscard]] double timed(const std::vector<Pass>& passes, Feeds feeds, const Operation& op, const Bit& bit) const {
    feeds.feed *= op.feed_share;
    return run_time(passes, feeds, machine_, {}, nullptr, bit.kind).seconds;
  }
  // The feeds of a bit that cuts one of those pieces change wherever it cuts (what_if.hpp).
  [[nodiscard]] bool fed_otherwise(const BitRun& run) const {
    return std::any_of(run.operations.begin(), run.operations.end(), [&](const Operation* op) { return meant(*op); });
  }
  [[nodiscard]] const Bit* other_v(const Operation& op) const {
    const Item* item = plan_.job.find(op.piece);
    const bool by_v = meant(op) && item != nullptr && wanted_bit(item->cut) == WantedBit::V && op.bit == item->cut.bit;
    return by_v && !asked_.v.empty() ? plan_.rack.find(asked_.v) : nullptr;
  }
  [[nodiscard]] static double levels(double deep, double step) {
    return std::max(1.0, std::ceil(deep / std::max(0.05, step) - 1e-6));
  }

  // The floor that only the V's tip goes over, today's and the one asked for, mm².
  struct Floor {
    double was = 0, then = 0;
    double edge = 1, whole = 1;  // how much of its edge, and of all of it, is left, as shares of today's
    double round = 0;            // mm round today's
  };
  [[nodiscard]] static double edge_of(const Region& region) {
    double mm = 0;
    for (const Island& island : region.islands) {
      for (const Ring& ring : island.rings) mm += ring_length(ring);
    }
    return mm;
  }
  [[nodiscard]] Floor floor_of(const Operation& op, const Bit& v, double most) const {
    const PiecePlan& piece = *plan_.piece(op.piece);
    Floor floor{piece.cuts.floor_by_v, 0, 0, 0, edge_of(piece.cuts.floor)};
    if (!std::isfinite(most)) return floor;
    double across = 0;  // of the smallest bit that clears it first
    for (const BitId& id : piece.cuts.bits) {
      const Bit* bit = plan_.rack.find(id);
      if (bit != nullptr && (across == 0 || bit->levels() < across)) across = bit->levels();
    }
    const double size = asked_.size;
    const Region region = grow(piece.outlines.region, -(most * v.tan_half() + v.tip / 2) / size);
    const double had_area = area(piece.cuts.floor);
    floor.edge = floor.round > 0 ? size * edge_of(region) / floor.round : 1;
    floor.whole = had_area > 0 ? size * size * area(region) / had_area : 1;
    floor.then = size * size * area(across > 0 ? lost_in_opening(region, across / 2 / size) : region);
    return floor;
  }
  // What the V's tip takes for so much floor: in rows as far apart as their ridges allow; narrow floors take twice
  // as long as that, for their corners and lifts (measured on the demos).
  [[nodiscard]] static double tip_seconds(double mm2, const Item& item, const Bit& v, double feed) {
    constexpr double kCorners = 2;
    const double pitch = std::max(0.008, 2 * ridge_height(item.cut.moves.v_floor) * v.tan_half() + 0.9 * v.tip);
    return feed > 0 ? kCorners * mm2 / pitch / (feed / 60) : 0;
  }

  double seconds_of(const BitRun& run, const Operation& op, double now) const {
    const Bit* v = other_v(op);
    const Bit& bit = v == nullptr ? run.bit : *v;
    Feeds feeds = v == nullptr ? run.feeds : v->feeds_in(wood_);
    if (fed_otherwise(run)) {
      feeds.feed *= asked_.feed;
      feeds.plunge *= asked_.feed;
    }
    const Item* item = plan_.job.find(op.piece);
    const bool incised = meant(op) && item != nullptr && item->cut.kind == Treatment::Kind::Incise;
    if (incised && op.kind == Operation::Kind::Groove) return groove_seconds(run.bit, bit, feeds, op, *item);
    const Bit* own = incised ? plan_.rack.find(asked_.v.empty() ? item->cut.bit : asked_.v) : nullptr;
    if (own != nullptr && op.kind == Operation::Kind::Clear) {
      const double most = asked_.floor_limit.value_or(item->cut.incise.floor_limit.value_or(INFINITY));
      // Where only the V's body limits it there is no figure to go by.
      const bool known = std::isfinite(most) || asked_.floor_limit;
      return timed(op.passes, feeds, op, bit) * (known ? floor_of(op, *own, most).whole : 1);
    }
    const double size = meant(op) ? asked_.size : 1;
    const double base = size == 1 ? (feeds == run.feeds && v == nullptr ? now : timed(op.passes, feeds, op, bit))
                                  : timed(stretched(op, op.passes, size, 1, INFINITY), feeds, op, bit);
    const bool through = op.kind == Operation::Kind::Profile || op.kind == Operation::Kind::Pierce;
    const double deep = op.depth + (through && asked_.thickness ? *asked_.thickness - plan_.job.blank.thickest() : 0);
    const double more = levels(deep, bit.depth_per_pass(wood_)) / levels(op.depth, run.bit.depth_per_pass(wood_));
    const bool floor = op.kind == Operation::Kind::Clear || op.kind == Operation::Kind::Plane;
    return base * more * (floor ? size : 1);
  }

  // Its axis stretched, sunk and capped; its floor by area.
  double groove_seconds(const Bit& was, const Bit& bit, const Feeds& feeds, const Operation& op,
                        const Item& item) const {
    const double had = item.cut.incise.floor_limit.value_or(INFINITY);
    const double most = asked_.floor_limit.value_or(had);
    const double sink = asked_.size * was.tan_half() / bit.tan_half();
    if (asked_.size == 1 && sink == 1 && most == had) return timed(op.passes, feeds, op, bit);
    const Floor floor = floor_of(op, bit, most);
    const double step = bit.depth_per_pass(wood_), was_step = was.depth_per_pass(wood_);
    const double more = levels(std::min(op.depth * sink, most), step) / levels(op.depth, was_step);
    // Its way on today's floor runs round that floor's edge, which goes as the edge does; the rest is rows over it.
    double level = 0, way = 0;
    for (const Pass& pass : op.passes) {
      for (std::size_t i = 1; i < pass.points.size(); ++i) {
        const Point3 &a = pass.points[i - 1], &b = pass.points[i];
        const double mm = distance(a.flat(), b.flat());
        way += mm;
        if (std::isfinite(had) && std::abs(a.z - b.z) < 1e-6 && op.ground - a.z > had - 1e-6) level += mm;
      }
    }
    const double edge = std::min(level, floor.round), rows = way > 0 ? (level - edge) / way : 0;
    const double stays = way > 0 ? 1 - rows - edge / way * (1 - std::min(1.0, floor.edge)) : 1;
    const double along = stays * more * timed(stretched(op, op.passes, asked_.size, sink, most), feeds, op, bit);
    // As the rows of today's floor really take, where it has any.
    const double took = rows * timed(op.passes, feeds, op, was);
    const double reckoned = tip_seconds(floor.was, item, was, feeds.feed);
    const double by_now = took > 1 && reckoned > 0 ? took / reckoned : 1;
    return along + by_now * tip_seconds(floor.then, item, bit, feeds.feed);
  }

  [[nodiscard]] static std::vector<Pass> stretched(const Operation& op, std::vector<Pass> passes, double size,
                                                   double sink, double most) {
    for (Pass& pass : passes) {
      for (Point3& p : pass.points) p = {p.x * size, p.y * size, op.ground - std::min((op.ground - p.z) * sink, most)};
    }
    return passes;
  }

  const Plan& plan_;
  const std::string& piece_;
  const Supposed& asked_;
  std::string wood_;
  MachineProfile machine_;
};

}  // namespace

double about_seconds(const Plan& plan, const std::string& piece, const Supposed& asked) {
  return About(plan, piece, asked).seconds();
}

}  // namespace doyen
