#include "holding/board_hold.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "geometry/united.hpp"
#include "holding/forces.hpp"
#include "holding/screws.hpp"
#include "problem.hpp"
#include "stock/species.hpp"
#include "stock/strength.hpp"
#include "stock/turn_over.hpp"

namespace doyen {
namespace {

double holds(const KeepOut& metal) {
  const HoldLimits& limits = strength_table().hold;
  return metal.kind == KeepOut::Kind::Clamp ? limits.clamp : limits.screw;
}

// A pad turns hard about its own middle; a round screw does not hold there. mm.
double own_arm(const KeepOut& metal) {
  return metal.kind == KeepOut::Kind::Clamp ? (metal.width + metal.height) / 6 : 0;
}

bool against_something(const Job& job) { return job.run.fixture.kind != Fixture::Kind::None; }

// The worst with what stands while that side is up.
BoardHeld worst_of(const std::vector<KeepOut>& metal, const std::vector<PushedAt>& pushes) {
  std::array<Holds, 2> by;
  for (const bool back_up : {false, true}) {
    std::vector<KeepOut> stands;
    for (const KeepOut& each : metal) {
      if (each.stands_while(back_up)) stands.push_back(each);
    }
    by[back_up ? 1 : 0] = holds_of(stands);
  }
  BoardHeld worst;
  for (const PushedAt& push : pushes) {
    const Holds& here = by[push.back_up ? 1 : 0];
    if (here.straight <= 0) continue;  // nothing is said of how it is held then
    const double share = here.share(push);
    if (share > worst.share) worst = {push, share, here};
  }
  return worst;
}

}  // namespace

std::vector<PushedAt> pushes_on(const Job& job, const Rack& rack, std::size_t piece,
                                const std::vector<Operation>& operations) {
  std::vector<PushedAt> all;
  const std::string wood = wood_class_of(job.blank);
  for (const Operation& op : operations) {
    const Bit* bit = rack.find(op.bit);
    if (bit == nullptr || op.kind == Operation::Kind::Drill || op.passes.empty()) continue;
    Box box;
    for (const Pass& pass : op.passes) {
      for (const Point3& p : pass.points) box.add(op.back ? turned_over(p.flat(), job.blank, job.run.turn) : p.flat());
    }
    const double newtons = bit_pushes(*bit, wood);
    for (const Point at :
         {Point{box.left, box.bottom}, {box.right, box.bottom}, {box.right, box.top}, {box.left, box.top}})
      all.push_back({newtons, at, op.back, piece, op.bit});
  }
  return all;
}

double Holds::share(const PushedAt& push) const {
  const double turns = push.newtons * distance(middle, push.at);
  return push.newtons / straight + (turns > 0 ? turns / std::max(turning, 1e-9) : 0);
}

Holds holds_of(const std::vector<KeepOut>& metal) {
  Holds out;
  for (const KeepOut& each : metal) {
    out.straight += holds(each);
    out.middle = out.middle + Point{each.x, each.y} * holds(each);
  }
  if (out.straight <= 0) return out;
  out.middle = out.middle * (1 / out.straight);
  for (const KeepOut& each : metal)
    out.turning += holds(each) * (distance(out.middle, {each.x, each.y}) + own_arm(each));
  return out;
}

std::optional<BoardHeld> board_held(const Job& job, const std::vector<PushedAt>& pushes) {
  const std::vector<KeepOut> metal = metal_on(job);
  if (metal.empty() || pushes.empty() || against_something(job)) return std::nullopt;
  BoardHeld worst = worst_of(metal, pushes);
  if (worst.share <= 0) return std::nullopt;
  return worst;
}

std::optional<KeepOut> clamp_that_holds(const Job& job, const Rack& rack, const std::vector<PushedAt>& pushes) {
  constexpr double kStep = 10;             // mm along the edges
  constexpr double kClear = kNutHalf + 8;  // mm that its edge keeps from what is cut: the nut passes, and some room
  std::vector<Region> cut;
  for (const Item& item : job.items) {
    if (item.cut.kind == Treatment::Kind::None) continue;
    try {
      cut.push_back(cut_region(job, item, job.outlines(item), rack));
    } catch (const Problem&) {
      continue;  // its own verdict says so
    }
  }
  const Region taken = grow(united(std::move(cut)), kClear);
  const std::vector<KeepOut> metal = metal_on(job);
  const Region board = region_of(job.blank);
  KeepOut clamp;
  std::optional<KeepOut> best;
  double least = 1;
  const auto look = [&](double x, double y) {
    clamp.x = x;
    clamp.y = y;
    const Box box = clamp.box();
    const Region own =
        clean({{{box.left, box.bottom}, {box.right, box.bottom}, {box.right, box.top}, {box.left, box.top}}});
    const bool meets = std::any_of(metal.begin(), metal.end(), [&](const KeepOut& m) { return m.box().meets(box); });
    if (meets || !contains(board, {x, y}) || !intersect(taken, own).empty()) return;
    std::vector<KeepOut> with = metal;
    with.push_back(clamp);
    const double share = worst_of(with, pushes).share;
    if (share >= least) return;
    least = share;
    best = clamp;
  };
  const double in_x = std::min(clamp.width, job.blank.width) / 2, in_y = std::min(clamp.height, job.blank.height) / 2;
  for (double x = in_x; x <= job.blank.width - in_x + 1e-9; x += kStep) {
    for (const double y : {in_y, job.blank.height - in_y}) look(x, y);
  }
  for (double y = in_y; y <= job.blank.height - in_y + 1e-9; y += kStep) {
    for (const double x : {in_x, job.blank.width - in_x}) look(x, y);
  }
  return best;
}

}  // namespace doyen
