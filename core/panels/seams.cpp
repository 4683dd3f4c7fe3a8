#include "panels/seams.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "cancel.hpp"
#include "panels/panels.hpp"
#include "problem.hpp"
#include "run/placement.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

constexpr double kStep = 0.25;     // mm between places that are looked at
constexpr double kBeside = 40;     // mm from a seam: outlines farther off are no harm to it
constexpr double kParted = 1e7;    // mm of outline that parting an inlay or a hole counts for
constexpr double kHole = 40;       // mm: wider openings may be parted
constexpr double kRoundWhole = 3;  // mm of wood that stays round what must not be parted (common practice, no source)

double along(Point p, bool upright) { return upright ? p.x : p.y; }

// What a seam would spoil: a plug is one piece of wood, a hole half in one board makes a bit run away.
bool must_stay_whole(const Item& item) {
  using Kind = Treatment::Kind;
  switch (item.cut.kind) {
    case Kind::Inlay:
    case Kind::Drill:
    case Kind::HangerSlot:
      return true;
    case Kind::Recess:
      return item.cut.insert.thickness > 0;
    case Kind::Pierce:
      return true;  // where it is small
    default:
      return false;
  }
}

template <typename Take>
void each_side(const Outlines& outlines, const Take& take) {
  for (const Island& island : outlines.region.islands) {
    for (const Ring& ring : island.rings) {
      for (std::size_t i = 0; i < ring.size(); ++i) take(ring[i], ring[(i + 1) % ring.size()]);
    }
  }
  for (const Line2& line : outlines.lines) {
    for (std::size_t i = 1; i < line.size(); ++i) take(line[i - 1], line[i]);
  }
}

}  // namespace

OutlinesOf cut_outlines(const Job& job) {
  OutlinesOf all;
  for (const Item& item : job.items) {
    Cancel::check_here();
    all.emplace_back();
    if (item.cut.kind == Treatment::Kind::None) continue;
    try {
      all.back() = std::make_shared<const Outlines>(job.outlines(item));
    } catch (const Problem&) {
      continue;  // its own verdict says so
    }
  }
  return all;
}

LargestPanel largest_panel(const PanelChoices& choices, const MachineProfile& machine, OnBed lies) {
  const MachineProfile along = machine_along_board(machine, lies);
  const auto room = [](double travel) { return std::max(1.0, travel - 2 * kLargestRunOff); };
  return {choices.most_width > 0 ? choices.most_width : room(along.travel[0]),
          choices.most_height > 0 ? choices.most_height : room(along.travel[1])};
}

SeamCosts::SeamCosts(const Job& job, bool upright, const OutlinesOf& outlines)
    : length_(upright ? job.blank.width : job.blank.height) {
  edges_.assign(static_cast<std::size_t>(length_ / kStep) + 2, 0);
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    Cancel::check_here();
    const Item& item = job.items[i];
    if (outlines[i] == nullptr || item.cut.kind == Treatment::Kind::None) continue;
    each_side(*outlines[i], [&](Point a, Point b) { add_side(along(a, upright), along(b, upright), distance(a, b)); });
    if (!must_stay_whole(item)) continue;
    for (const Island& island : outlines[i]->region.islands) {
      const Box box = bounds(island.rings.front());
      if (item.cut.kind == Treatment::Kind::Pierce && std::max(box.width(), box.height()) > kHole) continue;
      kept_.push_back({item.piece.id, (upright ? box.left : box.bottom) - kRoundWhole,
                       (upright ? box.right : box.top) + kRoundWhole});
    }
  }
  spread();
  for (const Kept& whole : kept_) {
    if (whole.to <= 0 || whole.from >= length_) continue;
    for (std::size_t i = step_of(whole.from); i <= step_of(whole.to); ++i) costs_[i] += kParted;
  }
}

std::size_t SeamCosts::step_of(double mm) const {
  return static_cast<std::size_t>(std::clamp(mm / kStep, 0.0, static_cast<double>(edges_.size() - 1)));
}

void SeamCosts::add_side(double a, double b, double mm) {
  const double from = std::min(a, b), to = std::max(a, b);
  if (to < 0 || from > length_) return;
  const std::size_t first = step_of(from), last = step_of(to);
  const double each = mm / static_cast<double>(last - first + 1);
  for (std::size_t step = first; step <= last; ++step) edges_[step] += each;
}

// Each outline weighs by how near it is, the more the nearer.
void SeamCosts::spread() {
  const auto reach = static_cast<std::ptrdiff_t>(kBeside / kStep), steps = static_cast<std::ptrdiff_t>(edges_.size());
  std::vector<double> weights;
  for (std::ptrdiff_t i = 0; i <= reach; ++i) {
    const double near = 1 - static_cast<double>(i) / static_cast<double>(reach + 1);
    weights.push_back(near * near * near);
  }
  costs_.assign(edges_.size(), 0);
  for (std::ptrdiff_t i = 0; i < steps; ++i) {
    const double edge = edges_[static_cast<std::size_t>(i)];
    if (edge == 0) continue;
    for (std::ptrdiff_t k = std::max<std::ptrdiff_t>(0, i - reach); k <= std::min(steps - 1, i + reach); ++k)
      costs_[static_cast<std::size_t>(k)] += edge * weights[static_cast<std::size_t>(std::abs(i - k))];
  }
}

double SeamCosts::at(double place) const {
  if (costs_.empty()) return 0;
  const double step = std::clamp(place / kStep, 0.0, static_cast<double>(costs_.size() - 1));
  return costs_[static_cast<std::size_t>(step)];
}

std::vector<std::string> SeamCosts::parted_whole(double place) const {
  std::vector<std::string> pieces;
  for (const Kept& whole : kept_) {
    if (place > whole.from && place < whole.to && std::find(pieces.begin(), pieces.end(), whole.piece) == pieces.end())
      pieces.push_back(whole.piece);
  }
  return pieces;
}

double SeamCosts::calmest(double place, double within) const {
  double best = place, least = at(place);
  for (double by = kStep; by <= within; by += kStep) {
    for (const double tried : {place - by, place + by}) {
      if (tried < kNarrowestPanel || tried > length_ - kNarrowestPanel) continue;
      const double cost = at(tried);
      if (cost > least - 1e-9) continue;
      least = cost;
      best = tried;
    }
  }
  return best;
}

namespace {

constexpr double kPlaces = 1;   // mm
constexpr double kUnlike = 60;  // mm of outline that a panel twice as long as the rest counts for
constexpr double kNoWay = 1e300;

// How long panels may be, and what one that is unlike the rest costs.
struct PanelLengths {
  double even = 0, shortest = 0, most = 0, gap = 0;
  [[nodiscard]] double unlike(double panel) const {
    if (panel < shortest || panel > most) return kNoWay;
    return kUnlike * (panel / even - 1) * (panel / even - 1);
  }
};

// The least harm up to a panel that ends at `at`, of all seams it may begin at, and which that is. `after`: the least
// harm with the seam before at each place.
std::pair<double, std::size_t> least_before(const std::vector<double>& after, double at, const PanelLengths& lengths) {
  std::pair<double, std::size_t> least{kNoWay, 0};
  const double nearest = at - lengths.gap - lengths.shortest, farthest = at - lengths.gap - lengths.most;
  const auto first = static_cast<std::size_t>(std::max(1.0, std::ceil(farthest / kPlaces - 1e-9)));
  for (std::size_t k = first; static_cast<double>(k) * kPlaces <= nearest + 1e-9; ++k) {
    const double last = static_cast<double>(k) * kPlaces + lengths.gap / 2;
    const double unlike = after[k] >= kNoWay ? kNoWay : lengths.unlike(at - lengths.gap / 2 - last);
    if (unlike < kNoWay && after[k] + unlike < least.first) least = {after[k] + unlike, k};
  }
  return least;
}

// Places for so many seams that no panel is longer than `most`: the harm of all together is the least, and how unlike
// the panels are counts a little. Empty where none is found.
std::vector<double> best_places(const SeamCosts& costs, std::size_t seams, double most, double gap) {
  const double whole = costs.length();
  const double even = (whole - gap * static_cast<double>(seams)) / static_cast<double>(seams + 1);
  const PanelLengths lengths{even, std::max(kNarrowestPanel, 0.4 * even), most, gap};
  const auto places = static_cast<std::size_t>(whole / kPlaces) + 1;
  // after[i]: the least harm of the seams so far, the last one at i.
  std::vector<double> after(places, kNoWay);
  std::vector<std::vector<std::size_t>> before;
  for (std::size_t seam = 0; seam < seams; ++seam) {
    std::vector<double> now(places, kNoWay);
    std::vector<std::size_t> from(places, 0);
    for (std::size_t i = 1; i < places; ++i) {
      Cancel::check_here();
      const double at = static_cast<double>(i) * kPlaces;
      const auto [harm, last] =
          seam == 0 ? std::pair{lengths.unlike(at - gap / 2), std::size_t{0}} : least_before(after, at, lengths);
      if (harm >= kNoWay) continue;
      now[i] = harm + costs.at(at);
      from[i] = last;
    }
    before.push_back(std::move(from));
    after = std::move(now);
  }
  // With the last panel.
  for (std::size_t i = 1; i < places; ++i) {
    const double unlike = lengths.unlike(whole - static_cast<double>(i) * kPlaces - gap / 2);
    after[i] = after[i] >= kNoWay || unlike >= kNoWay ? kNoWay : after[i] + unlike;
  }
  const auto least = std::min_element(after.begin() + 1, after.end());
  if (least == after.end() || *least >= kNoWay) return {};
  auto best = static_cast<std::size_t>(least - after.begin());
  std::vector<double> found;
  for (std::size_t seam = seams; seam-- > 0; best = before[seam][best])
    found.push_back(static_cast<double>(best) * kPlaces);
  std::reverse(found.begin(), found.end());
  return found;
}

std::vector<double> proposed(const Job& job, bool upright, double most) {
  const SeamCosts costs(job, upright);
  const double gap = job.panels.gap;
  if (costs.length() <= most + 1e-6) return {};
  for (auto seams = static_cast<std::size_t>(std::ceil((costs.length() + gap) / (most + gap) - 1e-9)) - 1;
       seams <= kMostSeams; ++seams) {
    std::vector<double> places = best_places(costs, seams, most, gap);
    if (places.empty()) continue;
    // To the finer step, where no panel becomes too long by it.
    for (std::size_t i = 0; i < places.size(); ++i) {
      const double fine = costs.calmest(places[i], 1);
      const double last = i == 0 ? 0 : places[i - 1] + gap / 2;
      const double next = i + 1 == places.size() ? costs.length() : places[i + 1] - gap / 2;
      if (fine - gap / 2 - last <= most + 1e-9 && next - fine - gap / 2 <= most + 1e-9) places[i] = fine;
    }
    return places;
  }
  throw bad_input(say("Panels of at most {0} would take more than {1} seams: allow larger ones.",
                      size_in_words(most, job.lengths), kMostSeams));
}

}  // namespace

PanelChoices propose_seams(const Job& job, const LargestPanel& largest) {
  PanelChoices panels = job.panels;
  panels.across = proposed(job, true, largest.width);
  panels.deep = proposed(job, false, largest.height);
  return panels;
}

std::vector<CutThrough> cut_by_seam(const Job& job, const OutlinesOf& outlines, bool upright, double place) {
  std::vector<CutThrough> all;
  for (std::size_t i = 0; i < job.items.size(); ++i) {
    if (outlines[i] == nullptr || job.items[i].cut.kind == Treatment::Kind::None) continue;
    int cut = 0;
    for (const Island& island : outlines[i]->region.islands) {
      const Box box = bounds(island.rings.front());
      cut += (upright ? box.left : box.bottom) < place - 0.01 && (upright ? box.right : box.top) > place + 0.01 ? 1 : 0;
    }
    if (cut > 0) all.push_back({job.items[i].piece.id, cut});
  }
  return all;
}

}  // namespace doyen
