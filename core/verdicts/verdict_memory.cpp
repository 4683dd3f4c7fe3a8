#include "verdicts/verdict_memory.hpp"

#include <boost/container_hash/hash.hpp>
#include <cstring>

namespace doyen {
namespace {

constexpr std::size_t kMostAnswers = 4000, kMostAlike = 4, kMostIds = 10'000;

}  // namespace

std::size_t VerdictMemory::Hashed::operator()(const Question& question) const {
  std::size_t seed = boost::hash_range(question.what, question.what + std::strlen(question.what));
  boost::hash_range(seed, question.of.begin(), question.of.end());
  return seed;
}

std::any VerdictMemory::find(const Question& question) {
  const std::scoped_lock hold(lock_);
  const auto it = by_question_.find(question);
  if (it == by_question_.end()) return {};
  kept_.splice(kept_.begin(), kept_, it->second);
  return it->second->answer;
}

void VerdictMemory::keep(const Question& question, std::any answer) {
  const std::scoped_lock hold(lock_);
  if (by_question_.contains(question)) return;  // another thread was first
  kept_.push_front({question, std::move(answer)});
  by_question_.emplace(question, kept_.begin());
  if (kept_.size() <= kMostAnswers) return;
  by_question_.erase(kept_.back().question);
  kept_.pop_back();
}

std::uint64_t VerdictMemory::mark(const Item& item, std::uint64_t plan) {
  const std::scoped_lock hold(lock_);
  if (items_.size() > kMostIds) items_.clear();
  std::list<Known>& known = items_[item.piece.id];
  for (auto it = known.begin(); it != known.end(); ++it) {
    if (it->plan != plan || !(it->item == item)) continue;
    known.splice(known.begin(), known, it);
    return it->mark;
  }
  known.push_front({item, plan, ++last_});
  if (known.size() > kMostAlike) known.pop_back();
  return last_;
}

std::uint64_t VerdictMemory::mark(const Shop& shop) {
  const std::scoped_lock hold(lock_);
  for (const auto& [known, mark] : shops_) {
    if (known == shop) return mark;
  }
  shops_.emplace_front(shop, ++last_);
  if (shops_.size() > kMostAlike) shops_.pop_back();
  return last_;
}

}  // namespace doyen
