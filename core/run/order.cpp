#include "run/order.hpp"

#include <algorithm>
#include <set>

namespace doyen {
namespace {

using Queues = std::vector<std::vector<const Operation*>>;

class Scheduler {
 public:
  Scheduler(const Queues& per_piece, const std::vector<std::vector<std::size_t>>& grounds,
            const std::vector<std::string>& wish)
      : queues_(per_piece), grounds_(grounds), wish_(wish), next_(per_piece.size(), 0) {}

  std::vector<OrderedGroup> run() {
    std::vector<OrderedGroup> groups;
    while (left() > 0) {
      std::string turn = wish_.empty() ? choose() : choose_wished();
      if (turn.empty()) {  // grounds that wait for each other: nothing is held back any longer
        grounds_.clear();
        continue;
      }
      OrderedGroup group{{}, take_all(turn, next_)};
      group.bit = group.operations.front()->bit;
      if (!groups.empty() && groups.back().bit == group.bit) {
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
  // What the bit's stay is called here: with a wish, cut-outs are a turn of their own.
  [[nodiscard]] std::string turn(const Operation& op) const {
    return wish_.empty() ? std::string(op.bit) : turn_of(op);
  }
  [[nodiscard]] bool ready(std::size_t i, const std::vector<std::size_t>& next, bool profiles) const {
    if (next[i] >= queues_[i].size() ||
        (!profiles && wish_.empty() && queues_[i][next[i]]->kind == Operation::Kind::Profile))
      return false;
    return i >= grounds_.size() || std::all_of(grounds_[i].begin(), grounds_[i].end(),
                                               [&](std::size_t g) { return next[g] >= queues_[g].size(); });
  }
  // Everything that this bit can do now, one thing making way for the next: planing before floors, floors before
  // grooves, where grounds and the pieces' own order leave the choice.
  std::vector<const Operation*> take_all(const std::string& wanted, std::vector<std::size_t>& next) const {
    std::vector<const Operation*> taken;
    Point here{0, 0};
    while (true) {
      const bool profiles = only_profiles_left(next);
      std::size_t best = queues_.size();
      double way = 0;
      for (std::size_t i = 0; i < queues_.size(); ++i) {
        if (!ready(i, next, profiles) || turn(*queues_[i][next[i]]) != wanted) continue;
        const Operation& op = *queues_[i][next[i]];
        // Cut-outs keep the list's order: what lies inside comes loose first. All else goes on where it is nearest.
        const double far = op.kind == Operation::Kind::Profile || op.passes.empty()
                               ? 0
                               : distance(here, op.passes.front().points.front().flat());
        if (best != queues_.size()) {
          const Operation& other = *queues_[best][next[best]];
          if (std::pair(op.kind, far) >= std::pair(other.kind, way)) continue;
        }
        best = i;
        way = far;
      }
      if (best == queues_.size()) return taken;
      taken.push_back(queues_[best][next[best]++]);
      if (!taken.back()->passes.empty()) here = taken.back()->passes.back().points.back().flat();
    }
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

  // The earliest turn of the wish that can be taken; then what it does not name, cut-outs last.
  [[nodiscard]] std::string choose_wished() const {
    std::string best;
    std::size_t best_place = 0;
    for (std::size_t i = 0; i < queues_.size(); ++i) {
      if (!ready(i, next_, true)) continue;
      const Operation& op = *queues_[i][next_[i]];
      const auto at = std::find(wish_.begin(), wish_.end(), turn_of(op));
      auto place = static_cast<std::size_t>(at - wish_.begin());
      if (at == wish_.end() && op.kind == Operation::Kind::Profile) ++place;
      if (best.empty() || place < best_place) {
        best = turn_of(op);
        best_place = place;
      }
    }
    return best;
  }

  const Queues& queues_;
  std::vector<std::vector<std::size_t>> grounds_;
  const std::vector<std::string>& wish_;
  std::vector<std::size_t> next_;
};

}  // namespace

std::vector<OrderedGroup> order_operations(const Queues& per_piece,
                                           const std::vector<std::vector<std::size_t>>& grounds,
                                           const std::vector<std::string>& wish) {
  return Scheduler(per_piece, grounds, wish).run();
}

std::string turn_of(const Operation& op) {
  return op.kind == Operation::Kind::Profile ? op.bit + "#out" : std::string(op.bit);
}

}  // namespace doyen
