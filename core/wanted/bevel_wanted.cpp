#include "wanted/features.hpp"

#include <algorithm>

namespace doyen::wanted {
namespace {

// A V-chamfer that falls from an outline, and the other flank of the same V where nothing else takes that away.
class BevelWanted : public Feature {
 public:
  BevelWanted(const Region& region, bool inwards, double z, double depth, double tan_half, double tip)
      : region_(region), outline_(region), inwards_(inwards), z_(z), depth_(depth), tan_(tan_half), tip_(tip) {
    box = ::doyen::bounds(region_).grown(inwards ? 0.1 : 6 * depth * tan_half + tip + 0.1);
  }
  void apply(const CellGrid& grid, WantedBounds& out) const override {
    const double run = depth_ * tan_, whole = 2 * run + tip_;
    // Where two edges meet outwards the tip follows them to where they cross, up to four times as far (Corner::Sharp).
    const double most = whole + 4 * run;
    if (!outline_.near(grid.box().grown(most))) return;
    const SeenFigure seen(region_, outline_, grid, most);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      const double d = seen.distance(i);
      if (seen.inside(i) != inwards_ || d >= most) continue;
      const double deep = std::min(depth_, std::min(d, most - d) / tan_);
      Request ask{static_cast<float>(z_ - deep), kFace, kFace};
      // At corners the two chamfers meet in a mitre that is less deep than the distance says.
      if (d < run) ask.high = ask.reach = static_cast<float>(z_ - 0.3 * deep);
      if (d < whole) ask.likely = static_cast<float>(z_ - std::min(deep, (whole - d) / tan_));
      take(out, i, ask);
    }
  }

 private:
  Region region_;
  OutlineSegments outline_;
  bool inwards_;
  double z_, depth_, tan_, tip_;
};

}  // namespace

std::unique_ptr<Feature> bevel(const Region& region, bool inwards, double z, double depth, double tan_half,
                               double tip) {
  return std::make_unique<BevelWanted>(region, inwards, z, depth, tan_half, tip);
}

}  // namespace doyen::wanted
