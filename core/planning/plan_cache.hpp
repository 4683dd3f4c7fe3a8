// Remembers worked-out pieces by what went into them, so that an edit works out again only what it touched.
#pragma once

#include <list>
#include <memory>
#include <mutex>
#include <unordered_map>

#include "planning/piece_key.hpp"
#include "planning/piece_plan.hpp"
#include "verdicts/verdict_memory.hpp"

namespace doyen {

// By a key of the piece and its board, and by what was asked of the rack on the way. May be shared between threads.
class PlanCache {
 public:
  // `asked`: gets what was asked of the rack on the way.
  std::shared_ptr<const PiecePlan> find(const PieceKey& key, const Rack& rack, AskedRack::Asked* asked = nullptr);
  void keep(const PieceKey& key, AskedRack::Asked asked, std::shared_ptr<const PiecePlan> plan);
  // Another plan is made. Whatever the last two asked for stays, whatever its size; what is older goes, the longest
  // unused first, until it takes less than kOlder.
  void begin_plan();
  [[nodiscard]] std::size_t bytes() const;   // about so much is held
  [[nodiscard]] std::size_t given() const;   // how many were worked out, so far
  VerdictMemory& found() { return found_; }  // what checks found out

 private:
  static constexpr std::size_t kOlder = 12u << 20;
  struct Kept {
    PieceKey key;
    AskedRack::Asked asked;
    std::shared_ptr<const PiecePlan> plan;
    std::size_t bytes = 0;
    std::uint64_t used = 0;  // the last plan that asked for it
  };
  using Place = std::list<Kept>::iterator;
  mutable std::mutex lock_;
  std::list<Kept> kept_;  // the last used first
  std::unordered_multimap<PieceKey, Place> by_key_;
  std::uint64_t plan_ = 0;
  std::size_t given_ = 0;
  VerdictMemory found_;
};

}  // namespace doyen
