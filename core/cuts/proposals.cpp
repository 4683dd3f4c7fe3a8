#include "cuts/proposals.hpp"

#include <algorithm>

namespace doyen {
namespace {

constexpr double kMost = 0.6;      // share of the floor that a first bit shall clear to be worth its place
constexpr double kNearly = 0.999;  // of what the smallest bit reaches (both common practice, no source)

}  // namespace

std::vector<ProposedBit> propose_clearing(const Region& floor, double depth, const Rack& rack,
                                          const std::string& wood_class, const Cancel& cancel) {
  std::vector<const Bit*> bits;
  for (const Bit& bit : rack.bits) {
    if (bit.kind == BitKind::Flat && bit.flute_length >= depth - 1e-6 && bit.feeds_in(wood_class).known())
      bits.push_back(&bit);
  }
  std::sort(bits.begin(), bits.end(),
            [](const Bit* a, const Bit* b) { return a->true_diameter() > b->true_diameter(); });
  const double whole = area(floor);
  if (bits.empty() || whole <= 0) return {};
  std::vector<double> reach;
  for (const Bit* bit : bits) {
    cancel.check();
    reach.push_back(area(opening(floor, bit->true_diameter() / 2)) / whole);
  }
  const double best = reach.back();
  if (best <= 0) return {};
  std::vector<ProposedBit> out;
  for (std::size_t i = 0; i < bits.size(); ++i) {
    const bool last = reach[i] >= kNearly * best;
    if (!last && (!out.empty() || reach[i] < kMost * best)) continue;
    out.push_back({bits[i]->id, reach[i]});
    if (last) break;
  }
  return out;
}

}  // namespace doyen
