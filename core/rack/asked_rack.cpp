#include "rack/asked_rack.hpp"

#include <algorithm>

namespace doyen {

namespace {

// How fast it goes is no matter of where it goes: only whether that is known, and how deep at a time. With that every
// figure of a feed may change and nothing is cut anew.
Bit without_speeds(Bit bit) {
  for (auto& [wood, feeds] : bit.feeds) {
    if (feeds.known()) feeds.feed = feeds.plunge = feeds.rpm = 1;
  }
  return bit;
}

bool goes_alike(const Bit& a, const Bit& b) { return a == b || without_speeds(a) == without_speeds(b); }

bool goes_alike(const Rack& a, const Rack& b) {
  return a.unknown == b.unknown && std::equal(a.bits.begin(), a.bits.end(), b.bits.begin(), b.bits.end(),
                                              [](const Bit& x, const Bit& y) { return goes_alike(x, y); });
}

}  // namespace

bool AskedRack::Asked::same_from(const Rack& rack) const {
  if (all && !goes_alike(*all, rack)) return false;
  return std::all_of(one.begin(), one.end(), [&](const auto& asked) {
    const Bit* bit = rack.find(asked.first);
    return bit == nullptr ? !asked.second.has_value() : asked.second.has_value() && goes_alike(*asked.second, *bit);
  });
}

void AskedRack::Asked::add(const Asked& more) {
  one.insert(more.one.begin(), more.one.end());
  if (more.all) all = more.all;
}

}  // namespace doyen
