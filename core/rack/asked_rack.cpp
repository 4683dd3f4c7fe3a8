#include "rack/asked_rack.hpp"

#include <algorithm>

namespace doyen {

bool AskedRack::Asked::same_from(const Rack& rack) const {
  if (all && !(*all == rack)) return false;
  return std::all_of(one.begin(), one.end(), [&](const auto& asked) {
    const Bit* bit = rack.find(asked.first);
    return bit == nullptr ? !asked.second.has_value() : asked.second.has_value() && *asked.second == *bit;
  });
}

void AskedRack::Asked::add(const Asked& more) {
  one.insert(more.one.begin(), more.one.end());
  if (more.all) all = more.all;
}

}  // namespace doyen
