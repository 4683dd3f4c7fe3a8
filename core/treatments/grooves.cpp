// Grooves, and raised shapes with sloped flanks: the ground round them is a groove with a floor.
#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

#include "cutting/chain.hpp"
#include "cutting/detours.hpp"
#include "cutting/keep_away.hpp"
#include "cutting/ring_splicer.hpp"
#include "cutting/v_floor.hpp"
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
    if (out.groove->has_floor())
      make_floor(v, shape, out);
    else
      parts_ = parts_of(v, shape, *out.groove);
    add_groove_operation(v, out);
    if (shape.tip > 0) note_lost(out, lost_in_opening(region_, shape.tip / 2));
  }

 private:
  // The floor cleared by flat bits, and beside that what the V does: along the groove and over what they leave.
  void make_floor(const Bit& v, const GrooveShape& shape, PieceCuts& out) {
    const DrawnIn floor(region_, *out.groove);
    out.floor = floor.floor();
    for (std::size_t i = 0; i < out.groove->places.size(); ++i) floors_.push_back(floor.of_part(i));
    const Groove& groove = *out.groove;
    const auto what_the_v_does = [&](const Region& rest) {
      rest_ = without_dust(rest);
      parts_ = parts_of(v, shape, groove);
    };
    const Region& whole = out.floor;
    bool done = false;
    constexpr double kBeyond = 0.02;  // mm: what stays between a bit's round and its chords is nothing to the V
    if (!asked_.v_alone)
      clear_with(piece_, floor, sunk_ + shape.limit, asked_.propose, out, {kBeyond, [&](const Region& cleared) {
                                                                             what_the_v_does(subtract(whole, cleared));
                                                                             done = true;
                                                                           }});
    if (!done) what_the_v_does(whole);
    out.floor_by_v = area(rest_);
  }

  void add_groove_operation(const Bit& v, PieceCuts& out) {
    const double step = v.depth_per_pass(piece_.wood);
    Operation op = operation(piece_, Operation::Kind::Groove, v, sunk_ + out.groove->deepest());
    std::vector<Part> parts = std::move(parts_);
    std::erase_if(parts, [](const Part& part) { return part.passes.empty(); });
    // Nearest letter next; within a letter all levels before going on, and the rest of its floor after its edge.
    Point here{0, 0};
    while (!parts.empty()) {
      piece_.cancel.check();
      const auto away = [&](const Part& part) { return distance(here, part.passes.front().points.front().flat()); };
      const auto best =
          std::min_element(parts.begin(), parts.end(), [&](const Part& a, const Part& b) { return away(a) < away(b); });
      Part part = std::move(*best);
      *best = std::move(parts.back());
      parts.pop_back();
      here = order_passes(part.passes, here, true);
      const KeepAway edges(grow(part.floor, 0.002), 1e-6);
      std::vector<Pass> edge = in_levels(part.passes, z_ + sunk_, step);
      if (part.tidy.size() == 1) {
        Detours done = with_detours(std::move(edge), std::move(part.tidy.front()), edges, kStaysDown);
        edge = std::move(done.passes);
        part.tidy = {std::move(done.left)};
      }
      for (Pass& pass : edge) op.passes.push_back(std::move(pass));
      if (!op.passes.empty()) here = op.passes.back().points.back().flat();
      for (std::vector<Pass>& go : part.tidy) {
        here = order_passes(go, here, true);
        for (Pass& pass : go) go_on(op.passes, std::move(pass), edges);
      }
    }
    if (!op.passes.empty()) out.operations.push_back(std::move(op));
  }

  // One letter: its groove, where that is wide its floor, and what goes over the rest of that, go by go.
  struct Part {
    std::vector<Pass> passes;
    Region floor;
    std::vector<std::vector<Pass>> tidy;
  };

  std::vector<Part> parts_of(const Bit& v, const GrooveShape& shape, const Groove& groove) {
    const VFloor by_v{.tan_half = v.tan_half(),
                      .tip = v.tip,
                      .ground = z_ + sunk_,
                      .floor = z_ - shape.limit,
                      .ridge = ridge_height(piece_.cut.moves.v_floor),
                      .step = v.depth_per_pass(piece_.wood),
                      .edge_done = true};
    const std::vector<Region> rests = rests_by_part(region_, rest_);
    std::vector<Part> parts(groove.places.size());
    tbb::parallel_for(std::size_t{0}, parts.size(), [&](std::size_t i) {
      piece_.cancel.check();
      const Cancel::Scope stops(piece_.cancel);
      const Groove::Place& place = groove.places[i];
      Part& part = parts[i];
      if (!floors_.empty()) part.floor = floors_[i];
      part.passes = island_passes(groove, place, part.floor, z_);
      if (!part.floor.empty())
        part.tidy = tidy_floor_with_v({place.island->axis, place.origin, shape.limit_radius(), part.floor}, rests[i],
                                      by_v, piece_.cancel);
    });
    return parts;
  }

  // On the floor the bit stays down where that is quicker than a lift and no wall is in its way.
  static void go_on(std::vector<Pass>& passes, Pass next, const KeepAway& edges) {
    if (!passes.empty()) {
      const Point3 from = passes.back().points.back(), to = next.points.front();
      if (std::abs(from.z - to.z) < 1e-9 && distance(from, to) <= kStaysDown && edges.keeps(from.flat(), to.flat())) {
        std::vector<Point3>& way = passes.back().points;
        way.insert(way.end(), next.points.begin() + (from == to ? 1 : 0), next.points.end());
        return;
      }
    }
    passes.push_back(std::move(next));
  }

  const Piece& piece_;
  const GrooveAsked& asked_;
  const Region& region_;
  double sunk_, z_;
  std::vector<Region> floors_;  // of each part, where any has one
  Region rest_;                 // of the floor, which only the V reaches
  std::vector<Part> parts_;
};

}  // namespace

void groove(const Piece& piece, const Bit& v, const GrooveAsked& asked, PieceCuts& out) {
  Inciser(piece, asked).run(v, out);
}

}  // namespace doyen::cutting
