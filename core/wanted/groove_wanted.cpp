#include "wanted/features.hpp"

#include <algorithm>
#include <cmath>

namespace doyen::wanted {
namespace {

constexpr double kChord =
    0.005;  // mm that offsets and rings of flattened outlines are off: much in height beside steep flanks

// A V-groove whose outline lies `sunk` mm below its ground; its flanks run on upwards past the outline.
class GrooveWanted : public Feature {
 public:
  GrooveWanted(const Region& region, double z, double tan_half, double tip, double limit, double sunk)
      : region_(region), outline_(region), z_(z), tan_(tan_half), tip_(tip), limit_(limit), sunk_(sunk) {
    box = ::doyen::bounds(region_).grown(sunk_ * tan_ + 0.1);
  }

  void apply(const CellGrid& grid, WantedBounds& out) const override {
    // With a tip flat the bottom lies as deep as the farthest place within the flat allows: a few cells more are seen.
    const int halo = tip_ > 0 ? static_cast<int>(std::ceil(tip_ / 2 / grid.cell)) + 1 : 0;
    const CellGrid wide = grid.grown(halo);
    const double most = std::max(limit_ * tan_ + tip_, sunk_ * tan_) + grid.cell;
    const SeenFigure seen(region_, outline_, wide, most);
    if (seen.away()) return;
    for (int r = 0; r < grid.rows; ++r) {
      for (int c = 0; c < grid.columns; ++c) {
        const std::size_t w = wide.at(c + halo, r + halo);
        const double d = seen.distance(w);
        Request ask;
        if (seen.inside(w)) {
          ask.low = static_cast<float>(z_ - std::min(limit_, (d + kChord) / tan_));
          const double deep = std::min(
              limit_, std::max(0.0, (halo > 0 ? farthest(wide, seen, c + halo, r + halo) : d) - tip_ / 2) / tan_);
          ask.reach = static_cast<float>(z_ - deep);
          // Corners and strokes that the flat does not enter are left; its flat bottom is what it makes.
          ask.high = deep > 0 ? ask.reach : static_cast<float>(z_ - std::min(limit_, d / tan_));
        } else {
          const double up = z_ + d / tan_;
          if (sunk_ <= 0 || d >= most || up >= 0) continue;
          ask.low = static_cast<float>(up);
          ask.high = ask.reach = static_cast<float>(std::min(0.0, up + tip_ / tan_));
        }
        take(out, grid.at(c, r), ask);
      }
    }
  }

 private:
  [[nodiscard]] double farthest(const CellGrid& wide, const SeenFigure& seen, int column, int row) const {
    const int n = static_cast<int>(tip_ / 2 / wide.cell);
    double most = seen.distance(wide.at(column, row));
    for (int dr = -n; dr <= n; ++dr) {
      for (int dc = -n; dc <= n; ++dc) {
        if (std::hypot(dr, dc) * wide.cell > tip_ / 2) continue;
        const std::size_t i = wide.at(column + dc, row + dr);
        if (seen.inside(i)) most = std::max(most, seen.distance(i));
      }
    }
    return most;
  }

  Region region_;
  OutlineSegments outline_;
  double z_, tan_, tip_, limit_, sunk_;
};

}  // namespace

std::unique_ptr<Feature> groove(const Region& region, double z, double tan_half, double tip, double limit,
                                double sunk) {
  return std::make_unique<GrooveWanted>(region, z, tan_half, tip, limit, sunk);
}

}  // namespace doyen::wanted
