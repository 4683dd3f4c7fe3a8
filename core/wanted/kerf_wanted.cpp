#include "wanted/features.hpp"

#include <algorithm>
#include <cmath>

namespace doyen::wanted {
namespace {

class KerfWanted : public Kerf {
 public:
  explicit KerfWanted(KerfAsked slit) : asked_(std::move(slit)), outline_(asked_.kept) {
    box = ::doyen::bounds(asked_.kept).grown(asked_.inside ? 0.1 : asked_.width + 0.1);
  }
  void apply(const CellGrid& grid, WantedBounds& out) const override {
    if (!outline_.near(grid.box().grown(asked_.width + 2 * kReached))) return;
    const SeenFigure seen(asked_.kept, outline_, grid, asked_.width + kReached);
    std::vector<std::uint8_t> theirs;
    if (!others.empty()) mark_inside(others, grid, theirs);
    std::vector<const KerfAsked::Tab*> tabs;  // that may reach into the grid
    for (const KerfAsked::Tab& tab : asked_.tabs) {
      if (grid.box().grown(tab_half() + asked_.width + 1).contains(tab.at)) tabs.push_back(&tab);
    }
    const auto bottom = static_cast<float>(asked_.bottom);
    for (std::size_t i = 0; i < grid.size(); ++i) {
      const double d = seen.distance(i);
      const bool beside = seen.inside(i) == asked_.inside;
      if ((beside ? d > asked_.width + kWall : d > kWall) || (!theirs.empty() && theirs[i] != 0)) continue;
      const bool must = beside && d > kReached && d < asked_.width - kReached;
      Request ask{bottom, must ? bottom : kFace, must ? bottom : kFace};
      if (beside && d < asked_.width) ask.likely = bottom;
      if (beside && !tabs.empty()) at_tab(tabs, grid.middle(i), d, ask, out.low[i]);
      take(out, i, ask);
    }
  }

 private:
  // How far along from a tab's middle the slit may rise to it: longer where outlines bend.
  [[nodiscard]] double tab_half() const { return 0.7 * (asked_.shape.length + asked_.width) + 0.3; }
  void at_tab(const std::vector<const KerfAsked::Tab*>& tabs, Point p, double d, Request& ask, float& low) const {
    for (const KerfAsked::Tab* one : tabs) {
      const KerfAsked::Tab& tab = *one;
      const double u = std::abs(dot(p - tab.at, tab.along)), v = dot(p - tab.at, tab.out);
      if (u > tab_half() || v < -1 || v > asked_.width + 1) continue;
      ask.high = ask.reach = kFace;  // between the tab and the slit rises its ramp
      if (u < asked_.shape.length / 2) ask.likely = static_cast<float>(asked_.tab_top);
      // A little within its ends, since outlines bend.
      const bool stands = tab.straight && std::abs(v - d) < 0.3 &&
                          u < asked_.shape.length / 2 - asked_.shape.ramp - 0.3 && d > kWall &&
                          d < asked_.width - kReached;
      if (!stands) continue;
      ask.low = static_cast<float>(asked_.tab_top);
      low = std::max(low, ask.low);  // the tab is wanted, though it stands in waste
    }
  }

  KerfAsked asked_;
  OutlineSegments outline_;
};

}  // namespace

std::unique_ptr<Kerf> kerf(KerfAsked asked) { return std::make_unique<KerfWanted>(std::move(asked)); }

}  // namespace doyen::wanted
