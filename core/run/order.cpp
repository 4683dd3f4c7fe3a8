#include "run/order.hpp"

#include <algorithm>
#include <set>

namespace doyen {
namespace {

using Queues = std::vector<std::vector<const Operation*>>;

class Scheduler {
 public:
  Scheduler(const Queues& per_piece, const std::vector<std::vector<std::size_t>>& grounds)
      : queues_(per_piece), grounds_(grounds), next_(per_piece.size(), 0) {}

  std::vector<OrderedGroup> run() {
    std::vector<OrderedGroup> groups;
    while (left() > 0) {
      std::string bit = choose();
      if (bit.empty()) {  // grounds that wait for each other: nothing is held back any longer
        grounds_.clear();
        continue;
      }
      OrderedGroup group{bit, take_all(bit, next_)};
      if (!groups.empty() && groups.back().bit == bit) {
        auto& ops = groups.back().operations;
        ops.insert(ops.end(), group.operations.begin(), group.operations.end());
      } else {
        groups.push_back(std::move(group));
      }
    }
    return groups;
  }

 private:
  [[nodiscard]] std::size_t left() const {
    std::size_t n = 0;
    for (std::size_t i = 0; i < queues_.size(); ++i) n += queues_[i].size() - next_[i];
    return n;
  }
  [[nodiscard]] bool only_profiles_left(const std::vector<std::size_t>& next) const {
    for (std::size_t i = 0; i < queues_.size(); ++i) {
      for (std::size_t k = next[i]; k < queues_[i].size(); ++k) {
        if (queues_[i][k]->kind != Operation::Kind::Profile) return false;
      }
    }
    return true;
  }
  [[nodiscard]] bool ready(std::size_t i, const std::vector<std::size_t>& next, bool profiles) const {
    if (next[i] >= queues_[i].size() || (!profiles && queues_[i][next[i]]->kind == Operation::Kind::Profile))
      return false;
    return i >= grounds_.size() || std::all_of(grounds_[i].begin(), grounds_[i].end(),
                                               [&](std::size_t g) { return next[g] >= queues_[g].size(); });
  }
  // Everything that this bit can do now, one thing making way for the next.
  std::vector<const Operation*> take_all(const std::string& bit, std::vector<std::size_t>& next) const {
    std::vector<const Operation*> taken;
    for (bool more = true; more;) {
      more = false;
      const bool profiles = only_profiles_left(next);
      for (std::size_t i = 0; i < queues_.size(); ++i) {
        while (ready(i, next, profiles) && queues_[i][next[i]]->bit == bit) {
          taken.push_back(queues_[i][next[i]++]);
          more = true;
        }
      }
    }
    return taken;
  }
  // A bit that is finished with for good when its turn ends beats one that must come back; then the one doing more.
  [[nodiscard]] std::string choose() const {
    const bool profiles = only_profiles_left(next_);
    std::string best;
    std::pair<int, std::size_t> best_score{-1, 0};
    std::set<std::string> tried;
    for (std::size_t i = 0; i < queues_.size(); ++i) {
      if (!ready(i, next_, profiles)) continue;
      const std::string& bit = queues_[i][next_[i]]->bit;
      if (!tried.insert(bit).second) continue;
      std::vector<std::size_t> after = next_;
      const std::size_t done = take_all(bit, after).size();
      bool comes_back = false;
      for (std::size_t q = 0; q < queues_.size(); ++q) {
        for (std::size_t k = after[q]; k < queues_[q].size(); ++k) comes_back = comes_back || queues_[q][k]->bit == bit;
      }
      const std::pair<int, std::size_t> score{comes_back ? 0 : 1, done};
      if (score > best_score) {
        best_score = score;
        best = bit;
      }
    }
    return best;
  }

  const Queues& queues_;
  std::vector<std::vector<std::size_t>> grounds_;
  std::vector<std::size_t> next_;
};

}  // namespace

std::vector<OrderedGroup> order_operations(const Queues& per_piece,
                                           const std::vector<std::vector<std::size_t>>& grounds) {
  return Scheduler(per_piece, grounds).run();
}

}  // namespace doyen
