#include "cuts/piece_cuts.hpp"

#include <algorithm>
#include <unordered_map>

#include "cuts/clearing.hpp"
#include "stock/species.hpp"

namespace doyen {
namespace {

constexpr double kRidge = 0.05;  // mm, ridges left where the V's tip alone makes a floor

// A limit pass is a closed ring along the floor's edge; the branches that run up from it into the corners are walked as
// detours of that ring instead of with a lift each.
class RingSplicer {
 public:
  RingSplicer(std::vector<Ring> rings, double z) : rings_(std::move(rings)), z_(z), detours_(rings_.size()) {
    for (std::size_t r = 0; r < rings_.size(); ++r) {
      for (std::size_t i = 0; i < rings_[r].size(); ++i) cells_.emplace(cell(rings_[r][i]), Key{r, i});
    }
  }

  // Takes the pass over when one of its points lies on a ring's point; the ring will walk it.
  bool take(const Pass& pass) {
    for (std::size_t i = 0; i < pass.points.size(); ++i) {
      const Point3& p = pass.points[i];
      if (std::abs(p.z - z_) > kNear) continue;
      if (const Key* key = nearest(p.flat())) {
        detours_[key->ring].push_back({key->point, tour(pass, i)});
        return true;
      }
    }
    return false;
  }

  std::vector<Pass> finish() {
    std::vector<Pass> out;
    for (std::size_t r = 0; r < rings_.size(); ++r) {
      std::stable_sort(detours_[r].begin(), detours_[r].end(),
                       [](const Detour& a, const Detour& b) { return a.point < b.point; });
      Pass pass;
      const auto add = [&](const Point3& p) {
        if (pass.points.empty() || !(pass.points.back() == p)) pass.points.push_back(p);
      };
      auto next = detours_[r].begin();
      for (std::size_t i = 0; i <= rings_[r].size(); ++i) {
        const Point& p = rings_[r][i % rings_[r].size()];
        add({p.x, p.y, z_});
        for (; i < rings_[r].size() && next != detours_[r].end() && next->point == i; ++next) {
          for (const Point3& q : next->points) add(q);
          add({p.x, p.y, z_});
        }
      }
      out.push_back(std::move(pass));
    }
    return out;
  }

 private:
  static constexpr double kNear = 0.02;  // mm
  struct Key {
    std::size_t ring, point;
  };
  struct Detour {
    std::size_t point;
    std::vector<Point3> points;
  };
  static std::int64_t cell(Point p, int dx = 0, int dy = 0) {
    const auto x = static_cast<std::int64_t>(std::floor(p.x / kNear)) + dx;
    const auto y = static_cast<std::int64_t>(std::floor(p.y / kNear)) + dy;
    return x * 1'000'003 + y;
  }
  const Key* nearest(Point p) const {
    const Key* best = nullptr;
    double away = kNear;
    for (int dx = -1; dx <= 1; ++dx) {
      for (int dy = -1; dy <= 1; ++dy) {
        const auto [from, to] = cells_.equal_range(cell(p, dx, dy));
        for (auto it = from; it != to; ++it) {
          const double d = distance(p, rings_[it->second.ring][it->second.point]);
          if (d < away) {
            away = d;
            best = &it->second;
          }
        }
      }
    }
    return best;
  }
  // Out along one side and back, then along the other side and back.
  static std::vector<Point3> tour(const Pass& pass, std::size_t i) {
    const auto& p = pass.points;
    std::vector<Point3> out;
    for (std::size_t k = i; k < p.size(); ++k) out.push_back(p[k]);
    for (std::size_t k = p.size() - 1; k-- > i;) out.push_back(p[k]);
    for (std::size_t k = i; k-- > 0;) out.push_back(p[k]);
    for (std::size_t k = 1; k <= i && i > 0; ++k) out.push_back(p[k]);
    return out;
  }

  std::vector<Ring> rings_;
  double z_;
  std::vector<std::vector<Detour>> detours_;
  std::unordered_multimap<std::int64_t, Key> cells_;
};

Region without_dust(Region region) {
  std::erase_if(region.islands, [](const Island& i) { return area(Region{{i}}) < 1e-3; });
  return region;
}

Unreached unreached_of(const Region& lost) {
  Unreached out;
  double largest = 0;
  for (const Island& island : lost.islands) {
    double a = 0, edge = 0;
    for (const Ring& ring : island.rings) {
      a += signed_area(ring);
      for (std::size_t i = 0; i < ring.size(); ++i) edge += distance(ring[i], ring[(i + 1) % ring.size()]);
    }
    out.area += a;
    if (a > largest) {
      largest = a;
      out.at = bounds(island).centre();
      out.width = edge > 0 ? 2 * a / edge : 0;
    }
  }
  return out;
}

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

std::vector<const Bit*> flat_bits_large_first(const std::vector<std::string>& ids, const Rack& rack) {
  std::vector<const Bit*> bits;
  for (const std::string& id : ids) {
    const Bit* bit = rack.find(id);
    if (bit != nullptr && bit->kind == BitKind::Flat) bits.push_back(bit);
  }
  std::sort(bits.begin(), bits.end(),
            [](const Bit* a, const Bit* b) { return a->true_diameter() > b->true_diameter(); });
  return bits;
}

class Inciser {
 public:
  Inciser(const std::string& id, const Outlines& outlines, const Treatment& treatment, const Blank& blank,
          const Rack& rack, const Cancel& cancel)
      : id_(id),
        region_(outlines.region),
        treatment_(treatment),
        rack_(rack),
        cancel_(cancel),
        wood_(wood_class_of(blank)) {}

  void run(const Bit& v, PieceCuts& out) {
    GrooveShape shape{v.tan_half(), v.tip, treatment_.floor_limit.value_or(std::numeric_limits<double>::infinity())};
    if (v.body_depth() < shape.limit) {
      // Never let the shank scrape: the body's own depth is the limit when nothing shallower was asked for.
      const GrooveShape open{shape.tan_half, shape.tip};
      out.groove = plan_groove(region_, open, Threads::All, cancel_);
      if (out.groove->deepest() > v.body_depth() + 1e-6) {
        shape.limit = v.body_depth();
        out.limited_by_body = true;
        out.groove = plan_groove(region_, shape, Threads::All, cancel_);
      } else if (std::isfinite(shape.limit)) {
        out.groove = plan_groove(region_, shape, Threads::All, cancel_);
      }
    } else {
      out.groove = plan_groove(region_, shape, Threads::All, cancel_);
    }
    out.limit = shape.limit;
    out.deepest = out.groove->deepest();
    out.deepest_at = out.groove->widest_at();
    if (out.groove->has_floor()) make_floor(v, shape, out);
    add_groove_operation(v, shape, out);
    if (shape.tip > 0) out.unreached = unreached_of(without_dust(lost_in_opening(region_, shape.tip / 2)));
  }

 private:
  void make_floor(const Bit& v, const GrooveShape& shape, PieceCuts& out) {
    floor_ = grow(region_, -shape.limit_radius());
    out.floor = floor_;
    Region cleared;
    for (const Bit* bit : flat_bits_large_first(treatment_.clearing, rack_)) {
      ClearingShape clearing;
      clearing.diameter = bit->true_diameter();
      clearing.floor = -shape.limit;
      clearing.depth_per_pass = bit->depth_per_pass(wood_);
      std::vector<Pass> passes = clear_floor(floor_, cleared, clearing, cancel_);
      cleared = cleared.empty() ? opening(floor_, clearing.diameter / 2)
                                : unite(cleared, opening(floor_, clearing.diameter / 2));
      if (passes.empty()) continue;
      out.operations.push_back({Operation::Kind::Clear, id_, bit->id, "incise", 0, shape.limit, std::move(passes)});
    }
    const Region rest = without_dust(cleared.empty() ? floor_ : subtract(floor_, grow(cleared, 0.002)));
    out.floor_by_v = area(rest);
    tidy_ = tidy_floor_with_v(floor_, rest, v.tan_half(), v.tip, -shape.limit, kRidge, cancel_);
  }

  void add_groove_operation(const Bit& v, const GrooveShape& shape, PieceCuts& out) {
    const double step = v.depth_per_pass(wood_);
    Operation op{Operation::Kind::Groove, id_, v.id, "incise", 0, out.deepest, {}};
    std::vector<std::vector<Pass>> parts;
    for (std::size_t i = 0; i < out.groove->places.size(); ++i) {
      const Groove::Place& place = out.groove->places[i];
      Region edge;
      if (2 * place.island->widest > 2 * shape.limit_radius() + kGrid) {
        edge = grow(Region{{region_.islands[i]}}, -shape.limit_radius());
      }
      parts.push_back(island_passes(*out.groove, place, edge, 0));
    }
    // Nearest letter next; within a letter all levels before going on.
    std::vector<Pass> fronts;
    for (std::size_t i = 0; i < parts.size(); ++i) {
      if (!parts[i].empty()) fronts.push_back({{parts[i].front().points.front(), {static_cast<double>(i), 0, 0}}});
    }
    Point here{0, 0};
    while (!fronts.empty()) {
      cancel_.check();
      std::size_t best = 0;
      for (std::size_t k = 1; k < fronts.size(); ++k) {
        if (distance(here, fronts[k].points[0].flat()) < distance(here, fronts[best].points[0].flat())) best = k;
      }
      auto& part = parts[static_cast<std::size_t>(fronts[best].points[1].x)];
      fronts[best] = fronts.back();
      fronts.pop_back();
      here = order_passes(part, here, true);
      for (Pass& pass : in_levels(part, 0, step)) op.passes.push_back(std::move(pass));
      if (!op.passes.empty()) here = op.passes.back().points.back().flat();
    }
    order_passes(tidy_, here, true);
    for (Pass& pass : tidy_) op.passes.push_back(std::move(pass));
    if (!op.passes.empty()) out.operations.push_back(std::move(op));
  }

  const std::string& id_;
  const Region& region_;
  const Treatment& treatment_;
  const Rack& rack_;
  const Cancel& cancel_;
  std::string wood_;
  Region floor_;
  std::vector<Pass> tidy_;
};

// The bit follows stroke lines, and the outlines where there is an inside, level by level at no more than its own step.
std::vector<Pass> follow_lines(const Outlines& outlines, double depth, double step) {
  std::vector<Line2> lines = outlines.lines;
  for (const Island& island : outlines.region.islands) {
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
      const double z = -depth * level / levels;
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

}  // namespace

double default_over_cut(const Blank& blank) { return std::max(0.25, blank.bed_unevenness + 0.1); }

std::string wood_class_of(const Blank& blank) {
  const Species* species = species_table().find(blank.species);
  return species == nullptr ? "soft" : species->wood_class;
}

PieceCuts cut_piece(const std::string& id, const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                    const Rack& rack, const Cancel& cancel) {
  PieceCuts out;
  out.limit = std::numeric_limits<double>::infinity();
  const Bit* bit = rack.find(treatment.bit);
  if (bit == nullptr || (outlines.region.empty() && outlines.lines.empty())) return out;
  if (treatment.kind == Treatment::Kind::Line) {
    std::vector<Pass> passes = follow_lines(outlines, treatment.depth, bit->depth_per_pass(wood_class_of(blank)));
    out.deepest = treatment.depth;
    out.deepest_at = passes.front().points.front().flat();
    out.operations.push_back({Operation::Kind::Groove, id, bit->id, "line", 0, treatment.depth, std::move(passes)});
    return out;
  }
  if (outlines.region.empty()) return out;
  if (treatment.kind == Treatment::Kind::Incise && bit->kind == BitKind::V) {
    Inciser(id, outlines, treatment, blank, rack, cancel).run(*bit, out);
  } else if (treatment.kind == Treatment::Kind::CutOut && bit->kind == BitKind::Flat) {
    CutOutShape shape;
    shape.diameter = bit->true_diameter();
    shape.thickness = blank.thickest();
    shape.over_cut = treatment.over_cut.value_or(default_over_cut(blank));
    shape.depth_per_pass = bit->depth_per_pass(wood_class_of(blank));
    shape.tabs = treatment.tabs;
    out.cut_out = plan_cut_out(outlines.region, shape, cancel);
    out.deepest = shape.thickness + shape.over_cut;
    if (!out.cut_out->passes.empty()) {
      out.deepest_at = out.cut_out->passes.front().points.front().flat();
      out.operations.push_back({Operation::Kind::Profile, id, bit->id, "cutout", 0, out.deepest, out.cut_out->passes});
    }
    const Region swept = grow(outlines.region, shape.diameter / 2);
    const Region kept = grow(swept, -shape.diameter / 2);
    out.unreached = unreached_of(without_dust(subtract(kept, grow(outlines.region, 0.01))));
  }
  return out;
}

}  // namespace doyen
