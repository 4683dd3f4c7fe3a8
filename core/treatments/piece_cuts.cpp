#include "treatments/piece_cuts.hpp"

#include <algorithm>

#include "cutting/clearing.hpp"
#include "cutting/ring_splicer.hpp"
#include "geometry/polyline.hpp"
#include "stock/species.hpp"
#include "treatments/making.hpp"

namespace doyen {
namespace {

constexpr double kRidge = 0.05;  // mm, ridges left where the V's tip alone makes a floor

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

// Grooves, and raised shapes with sloped flanks: the ground round them is a groove with a floor.
class Inciser {
 public:
  // `region` is what is carved away; `limit` its floor's depth below where its outline lies, infinite for none. The
  // outline lies on the ground, or `sunk` mm below it: then the flank runs on upwards past it.
  Inciser(const cutting::Piece& piece, const Region& region, double limit, double sunk = 0)
      : piece_(piece), region_(region), limit_(limit), sunk_(sunk), z_(-piece.around.ground.below - sunk) {}

  void run(const Bit& v, PieceCuts& out) {
    GrooveShape shape{v.tan_half(), v.tip, limit_};
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
    if (shape.tip > 0) cutting::note_lost(out, lost_in_opening(region_, shape.tip / 2));
  }

 private:
  void make_floor(const Bit& v, const GrooveShape& shape, PieceCuts& out) {
    const Region floor = grow(region_, -shape.limit_radius());
    out.floor = floor;
    const bool propose = piece_.cut.kind != Treatment::Kind::Incise;
    Region cleared;
    if (!piece_.cut.v_alone) cleared = cutting::clear_with(piece_, floor, sunk_ + shape.limit, propose, out);
    const Region rest = cutting::without_dust(cleared.empty() ? floor : subtract(floor, grow(cleared, 0.02)));
    out.floor_by_v = area(rest);
    tidy_ = tidy_floor_with_v(floor, rest, v.tan_half(), v.tip, z_ - shape.limit, kRidge, piece_.cancel);
  }

  void add_groove_operation(const Bit& v, const GrooveShape& shape, PieceCuts& out) {
    const double step = v.depth_per_pass(piece_.wood);
    Operation op = cutting::operation(piece_, Operation::Kind::Groove, v, sunk_ + out.groove->deepest());
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

  const cutting::Piece& piece_;
  const Region& region_;
  double limit_, sunk_, z_;
  std::vector<Pass> tidy_;
};

// The bit follows stroke lines, and the outlines where there is an inside, level by level at no more than its own step.
std::vector<Pass> follow_lines(std::vector<Line2> lines, const Region& region, double ground, double depth,
                               double step) {
  for (const Island& island : region.islands) {
    for (const Ring& ring : island.rings) {
      lines.push_back(ring);
      lines.back().push_back(ring.front());
    }
  }
  const int levels = std::max(1, static_cast<int>(std::ceil(depth / std::max(0.05, step) - 1e-9)));
  std::vector<Pass> passes;
  for (const Line2& line : lines) {
    if (line.empty()) continue;
    const bool closed = line.size() > 2 && line.front() == line.back();
    Pass pass;  // back and forth (or round and round) without a lift
    bool forward = true;
    for (int level = 1; level <= levels; ++level) {
      const double z = ground - depth * level / levels;
      for (std::size_t k = 0; k < line.size(); ++k) {
        const Point& p = line[forward ? k : line.size() - 1 - k];
        const Point3 q{p.x, p.y, z};
        if (pass.points.empty() || !(pass.points.back() == q)) pass.points.push_back(q);
      }
      if (!closed) forward = !forward;
    }
    passes.push_back(std::move(pass));
  }
  order_passes(passes, {0, 0}, false);
  return passes;
}

// Engraving: the lines or outlines followed; or the inside filled with lines at an angle, and its edge followed so far
// inside that nothing passes the outline.
void engrave(const cutting::Piece& piece, const Bit& bit, PieceCuts& out) {
  const Treatment& cut = piece.cut;
  std::vector<Line2> lines = piece.outlines.lines;
  Region edge = piece.outlines.region;
  if (cut.hatch > 0 && !edge.empty()) {
    edge = grow(edge, -bit.half_width_at(cut.depth));
    bool forward = true;
    for (Line2& line : hatch(edge, cut.hatch, piece.cancel, cut.hatch_angle)) {
      if (!forward) std::reverse(line.begin(), line.end());
      forward = !forward;
      lines.push_back(std::move(line));
    }
    cutting::note_lost(out, lost_in_opening(piece.outlines.region, bit.half_width_at(cut.depth)));
  }
  Operation op = cutting::operation(piece, Operation::Kind::Groove, bit, cut.depth);
  op.passes = follow_lines(std::move(lines), edge, -out.ground, cut.depth, bit.depth_per_pass(piece.wood));
  if (op.passes.empty()) return;
  out.deepest = out.ground + cut.depth;
  out.deepest_at = op.passes.front().points.front().flat();
  out.operations.push_back(std::move(op));
}

// Standing strokes thinner than they are high break easily: half the feed round them (50 in/min where 100 is usual;
// common practice, no source).
// All that stands in the panel counts: one piece does the work for every other of its panel.
void spare_delicate(const cutting::Piece& piece, PieceCuts& out) {
  std::vector<Ring> outer;
  for (const Island& island : piece.around.sunk.islands) outer.push_back(island.rings.front());
  const Region kept = subtract(clean(outer), piece.around.sunk);
  if (kept.empty() || area(opening(kept, piece.cut.depth / 2)) > 0.85 * area(kept)) return;
  for (Operation& op : out.operations) {
    op.feed_share = 0.5;
    op.slowed = "delicate letters";
  }
}

void raise(const cutting::Piece& piece, const Bit* v, PieceCuts& out) {
  if (piece.around.sunk.empty() || (piece.cut.sloped && v == nullptr)) return;
  const auto one = [&](const cutting::Piece& p, const Region& region, double depth, PieceCuts& cuts) {
    if (piece.cut.sloped)
      Inciser(p, region, depth).run(*v, cuts);
    else
      cutting::upright_floor(p, region, depth, cuts);
  };
  if (piece.cut.steps > 1)
    cutting::terraces(piece, piece.cut.sloped ? piece.cut.depth / piece.cut.steps * v->tan_half() + v->tip / 2 : 0, out,
                      one);
  else
    one(piece, piece.around.sunk, piece.cut.depth, out);
  spare_delicate(piece, out);
}

// What the pocket takes away in this board.
void pocket(const cutting::Piece& piece, const Bit* v, PieceCuts& out) {
  const doyen::Inlay& inlay = piece.cut.inlay;
  if (inlay.sloped) {
    const Region art = eased(piece.outlines.region, inlay.ease);
    if (v != nullptr && !art.empty()) Inciser(piece, art, piece.cut.depth).run(*v, out);
  } else {
    cutting::upright_floor(piece, eased(piece.outlines.region, inlay.ease), piece.cut.depth, out);
  }
}

// The plug's background: an incise of what surrounds the art, whose outline lies `contact` below the face and whose
// floor lies `saw_gap` below that. Its flanks run on upwards to the land, which is smaller than the art (geometry.md).
void plug(const cutting::Piece& piece, const Bit* v, PieceCuts& out) {
  const doyen::Inlay& inlay = piece.cut.inlay;
  Region art = eased(piece.outlines.region, inlay.ease);
  if (!inlay.sloped) art = grow(art, -inlay.allowance);
  if (art.empty()) return;
  std::vector<Ring> outer;
  for (const Island& island : art.islands) outer.push_back(island.rings.front());
  const Region panel = grow(clean(outer), std::max(0.5, piece.cut.margin));
  const Region ground = subtract(panel, art);
  if (inlay.sloped) {
    if (v != nullptr) Inciser(piece, ground, inlay.saw_gap, inlay.contact).run(*v, out);
  } else {
    cutting::upright_floor(piece, ground, inlay.contact + inlay.saw_gap, out);
  }
}

}  // namespace

Region eased(const Region& art, double radius) {
  if (radius <= 0) return art;
  return grow(grow(opening(art, radius), radius), -radius);
}

Tabs usual_tabs(const Blank& blank) {
  Tabs tabs;
  const bool soft = wood_class_of(blank) == "soft";
  tabs.height = std::clamp(blank.thinnest() * (soft ? 0.22 : 0.17), std::min(0.8, blank.thinnest() / 2), 5.0);
  tabs.length = std::clamp(blank.thinnest() * (soft ? 0.4 : 0.33), 4.0, 12.0);
  return tabs;
}

double default_over_cut(const Blank& blank) { return std::max(0.25, blank.bed_unevenness + 0.1); }

double through_depth(const Treatment& cut, const Blank& blank) {
  if (cut.skin > 0) return blank.thinnest() - std::min(cut.skin, blank.thinnest() - 0.1);
  return blank.thickest() + cut.over_cut.value_or(default_over_cut(blank));
}

std::string wood_class_of(const Blank& blank) {
  const Species* species = species_table().find(blank.species);
  return species == nullptr ? "soft" : species->wood_class;
}

PieceCuts cut_piece(const std::string& id, const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                    const AskedRack& rack, const Cancel& cancel, const Surroundings& around) {
  using Kind = Treatment::Kind;
  constexpr double kTremble = 0.008;  // mm, under what is promised of flanks and walls
  if (rough(outlines.region) || rough(around.sunk)) {
    Outlines calm = outlines;
    Surroundings round = around;
    calm.region = thinned(outlines.region, kTremble);
    round.sunk = thinned(around.sunk, kTremble);
    if (point_count(calm.region) < point_count(outlines.region) || point_count(round.sunk) < point_count(around.sunk))
      return cut_piece(id, calm, treatment, blank, rack, cancel, round);
  }
  PieceCuts out;
  out.limit = std::numeric_limits<double>::infinity();
  out.ground = around.ground.below;
  const cutting::Piece piece{id, outlines, treatment, blank, rack, cancel, around, wood_class_of(blank)};
  const Bit* bit = rack.find(treatment.bit);
  const bool v = bit != nullptr && bit->kind == BitKind::V, flat = bit != nullptr && bit->kind == BitKind::Flat;
  if (outlines.region.empty() && outlines.lines.empty()) return out;
  switch (treatment.kind) {
    case Kind::None:
      break;
    case Kind::Line:
      if (bit != nullptr && bit->kind != BitKind::Keyhole) engrave(piece, *bit, out);
      break;
    case Kind::Incise:
      if (v && !outlines.region.empty())
        Inciser(piece, outlines.region, treatment.floor_limit.value_or(std::numeric_limits<double>::infinity()))
            .run(*bit, out);
      break;
    case Kind::Raise:
      raise(piece, v ? bit : nullptr, out);
      break;
    case Kind::Recess:
      cutting::recess(piece, out);
      break;
    case Kind::Plane:
      cutting::plane(piece, out);
      break;
    case Kind::Pierce:
      if (flat) cutting::pierce(piece, *bit, out);
      break;
    case Kind::CutOut:
      if (flat) cutting::cut_out(piece, *bit, out);
      break;
    case Kind::Bevel:
      if (v) cutting::bevel(piece, *bit, out);
      break;
    case Kind::Drill:
      if (bit != nullptr && bit->kind != BitKind::Keyhole) cutting::drill(piece, *bit, out);
      break;
    case Kind::Inlay:
      pocket(piece, v ? bit : nullptr, out);
      break;
    case Kind::Plug:
      plug(piece, v ? bit : nullptr, out);
      break;
    case Kind::HangerSlot:
      if (bit != nullptr && bit->kind == BitKind::Keyhole) cutting::hanger_slot(piece, *bit, out);
      break;
  }
  return out;
}

}  // namespace doyen
