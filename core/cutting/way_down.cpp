#include "cutting/way_down.hpp"

#include <algorithm>
#include <cmath>

#include "cancel.hpp"
#include "geometry/polyline.hpp"

namespace doyen {
namespace {

constexpr double kCell = 4;        // mm
constexpr double kSame = 1e-6;     // mm: the same place; even a thin shaving is wood
constexpr double kClear = 0.02;    // mm that a smaller bit keeps from where a larger one's edge was
constexpr double kBesideWall = 1;  // mm that the bit keeps from the walls of a floor: round corners stand there

// A place where some bit comes down.
struct Entry {
  Point at;
  const Bit* bit;
  Pass* pass;
  std::size_t number;  // of the pass among all
};

// The height of the tip from which up a bit at `away` mm from where another one's tip passed at `z` touches nothing
// that the other one left. The other one's hole is as wide as its profile; infinite where it is too narrow.
double lowest_inside(const Bit& bit, const Bit& other, double z, double away) {
  constexpr double kNever = 1e9;
  if (other.kind == BitKind::Flat) {
    const double room = other.true_diameter() / 2 - away;
    if (bit.kind == BitKind::Flat)
      return bit.true_diameter() / 2 <= room - kClear || (bit.id == other.id && away <= kSame) ? z : kNever;
    if (bit.kind != BitKind::V) return kNever;
    // The cone must fit as far up as there is wood: to the face.
    const double deep = (room - kClear - bit.tip / 2) / bit.tan_half();
    return deep > 0 ? std::max(z, -deep) : kNever;
  }
  if (other.kind == BitKind::V && bit.id == other.id && -z < bit.body_depth() - 0.01) return z + away / bit.tan_half();
  return bit.id == other.id && away <= kSame ? z : kNever;
}

class Entries {
 public:
  explicit Entries(std::vector<Entry> entries) : entries_(std::move(entries)) {
    for (const Entry& e : entries_) box_.add(e.at);
    box_ = box_.grown(kCell);
    columns_ = static_cast<std::size_t>(box_.width() / kCell) + 2;
    cells_.resize(columns_ * (static_cast<std::size_t>(box_.height() / kCell) + 2));
    for (std::size_t i = 0; i < entries_.size(); ++i) {
      const auto [c, r] = cell(entries_[i].at);
      cells_[r * columns_ + c].push_back(i);
    }
  }
  // A bit went from a to b with the pass of that number.
  void went(const Bit& bit, const Point3& a, const Point3& b, std::size_t number) {
    // Of bits that are wider than a cell is long, what lies far off is left out: it only comes down more slowly.
    Box reach;
    reach.add(a.flat());
    reach.add(b.flat());
    reach = reach.grown(std::min(kCell, bit.true_diameter() / 2));
    if (!reach.meets(box_)) return;
    const auto [c0, r0] = cell({std::max(reach.left, box_.left), std::max(reach.bottom, box_.bottom)});
    const auto [c1, r1] = cell({std::min(reach.right, box_.right), std::min(reach.top, box_.top)});
    for (std::size_t r = r0; r <= r1; ++r) {
      for (std::size_t c = c0; c <= c1; ++c) {
        for (const std::size_t i : cells_[r * columns_ + c]) {
          if (entries_[i].number > number) lower(entries_[i], bit, a, b);
        }
      }
    }
  }

 private:
  [[nodiscard]] std::pair<std::size_t, std::size_t> cell(Point p) const {
    return {static_cast<std::size_t>((p.x - box_.left) / kCell), static_cast<std::size_t>((p.y - box_.bottom) / kCell)};
  }
  static void lower(Entry& e, const Bit& bit, const Point3& a, const Point3& b) {
    const Point along = b.flat() - a.flat();
    for (const double t : {nearest_share(e.at, a.flat(), b.flat()), 0.0, 1.0}) {
      const double z = a.z + (b.z - a.z) * t;
      e.pass->gone_above =
          std::min(e.pass->gone_above, lowest_inside(*e.bit, bit, z, distance(e.at, a.flat() + along * t)));
    }
  }

  std::vector<Entry> entries_;
  Box box_;
  std::size_t columns_ = 0;
  std::vector<std::vector<std::size_t>> cells_;
};

// A floor that larger bits have left, where the bit stands clear of its walls as high up as there is wood.
double over_floor(const Bit& bit, const FloorBelow& floor, Point p) {
  if (!contains(floor.region, p)) return Pass::kFace;
  const double wide =
      bit.kind == BitKind::V ? std::min(bit.true_diameter() / 2, bit.half_width_at(-floor.z)) : bit.true_diameter() / 2;
  return distance_to_outline(floor.region, p) >= wide + kBesideWall ? floor.z : Pass::kFace;
}

}  // namespace

void note_floor_below(std::vector<Operation>& operations, const AskedRack& rack, const FloorBelow& floor) {
  if (floor.region.empty()) return;
  for (Operation& op : operations) {
    const Bit* bit = rack.find(op.bit);
    if (bit == nullptr) continue;
    for (Pass& pass : op.passes)
      pass.gone_above = std::min(pass.gone_above, over_floor(*bit, floor, pass.points.front().flat()));
  }
}

void note_ways_down(std::vector<Operation>& operations, const AskedRack& rack) {
  std::vector<Entry> entries;
  std::size_t number = 0;
  for (Operation& op : operations) {
    const Bit* bit = rack.find(op.bit);
    for (Pass& pass : op.passes) {
      if (bit != nullptr) entries.push_back({pass.points.front().flat(), bit, &pass, number});
      ++number;
    }
  }
  if (entries.empty()) return;
  Entries all(std::move(entries));
  number = 0;
  for (const Operation& op : operations) {
    const Bit* bit = rack.find(op.bit);
    for (const Pass& pass : op.passes) {
      Cancel::check_here();
      for (std::size_t i = 0; bit != nullptr && i < pass.points.size(); ++i)
        all.went(*bit, pass.points[i > 0 ? i - 1 : 0], pass.points[i], number);
      ++number;
    }
  }
}

}  // namespace doyen
