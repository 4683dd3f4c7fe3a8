#include "wanted/features.hpp"

#include <algorithm>
#include <cmath>

namespace doyen::wanted {
namespace {

// A flat floor with upright walls.
class FloorWanted : public Feature {
 public:
  // `reached`: what of it the bits can reach. Without `must` it may be taken and need not be.
  FloorWanted(Region region, double z, Region reached, bool must = true)
      : region_(std::move(region)),
        reached_(std::move(reached)),
        outline_(region_),
        reach_outline_(reached_),
        z_(z),
        must_(must) {
    box = ::doyen::bounds(region_).grown(0.1);
  }

  void apply(const CellGrid& grid, WantedBounds& out) const override {
    const SeenFigure seen(region_, outline_, grid, kReached + 0.01);
    if (seen.away()) return;
    const SeenFigure reached(reached_, reach_outline_, grid, kReached + 0.01);
    const auto z = static_cast<float>(z_);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      if (!seen.inside(i) && seen.distance(i) > kWall) continue;
      Request ask{z, kFace, kFace};
      if (must_ && seen.inside(i) && seen.distance(i) > kReached) ask.high = z;
      if (must_ && seen.inside(i)) ask.likely = z;
      if (seen.inside(i) && reached.inside(i) && reached.distance(i) > kReached) ask.reach = z;
      take(out, i, ask);
    }
  }

 private:
  Region region_, reached_;
  OutlineSegments outline_, reach_outline_;
  double z_;
  bool must_;
};

// What a bit leaves that follows lines at one depth.
class LineWanted : public Feature {
 public:
  LineWanted(OutlineSegments line, double z, const Bit& bit, double above)
      : line_(std::move(line)), z_(z), bit_(bit), above_(above) {
    // So far beside the line the bit still cuts below its ground.
    most_ = bit.kind == BitKind::Keyhole ? bit.true_diameter() / 2 : half_width(above - z);
    box = line_.box().grown(most_ + 0.1);
  }

  void apply(const CellGrid& grid, WantedBounds& out) const override {
    if (!line_.near(grid.box().grown(most_ + 0.1))) return;
    std::vector<float> away(grid.size(), static_cast<float>(most_ + 1));
    line_.lower_to_distance(grid, most_ + 0.1, away);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      const double d = away[i];
      if (d > most_ + kWall) continue;
      const double near = bit_.profile(std::max(0.0, d - kWall)), far = bit_.profile(std::min(d + kWall, most_));
      Request ask{static_cast<float>(std::min(above_, z_ + near)), kFace, kFace};
      if (d < most_ - kWall) ask.high = ask.reach = static_cast<float>(std::min(above_, z_ + far));
      take(out, i, ask);
    }
  }

 private:
  [[nodiscard]] double half_width(double depth) const {
    double inner = 0, outer = bit_.true_diameter() / 2;
    if (bit_.profile(outer) <= depth) return outer;
    for (int k = 0; k < 60; ++k) {
      const double middle = (inner + outer) / 2;
      (bit_.profile(middle) <= depth ? inner : outer) = middle;
    }
    return inner;
  }

  OutlineSegments line_;
  double z_;
  Bit bit_;
  double above_;  // z of its ground
  double most_ = 0;
};

// The inside of a shape filled with lines: nothing deeper than they are, and its edge followed.
class HatchWanted : public Feature {
 public:
  HatchWanted(const Region& edge, double z, const Bit& bit, double above)
      : edge_(edge), outline_(edge), line_(outline_, z, bit, above), z_(z) {
    box = ::doyen::bounds(edge_).grown(bit.true_diameter() / 2 + 0.1);
  }
  void apply(const CellGrid& grid, WantedBounds& out) const override {
    line_.anywhere = anywhere;
    line_.ground = ground;
    line_.asked = asked;
    line_.apply(grid, out);
    const SeenFigure seen(edge_, outline_, grid, 0);
    if (seen.away()) return;
    for (std::size_t i = 0; i < grid.size(); ++i) {
      if (seen.inside(i)) take(out, i, {static_cast<float>(z_), kFace, kFace});
    }
  }

 private:
  Region edge_;
  OutlineSegments outline_;
  mutable LineWanted line_;
  double z_;
};

}  // namespace

std::unique_ptr<Feature> floor(const Region& region, double z, const Region& reached, bool must) {
  return std::make_unique<FloorWanted>(region, z, reached, must);
}

std::unique_ptr<Feature> line(const OutlineSegments& line, double z, const Bit& bit, double above) {
  return std::make_unique<LineWanted>(line, z, bit, above);
}

std::unique_ptr<Feature> hatch(const Region& edge, double z, const Bit& bit, double above) {
  return std::make_unique<HatchWanted>(edge, z, bit, above);
}

}  // namespace doyen::wanted
