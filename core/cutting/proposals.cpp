#include "cutting/proposals.hpp"
#include "wording/say.hpp"

#include <algorithm>
#include <map>

namespace doyen {
namespace {

constexpr double kMost = 0.6;       // share of the floor that a first bit shall clear to be worth its place
constexpr double kNearly = 0.999;   // of what the smallest bit reaches (both common practice, no source)
constexpr double kArcError = 0.01;  // mm, of the arcs that shares are reckoned with

}  // namespace

DirectionAdvice direction_for_floor(double depth, double diameter, bool clean_edge) {
  if (!clean_edge) return {CutDirection::UpCut, say("no edge to spare: up-cut, the chips come out")};
  if (depth <= 1.5 * diameter)
    return {CutDirection::DownCut, say("shallow, and its edge at the face should stay clean: down-cut")};
  return {CutDirection::UpCut, say("deeper than one and a half diameters: up-cut, or the chips stay in")};
}

DirectionAdvice direction_for_through(const std::string& wood_class) {
  if (wood_class == "sheet")
    return {CutDirection::Compression, say("both faces of a sheet should stay clean: compression")};
  return {CutDirection::UpCut, say("right through: up-cut, or the chips stay in")};
}

std::vector<ProposedBit> propose_clearing(const Region& floor, double depth, const AskedRack& rack,
                                          const std::string& wood_class, const Cancel& cancel, bool clean_edge) {
  std::vector<const Bit*> bits;
  for (const Bit& bit : rack.all()) {
    if (bit.kind == BitKind::Flat && bit.flute_length >= depth - 1e-6 && bit.feeds_in(wood_class).known())
      bits.push_back(&bit);
  }
  std::sort(bits.begin(), bits.end(), [&](const Bit* a, const Bit* b) {
    if (a->true_diameter() != b->true_diameter()) return a->true_diameter() > b->true_diameter();
    const CutDirection best = direction_for_floor(depth, a->true_diameter(), clean_edge).best;
    return (a->direction == best) > (b->direction == best);
  });
  const double whole = area(floor);
  if (bits.empty() || whole <= 0) return {};
  // Each is looked at when it is asked for, and one size once: shares to a few hundredths of a per cent are enough.
  std::map<double, double> known;
  const auto reach = [&](const Bit& bit) {
    const double radius = bit.true_diameter() / 2;
    const auto [at, fresh] = known.try_emplace(radius, 0);
    if (fresh) {
      cancel.check();
      at->second = area(opening(floor, radius, kArcError)) / whole;
    }
    return at->second;
  };
  const double best = reach(*bits.back());
  if (best <= 0) return {};
  std::vector<ProposedBit> out;
  for (const Bit* bit : bits) {
    const double share = reach(*bit);
    const bool last = share >= kNearly * best;
    if (!last && (!out.empty() || share < kMost * best)) continue;
    out.push_back({bit->id, share});
    if (last) break;
  }
  return out;
}

}  // namespace doyen
