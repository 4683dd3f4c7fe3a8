#include "planning/relief_keeper.hpp"

#include <algorithm>

#include "planning/finished_look.hpp"
#include "relief/carve.hpp"
#include "relief/rounded_edge.hpp"

namespace doyen {
namespace {

bool same(const Region& a, const Region& b) {
  return std::equal(a.islands.begin(), a.islands.end(), b.islands.begin(), b.islands.end(),
                    [](const Island& one, const Island& other) { return one.rings == other.rings; });
}

}  // namespace

std::vector<ReliefKeeper::Carved> ReliefKeeper::operations_of(const Plan& plan, Side side) {
  std::vector<Carved> all;
  for (const BitRun& run : plan.runs) {
    if (run.side != side) continue;
    for (const Operation* op : run.operations) {
      Carved one{nullptr, op, run.bit, {}};
      for (const auto& piece : plan.pieces) {
        const std::vector<Operation>& own = piece->cuts.operations;
        if (!own.empty() && op >= own.data() && op < own.data() + own.size()) one.piece = piece;
      }
      for (const Pass& pass : op->passes) {
        for (const Point3& p : pass.points) one.reach.add(p.flat());
      }
      if (!one.reach.empty()) one.reach = one.reach.grown(run.bit.true_diameter() / 2 + 0.01);
      all.push_back(std::move(one));
    }
  }
  return all;
}

bool ReliefKeeper::rounds_as_before(const Plan& plan, Side side) {
  const double round_over = side == Side::Front ? plan.job.finish.round_over : 0;
  Region sign = round_over > 0 ? sign_of(plan) : Region{};
  const bool as_before = round_over == round_over_ && same(sign, sign_);
  round_over_ = round_over;
  sign_ = std::move(sign);
  return as_before;
}

Box ReliefKeeper::bring_up(const Plan& plan, const Box& area, double cell, Side side, const Cancel& cancel) {
  std::vector<Carved> now = operations_of(plan, side);
  const auto alike = [](const Carved& a, const Carved& b) { return a.operation == b.operation && a.bit == b.bit; };
  const bool edges = rounds_as_before(plan, side);
  const bool all =
      !sound_ || !edges || cell != cell_ || side != side_ ||
      !(area.left == area_.left && area.right == area_.right && area.bottom == area_.bottom && area.top == area_.top);
  sound_ = false;
  Box changed;
  if (all) {
    field_ = HeightField(area, cell);
    area_ = area;
    cell_ = cell;
    side_ = side;
    changed = area;
  } else {
    const auto add_missing = [&](const std::vector<Carved>& from, const std::vector<Carved>& in) {
      for (const Carved& one : from) {
        if (std::any_of(in.begin(), in.end(), [&](const Carved& other) { return alike(one, other); })) continue;
        if (!one.reach.meets(area)) continue;
        changed.add(Box{std::max(one.reach.left, area.left), std::max(one.reach.bottom, area.bottom),
                        std::min(one.reach.right, area.right), std::min(one.reach.top, area.top)});
      }
    };
    add_missing(carved_, now);
    add_missing(now, carved_);
  }
  carved_ = std::move(now);
  if (!changed.empty()) {
    const auto columns = field_.columns_in(changed.left - cell, changed.right + cell);
    const auto rows = field_.rows_in(changed.bottom - cell, changed.top + cell);
    if (columns.begin < columns.end && rows.begin < rows.end) {
      // Carved apart, on the same grid, then put in its place.
      const double half = cell / 2;
      HeightField part({field_.x_of(columns.begin) - half, field_.y_of(rows.begin) - half,
                        field_.x_of(columns.end - 1) + half, field_.y_of(rows.end - 1) + half},
                       cell);
      part.clear();
      for (const Carved& one : carved_) {
        if (one.reach.meets(part.box())) carve(part, one.operation->passes, one.bit, cancel);
      }
      round_edge(part, sign_, round_over_);
      for (std::size_t r = rows.begin; r < rows.end && r - rows.begin < part.rows(); ++r) {
        const float* from = part.row(r - rows.begin);
        std::copy(from, from + std::min(columns.end - columns.begin, part.columns()), field_.row(r) + columns.begin);
      }
      changed = part.box();
    } else {
      changed = {};
    }
  }
  sound_ = true;
  return changed;
}

const Picture& PictureKeeper::bring_up(const Plan& plan, const Box& area, double cell, Side side, std::size_t shrink,
                                       const Cancel& cancel) {
  const bool followed = sound_ && shrink == shrink_ && plan.job.blank == blank_;
  sound_ = false;
  const std::size_t columns = field().columns(), rows = field().rows();
  const Box changed = relief_.bring_up(plan, area, cell, side, cancel);
  const Box whole = field().box();
  const bool all = !followed || field().columns() != columns || field().rows() != rows ||
                   (changed.left <= whole.left && changed.right >= whole.right && changed.bottom <= whole.bottom &&
                    changed.top >= whole.top);
  const WoodLook look = wood_look(plan.job.blank);
  if (all) {
    picture_ = lit_picture(field(), look, shrink, cancel);
  } else if (!changed.empty()) {
    light_again(picture_, field(), look, shrink, changed, cancel);
  }
  blank_ = plan.job.blank;
  shrink_ = shrink;
  sound_ = true;
  return picture_;
}

}  // namespace doyen
