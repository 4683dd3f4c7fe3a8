#include "cutting/island_memory.hpp"

#include <algorithm>
#include <boost/container_hash/hash.hpp>
#include <mutex>
#include <unordered_map>

namespace doyen {
namespace {

class IslandMemory {
 public:
  std::shared_ptr<const IslandGroove> worked_out(const Island& island, const GrooveShape& shape) {
    Known one{island_key(island), shape, {}};
    const std::size_t hash = boost::hash_range(one.key.begin(), one.key.end());
    {
      const std::scoped_lock hold(lock_);
      for (auto [it, end] = known_.equal_range(hash); it != end; ++it) {
        if (!(it->second.shape == shape) || it->second.key != one.key) continue;
        if (auto groove = it->second.groove.lock()) return groove;
      }
    }
    auto groove = std::make_shared<const IslandGroove>(plan_island(island, shape));
    one.groove = groove;
    const std::scoped_lock hold(lock_);
    if (known_.size() >= room_) {
      std::erase_if(known_, [](const auto& entry) { return entry.second.groove.expired(); });
      room_ = std::max(kRoom, 2 * known_.size());
    }
    known_.emplace(hash, std::move(one));
    return groove;
  }

 private:
  struct Known {
    std::vector<std::int32_t> key;
    GrooveShape shape;
    std::weak_ptr<const IslandGroove> groove;
  };
  static constexpr std::size_t kRoom = 256;
  std::mutex lock_;
  std::size_t room_ = kRoom;
  std::unordered_multimap<std::size_t, Known> known_;
};
}  // namespace

std::shared_ptr<const IslandGroove> remembered_island(const Island& island, const GrooveShape& shape) {
  static IslandMemory memory;
  return memory.worked_out(island, shape);
}

}  // namespace doyen
