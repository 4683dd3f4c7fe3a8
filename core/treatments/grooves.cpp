// Grooves, and raised shapes with sloped flanks: the ground round them is a groove with a floor.
#include <algorithm>
#include <cmath>

#include "cutting/clearing.hpp"
#include "cutting/ring_splicer.hpp"
#include "treatments/making.hpp"

namespace doyen::cutting {
namespace {

// The island's axis passes with, where there is a floor, its edge ring spliced in; nearest next.
std::vector<Pass> island_passes(const Groove& groove, const Groove::Place& place, const Region& floor_edge,
                                double ground) {
  Groove one{groove.shape, {place}};
  std::vector<Pass> axis = one.passes(ground);
  if (floor_edge.empty()) return axis;
  std::vector<Ring> rings;
  for (const Island& island : floor_edge.islands) rings.insert(rings.end(), island.rings.begin(), island.rings.end());
  RingSplicer splicer(std::move(rings), ground - groove.shape.limit);
  std::vector<Pass> rest;
  for (Pass& pass : axis) {
    if (!splicer.take(pass)) rest.push_back(std::move(pass));
  }
  std::vector<Pass> all = splicer.finish();
  all.insert(all.end(), std::make_move_iterator(rest.begin()), std::make_move_iterator(rest.end()));
  return all;
}

class Inciser {
 public:
  Inciser(const Piece& piece, const GrooveAsked& asked)
      : piece_(piece),
        asked_(asked),
        region_(asked.region),
        sunk_(asked.sunk),
        z_(-piece.around.ground.below - asked.sunk) {}

  void run(const Bit& v, PieceCuts& out) {
    GrooveShape shape{v.tan_half(), v.tip, asked_.limit};
    const double body = v.body_depth() - sunk_;
    if (body <= 0.01) {  // the outline itself lies deeper than the bit's body
      out.limited_by_body = true;
      return;
    }
    if (body < shape.limit) {
      // Never let the shank scrape: the body's own depth is the limit when nothing shallower was asked for.
      const GrooveShape open{shape.tan_half, shape.tip};
      out.groove = plan_groove(region_, open, Threads::All, piece_.cancel);
      if (out.groove->deepest() > body + 1e-6) {
        shape.limit = body;
        out.limited_by_body = true;
        out.groove = plan_groove(region_, shape, Threads::All, piece_.cancel);
      } else if (std::isfinite(shape.limit)) {
        out.groove = plan_groove(region_, shape, Threads::All, piece_.cancel);
      }
    } else {
      out.groove = plan_groove(region_, shape, Threads::All, piece_.cancel);
    }
    out.limit = shape.limit;
    out.deepest = piece_.around.ground.below + sunk_ + out.groove->deepest();
    out.deepest_at = out.groove->widest_at();
    if (out.groove->has_floor()) make_floor(v, shape, out);
    add_groove_operation(v, shape, out);
    if (shape.tip > 0) note_lost(out, lost_in_opening(region_, shape.tip / 2));
  }

 private:
  void make_floor(const Bit& v, const GrooveShape& shape, PieceCuts& out) {
    const Region floor = grow(region_, -shape.limit_radius());
    out.floor = floor;
    Region cleared;
    if (!asked_.v_alone) cleared = clear_with(piece_, floor, sunk_ + shape.limit, asked_.propose, out);
    const Region rest = without_dust(cleared.empty() ? floor : subtract(floor, grow(cleared, 0.02)));
    out.floor_by_v = area(rest);
    tidy_ = tidy_floor_with_v(floor, rest, v.tan_half(), v.tip, z_ - shape.limit,
                              ridge_height(piece_.cut.moves.v_floor), piece_.cancel);
  }

  void add_groove_operation(const Bit& v, const GrooveShape& shape, PieceCuts& out) {
    const double step = v.depth_per_pass(piece_.wood);
    Operation op = operation(piece_, Operation::Kind::Groove, v, sunk_ + out.groove->deepest());
    std::vector<std::vector<Pass>> parts;
    for (std::size_t i = 0; i < out.groove->places.size(); ++i) {
      const Groove::Place& place = out.groove->places[i];
      Region edge;
      if (2 * place.island->widest > 2 * shape.limit_radius() + kGrid) {
        edge = grow(Region{{region_.islands[i]}}, -shape.limit_radius());
      }
      parts.push_back(island_passes(*out.groove, place, edge, z_));
    }
    // Nearest letter next; within a letter all levels before going on.
    std::vector<Pass> fronts;
    for (std::size_t i = 0; i < parts.size(); ++i) {
      if (!parts[i].empty()) fronts.push_back({{parts[i].front().points.front(), {static_cast<double>(i), 0, 0}}});
    }
    Point here{0, 0};
    while (!fronts.empty()) {
      piece_.cancel.check();
      std::size_t best = 0;
      for (std::size_t k = 1; k < fronts.size(); ++k) {
        if (distance(here, fronts[k].points[0].flat()) < distance(here, fronts[best].points[0].flat())) best = k;
      }
      auto& part = parts[static_cast<std::size_t>(fronts[best].points[1].x)];
      fronts[best] = fronts.back();
      fronts.pop_back();
      here = order_passes(part, here, true);
      for (Pass& pass : in_levels(part, z_ + sunk_, step)) op.passes.push_back(std::move(pass));
      if (!op.passes.empty()) here = op.passes.back().points.back().flat();
    }
    order_passes(tidy_, here, true);
    for (Pass& pass : in_levels(tidy_, z_ + sunk_, step)) op.passes.push_back(std::move(pass));
    if (!op.passes.empty()) out.operations.push_back(std::move(op));
  }

  const Piece& piece_;
  const GrooveAsked& asked_;
  const Region& region_;
  double sunk_, z_;
  std::vector<Pass> tidy_;
};

}  // namespace

void groove(const Piece& piece, const Bit& v, const GrooveAsked& asked, PieceCuts& out) {
  Inciser(piece, asked).run(v, out);
}

}  // namespace doyen::cutting
