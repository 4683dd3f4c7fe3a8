// A rack that keeps account of what was asked of it, so that whatever was worked out from it can be remembered with
// exactly that: nothing can be forgotten, because there is no other way to a bit.
#pragma once

#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <vector>

#include "measure/id.hpp"
#include "rack/bit.hpp"

namespace doyen {

class AskedRack {
 public:
  AskedRack(const Rack& rack) : rack_(rack) {}  // NOLINT: a rack is one that nobody has asked anything yet

  const Bit* find(const BitId& id) const {
    const Bit* bit = rack_.find(id);
    const std::scoped_lock hold(lock_);
    asked_.one.insert_or_assign(id, bit == nullptr ? std::nullopt : std::optional<Bit>(*bit));
    return bit;
  }
  const std::vector<Bit>& all() const {
    const std::scoped_lock hold(lock_);
    asked_.all = rack_;
    return rack_.bits;
  }

  struct Asked {
    std::map<BitId, std::optional<Bit>> one;  // as they were found, or not found
    std::optional<Rack> all;                  // the whole rack as it was, where somebody went through it
    // Another rack would have given the same answers to whoever asks where bits go: speeds may differ.
    [[nodiscard]] bool same_from(const Rack& rack) const;
    void add(const Asked& more);  // of the same rack
  };
  [[nodiscard]] Asked asked() const {
    const std::scoped_lock hold(lock_);
    return asked_;
  }

 private:
  const Rack& rack_;
  mutable std::mutex lock_;
  mutable Asked asked_;
};

}  // namespace doyen
