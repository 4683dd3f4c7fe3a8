#include "planning/placed_cuts.hpp"

#include "cutting/way_down.hpp"
#include "geometry/polyline.hpp"
#include "treatments/look.hpp"

namespace doyen {
namespace {

// What is cut, elsewhere: `to` takes a point there, and a region; `along` a direction.
template <typename To>
void carry(PieceCuts& cuts, const To& to) {
  const auto passes = [&](std::vector<Pass>& all) {
    for (Pass& pass : all) {
      for (Point3& p : pass.points) {
        const Point q = to(p.flat());
        p = {q.x, q.y, p.z};
      }
    }
  };
  for (Operation& op : cuts.operations) passes(op.passes);
  if (cuts.groove) {
    for (Groove::Place& place : cuts.groove->places) {
      const Point at = to(place.origin);
      place = {std::move(place.island), {snap_to_grid(at.x), snap_to_grid(at.y)}, to.along(place.across)};
    }
  }
  if (cuts.cut_out) {
    passes(cuts.cut_out->passes);
    for (PlacedTab& tab : cuts.cut_out->tabs) {
      tab.at = to(tab.at);
      tab.along = to.along(tab.along);
    }
  }
  cuts.floor = to(std::move(cuts.floor));
  cuts.lost = to(std::move(cuts.lost));
  cuts.unreached.at = to(cuts.unreached.at);
  cuts.deepest_at = to(cuts.deepest_at);
  for (Point& hole : cuts.holes) hole = to(hole);
}

// A move by steps of the grid: what lies on it stays on it, to the last bit.
class Move {
 public:
  explicit Move(Point by) : by_(by) {}
  Point operator()(Point p) const { return p + by_; }
  Region operator()(Region region) const { return moved_on_grid(std::move(region), by_); }
  [[nodiscard]] static Point along(Point direction) { return direction; }
  void operator()(Outlines& outlines) const { move_on_grid(outlines, by_); }

 private:
  Point by_;
};

class Turning {
 public:
  explicit Turning(const Upright& piece)
      : turn_(Transform::turn(piece.degrees)),
        whole_(Transform::move(-piece.about.x, -piece.about.y)
                   .then(turn_)
                   .then(Transform::move(piece.about.x, piece.about.y))) {}
  Point operator()(Point p) const { return whole_.apply(p); }
  Region operator()(const Region& region) const {
    std::vector<Ring> rings;
    for (const Island& island : transformed(region, whole_).islands)
      rings.insert(rings.end(), island.rings.begin(), island.rings.end());
    return tidied(rings);  // on the grid again, where its points may have come together
  }
  [[nodiscard]] Point along(Point direction) const { return turn_.apply(direction); }

 private:
  Transform turn_, whole_;
};

// All that cut_piece() looks at: where the walls of a floor stand matters to where bits come down alone.
Surroundings what_matters(const Surroundings& around, const Move& move) {
  Surroundings out;
  out.ground.below = around.ground.below;
  out.sunk = move(around.sunk);
  out.raised = move(around.raised);
  out.open = move(around.open);
  out.grown = around.grown;
  return out;
}

}  // namespace

std::optional<Upright> upright(const Job& job, const Item& item, const Surroundings& around) {
  const Treatment& cut = item.cut;
  const Look& look = look_of(cut.kind);
  if (item.piece.turn == 0 || cut.back || look.to_back || !look.turns(cut) || !sources_of(item.piece).empty())
    return {};
  if (look.clears(cut) && cut.moves.way != Moves::Way::Rings) return {};
  if (!around.sunk.empty() || !around.raised.empty() || !around.open.empty()) return {};
  Item before = item;
  before.piece.turn = 0;
  const Point at = item.piece.at;
  return Upright{job.outlines(before), item.piece.turn, {snap_to_grid(at.x), snap_to_grid(at.y)}};
}

PieceCuts PlacedCuts::cut(const std::string& id, const Outlines& outlines, const Treatment& treatment,
                          const Blank& blank, const Surroundings& around) {
  PieceCuts cuts = without_floor(id, outlines, treatment, blank, around);
  note_floor_below(cuts.operations, AskedRack(rack_), {around.floor, -around.ground.below});
  return cuts;
}

PieceCuts PlacedCuts::cut(const std::string& id, const Upright& piece, const Treatment& treatment, const Blank& blank,
                          const Surroundings& around) {
  PieceCuts cuts = without_floor(id, piece.outlines, treatment, blank, around);
  carry(cuts, Turning(piece));
  note_floor_below(cuts.operations, AskedRack(rack_), {around.floor, -around.ground.below});
  return cuts;
}

PieceCuts PlacedCuts::without_floor(const std::string& id, const Outlines& outlines, const Treatment& treatment,
                                    const Blank& blank, const Surroundings& around) {
  const Box box = bounds(outlines);
  const Point from = box.empty() ? Point{} : Point{snap_to_grid(box.left), snap_to_grid(box.bottom)};
  Outlines here = outlines;
  const Move to_zero(Point{} - from);
  to_zero(here);
  const Surroundings round = what_matters(around, to_zero);
  const PieceKey key = key_of_cuts(here, treatment, blank, round);
  AskedRack::Asked asked;
  std::shared_ptr<const PiecePlan> known = cache_.find(key, rack_, &asked);
  if (!known) {
    const AskedRack rack(rack_);
    auto fresh = std::make_shared<PiecePlan>();
    fresh->cuts = cut_piece(id, here, treatment, blank, rack, cancel_, round);
    asked = rack.asked();
    cache_.keep(key, asked, fresh);
    known = std::move(fresh);
  }
  asked_.add(asked);
  PieceCuts cuts = known->cuts;
  for (Operation& op : cuts.operations) op.piece = id;  // another piece may have been the first of its kind
  carry(cuts, Move(from));
  return cuts;
}

}  // namespace doyen
