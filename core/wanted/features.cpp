#include "wanted/features.hpp"

#include <algorithm>

namespace doyen::wanted {
namespace {

constexpr double kGround = 0.03;  // mm that a piece's ground may differ from where it is cut

}  // namespace

void Feature::take(WantedBounds& out, std::size_t i, const Request& r) const {
  if (r.low >= 0) return;
  // It is cut where its ground is: beside it stands wood that it must not touch.
  if (!anywhere && out.low[i] > -ground + kGround) return;
  out.low[i] = std::min(out.low[i], r.low);
  if (!asked) return;
  out.high[i] = std::min(out.high[i], r.high);
  out.reach[i] = std::min(out.reach[i], r.reach);
  if (!out.likely.empty()) out.likely[i] = std::min({out.likely[i], r.high, r.likely});
}

}  // namespace doyen::wanted
