#include "grounds/grounds.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/polyline.hpp"
#include "geometry/united.hpp"

namespace doyen {
namespace {

using Kind = Treatment::Kind;

constexpr double kTouch = 0.02;  // mm: an outline on another's counts as inside it

bool usable(const LaidPiece& piece) { return piece.outlines != nullptr && piece.cut != nullptr; }

double shape_area(const Outlines& o) { return o.region.empty() ? 0 : area(o.region); }

bool same_outline(const Region& a, const Region& b) {
  if (a.empty() || b.empty()) return false;
  const Box one = bounds(a), two = bounds(b);
  const auto off = [](double x, double y) { return std::abs(x - y) > 0.1; };
  if (off(one.left, two.left) || off(one.right, two.right) || off(one.bottom, two.bottom) || off(one.top, two.top))
    return false;
  // Either lies within the other grown by a hair: plain subtraction of nearly equal outlines is what Clipper likes
  // least.
  return subtract(a, grow(b, 0.05)).empty() && subtract(b, grow(a, 0.05)).empty();
}

// Everything that is cut away to sink one panel's ground, and which piece's work that is.
struct Panel {
  std::size_t owner = 0;
  Region sunk;
};

class Finder {
 public:
  Finder(const std::vector<LaidPiece>& pieces, const Rack& rack, const Region& board)
      : pieces_(pieces), rack_(rack), board_(board), out_(pieces.size()) {}

  std::vector<Surroundings> run() {
    raise();
    floors();
    for (std::size_t i = 0; i < pieces_.size(); ++i) find_ground(i);
    for (std::size_t i = 0; i < pieces_.size(); ++i) make_room(i);
    open_up();
    return std::move(out_);
  }

 private:
  const LaidPiece* find(const std::string& id) const {
    const auto it = std::find_if(pieces_.begin(), pieces_.end(), [&](const LaidPiece& p) { return p.id == id; });
    return it == pieces_.end() || !usable(*it) ? nullptr : &*it;
  }

  // How far a panel that is cut out anyway is overrun, so that no slope or corner stays at its edge.
  double overrun(const Treatment& cut) const {
    const Bit* bit = rack_.find(cut.bit);
    if (bit == nullptr) return 1;
    return bit->kind == BitKind::V ? cut.depth * bit->tan_half() + bit->tip / 2 + 0.5 : bit->true_diameter() / 2 + 0.5;
  }

  // How far a panel's ground is drawn in for the bevel that falls inwards from this outline; 0 without one. Sloped
  // flanks begin so far out that they pass the bevel's foot.
  double rim_bevel(const Region& outline, const Treatment& raise) const {
    const Bit* flank = raise.raise.sloped ? rack_.find(raise.bit) : nullptr;
    for (const LaidPiece& other : pieces_) {
      if (!usable(other) || other.cut->kind != Kind::Bevel || !other.cut->bevel.inside) continue;
      const Bit* bit = rack_.find(other.cut->bit);
      if (bit == nullptr || bit->kind != BitKind::V || other.outlines->region.empty()) continue;
      if (same_outline(outline, other.outlines->region))
        return std::max(0.0, other.cut->depth * (bit->tan_half() - (flank == nullptr ? 0 : flank->tan_half())));
    }
    return 0;
  }

  void raise() {
    std::vector<Region> of_side[2];  // of the front and of the back
    for (const LaidPiece& p : pieces_) {
      if (usable(p) && p.cut->kind == Kind::Raise) of_side[p.cut->back ? 1 : 0].push_back(p.outlines->region);
    }
    const Region raised[2]{united(std::move(of_side[0])), united(std::move(of_side[1]))};
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
      const LaidPiece& p = pieces_[i];
      if (!usable(p) || p.cut->kind != Kind::Raise || p.outlines->region.empty()) continue;
      const Region& all_raised = raised[p.cut->back ? 1 : 0];
      const LaidPiece* panel = p.cut->raise.panel.empty() ? nullptr : find(p.cut->raise.panel);
      if (panel != nullptr && panel->id != p.id) {
        for (std::size_t k = 0; k < i; ++k) {  // the first of a panel's pieces does the work for all
          if (usable(pieces_[k]) && pieces_[k].cut->kind == Kind::Raise &&
              pieces_[k].cut->raise.panel == p.cut->raise.panel && pieces_[k].cut->depth == p.cut->depth &&
              pieces_[k].cut->back == p.cut->back) {
            out_[i].with = pieces_[k].id;
            break;
          }
        }
        if (!out_[i].with.empty()) continue;
        Region room = filled(panel->outlines->region);
        if (panel->cut->kind == Kind::CutOut) room = grow(room, overrun(*p.cut));
        if (const double rim = rim_bevel(panel->outlines->region, *p.cut); rim > 0) room = grow(room, -rim);
        out_[i].sunk = subtract(room, all_raised);
      } else {
        out_[i].sunk = subtract(grow(filled(p.outlines->region), std::max(0.1, p.cut->margin)), all_raised);
      }
      if (p.cut->raise.steps > 1) out_[i].raised = all_raised;
    }
  }

  // Of a ground in steps only the last one lies at full depth.
  Region lowest(std::size_t i) const {
    const Treatment& cut = *pieces_[i].cut;
    if (cut.raise.steps <= 1 || out_[i].sunk.empty()) return out_[i].sunk;
    const Bit* v = rack_.find(cut.bit);
    const double run = cut.raise.sloped && v != nullptr && v->kind == BitKind::V
                           ? cut.depth / cut.raise.steps * v->tan_half() + v->tip / 2
                           : 0;
    return subtract(grow(out_[i].sunk, -(cut.raise.steps - 1) * run),
                    grow(out_[i].raised, (cut.raise.steps - 1) * (run + cut.raise.terrace)));
  }

  // What each ground-making piece leaves as its floor's whole extent.
  void floors() {
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
      Region floor;
      if (usable(pieces_[i]) && makes_ground(pieces_[i].cut->kind))
        floor = pieces_[i].cut->kind == Kind::Raise ? lowest(i) : pieces_[i].outlines->region;
      floors_.push_back(std::move(floor));
    }
  }

  // Whether all of it lies on floor number k.
  bool lies_on(const Outlines& o, std::size_t k) {
    const Box all = bounds(floors_[k]).grown(kTouch), box = bounds(o);
    if (!all.contains({box.left, box.bottom}) || !all.contains({box.right, box.top})) return false;
    for (const Island& island : o.region.islands) {  // soonest told
      const Point inside = inner_point(island);
      if (!contains(floors_[k], inside) && distance_to_outline(floors_[k], inside) > kTouch) return false;
    }
    rooms_.resize(floors_.size());
    if (rooms_[k].empty()) rooms_[k] = grow(floors_[k], kTouch);
    const Region& room = rooms_[k];
    for (const Line2& line : o.lines) {
      for (const Point& p : line) {
        if (!contains(room, p)) return false;
      }
    }
    return o.region.empty() || subtract(o.region, room).empty();
  }

  // The lowest floor that the piece lies on. A floor of its own size or smaller never carries it, nor one that comes
  // later where the two are alike, so that grounds cannot carry each other.
  const Ground& find_ground(std::size_t i) {
    Ground& ground = out_[i].ground;
    if (done_.size() < pieces_.size()) done_.assign(pieces_.size(), false);
    if (done_[i]) return ground;
    done_[i] = true;
    const LaidPiece& p = pieces_[i];
    if (!usable(p)) return ground;
    if (p.cut->ground) {
      ground.below = std::max(0.0, *p.cut->ground);
      ground.overruled = true;
      return ground;
    }
    const double own = shape_area(*p.outlines);
    const bool floor_too = makes_ground(p.cut->kind) && p.cut->kind != Kind::Raise;
    for (std::size_t k = 0; k < pieces_.size(); ++k) {
      if (k == i || floors_[k].empty() || pieces_[k].cut->back != p.cut->back ||
          !bounds(floors_[k]).meets(bounds(*p.outlines)))
        continue;
      const double other = area(floors_[k]);
      // Not on a floor of its own size: what shares an outline is worked from the same ground, and of two alike floors
      // the later one lies on the earlier.
      const bool alike = own > 0 && std::abs(other - own) < 1e-3 * own;
      if (own > 0 && (other < own || alike) && !(alike && floor_too && k < i)) continue;
      if (!lies_on(*p.outlines, k)) {
        const bool part = !p.outlines->region.empty() && !goes_through(p.cut->kind) && p.cut->kind != Kind::None &&
                          p.cut->kind != Kind::Raise && area(intersect(p.outlines->region, floors_[k])) > 0.5;
        if (part) {
          const double part_below = find_ground(k).below + floor_depth(*pieces_[k].cut);
          if (part_below > out_[i].part_below) {
            ground.half_on = pieces_[k].id;
            out_[i].part_floor = floors_[k];
            out_[i].part_below = part_below;
            out_[i].part_wall = floor_depth(*pieces_[k].cut);
          }
        }
        continue;
      }
      const double below = find_ground(k).below + floor_depth(*pieces_[k].cut);
      if (below <= ground.below) continue;
      ground.below = below;
      ground.of = pieces_[k].id;
      out_[i].floor = floors_[k];
      out_[i].wall = floor_depth(*pieces_[k].cut);
      const Bit* v = pieces_[k].cut->kind == Kind::Raise && pieces_[k].cut->raise.sloped
                         ? rack_.find(pieces_[k].cut->bit)
                         : nullptr;
      out_[i].lean = v != nullptr && v->kind == BitKind::V ? out_[i].wall * v->tan_half() : 0;
    }
    return ground;
  }

  // A bevel on the same outline: the through cut beside it keeps clear, the recess within it draws in, by
  // depth · tan(α/2) (geometry.md, allowances).
  void make_room(std::size_t i) {
    const LaidPiece& p = pieces_[i];
    if (!usable(p) || !(goes_through(p.cut->kind) || p.cut->kind == Kind::Recess)) return;
    for (const LaidPiece& other : pieces_) {
      if (!usable(other) || other.cut->kind != Kind::Bevel || other.id == p.id || other.cut->back != p.cut->back)
        continue;
      const Bit* bit = rack_.find(other.cut->bit);
      if (bit == nullptr || bit->kind != BitKind::V) continue;
      if (other.cut->bevel.inside == (p.cut->kind == Kind::CutOut)) continue;  // it falls to the other side
      if (!same_outline(p.outlines->region, other.outlines->region)) continue;
      const double by = other.cut->depth * bit->tan_half();
      out_[i].grown = p.cut->kind == Kind::CutOut ? by : -by;
    }
  }

  // What lies beside planed areas and is nobody's: beyond the board's edge, and outside all cut-outs.
  void open_up() {
    constexpr double kSweep = 80;    // mm, wider than any bit's half
    constexpr double kRough = 0.01;  // mm, under what is promised of edges: keeps rough outlines from costing minutes
    const auto planed = [&](const LaidPiece& p) {
      return usable(p) && p.cut->kind == Kind::Plane && !p.outlines->region.empty();
    };
    if (std::none_of(pieces_.begin(), pieces_.end(), planed)) return;
    std::vector<Region> cut_out;
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
      const LaidPiece& p = pieces_[i];
      if (!usable(p) || p.cut->kind != Kind::CutOut || p.outlines->region.empty()) continue;
      // The cut-out's own slit may be swept over, but not what a bevel beside it keeps.
      cut_out.push_back(grow(thinned(p.outlines->region, kRough), std::max(0.0, out_[i].grown), Corner::Sharp));
    }
    const Region kept = cut_out.empty() ? board_ : intersect(united(std::move(cut_out)), board_);
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
      if (planed(pieces_[i]))
        out_[i].open =
            subtract(grow(thinned(filled(pieces_[i].outlines->region), kRough), kSweep, Corner::Sharp), kept);
    }
  }

  const std::vector<LaidPiece>& pieces_;
  const Rack& rack_;
  const Region& board_;
  std::vector<Surroundings> out_;
  std::vector<Region> floors_;
  std::vector<Region> rooms_;  // the floors and what touches them, each worked out once it is asked for
  std::vector<bool> done_;
};

}  // namespace

std::vector<PartOnGround> parts_on_grounds(const Outlines& outlines, const Surroundings& around) {
  if (around.ground.half_on.empty() || around.part_floor.empty()) return {{outlines, around}};
  const Region room = grow(around.part_floor, kTouch);
  PartOnGround high{outlines, around}, low{outlines, around};
  high.outlines.region = low.outlines.region = {};
  high.outlines.lines.clear();
  low.outlines.lines.clear();
  for (const Island& island : outlines.region.islands)
    (subtract(Region{{island}}, room).empty() ? low : high).outlines.region.islands.push_back(island);
  for (const Line2& line : outlines.lines) {
    const bool inside = std::all_of(line.begin(), line.end(), [&](Point p) { return contains(room, p); });
    (inside ? low : high).outlines.lines.push_back(line);
  }
  low.around.ground = {around.part_below, around.ground.half_on, false, {}};
  low.around.floor = around.part_floor;
  low.around.wall = around.part_wall;
  std::vector<PartOnGround> parts;
  for (PartOnGround* part : {&high, &low}) {
    if (!part->outlines.region.empty() || !part->outlines.lines.empty()) parts.push_back(std::move(*part));
  }
  return parts;
}

bool crosses_wall(const Outlines& outlines, const Surroundings& around, Point& at) {
  if (around.ground.half_on.empty() || around.part_floor.empty()) return false;
  const Region room = grow(around.part_floor, kTouch), deep = grow(around.part_floor, -kTouch);
  for (const Island& island : outlines.region.islands) {
    const Region one{{island}};
    if (subtract(one, room).empty() || intersect(one, deep).empty()) continue;
    at = bounds(intersect(one, deep)).centre();
    return true;
  }
  for (const Line2& line : outlines.lines) {
    const auto inside = std::count_if(line.begin(), line.end(), [&](Point p) { return contains(room, p); });
    if (inside == 0 || inside == static_cast<std::ptrdiff_t>(line.size())) continue;
    at = line.front();
    return true;
  }
  return false;
}

std::vector<Surroundings> surroundings_of(const std::vector<LaidPiece>& pieces, const Rack& rack, const Region& board) {
  return Finder(pieces, rack, board).run();
}

}  // namespace doyen
