#include "planning/placed_cuts.hpp"

#include "geometry/polyline.hpp"

namespace doyen {
namespace {

// A move by steps of the grid: what lies on it stays on it, to the last bit.
class Move {
 public:
  explicit Move(Point by) : by_(by) {}
  void operator()(Point& p) const { p = p + by_; }
  void operator()(Region& region) const { region = moved_on_grid(std::move(region), by_); }
  void operator()(std::vector<Pass>& passes) const {
    for (Pass& pass : passes) {
      for (Point3& p : pass.points) p = {p.x + by_.x, p.y + by_.y, p.z};
    }
  }
  void operator()(Outlines& outlines) const { move_on_grid(outlines, by_); }
  void operator()(Surroundings& around) const {
    for (Region* region : {&around.sunk, &around.raised, &around.floor, &around.part_floor, &around.open})
      (*this)(*region);
  }
  void operator()(PieceCuts& cuts) const {
    for (Operation& op : cuts.operations) (*this)(op.passes);
    if (cuts.groove) {
      for (Groove::Place& place : cuts.groove->places)
        place.origin = {snap_to_grid(place.origin.x + by_.x), snap_to_grid(place.origin.y + by_.y)};
    }
    if (cuts.cut_out) {
      (*this)(cuts.cut_out->passes);
      for (PlacedTab& tab : cuts.cut_out->tabs) (*this)(tab.at);
    }
    (*this)(cuts.floor);
    (*this)(cuts.lost);
    (*this)(cuts.unreached.at);
    (*this)(cuts.deepest_at);
    for (Point& hole : cuts.holes) (*this)(hole);
  }

 private:
  Point by_;
};

}  // namespace

PieceCuts PlacedCuts::cut(const std::string& id, const Outlines& outlines, const Treatment& treatment,
                          const Blank& blank, const Surroundings& around) {
  const Box box = bounds(outlines);
  const Point from = box.empty() ? Point{} : Point{snap_to_grid(box.left), snap_to_grid(box.bottom)};
  Outlines here = outlines;
  Surroundings round = around;
  const Move to_zero(Point{} - from);
  to_zero(here);
  to_zero(round);
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
  Move{from}(cuts);
  return cuts;
}

}  // namespace doyen
