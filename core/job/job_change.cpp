#include "job/job_change.hpp"

#include <algorithm>

namespace doyen {

JobChange::JobChange(const Job& before, const Job& after)
    : name_(between(before.name, after.name)),
      unknown_(between(before.unknown, after.unknown)),
      lengths_(between(before.lengths, after.lengths)),
      blank_(between(before.blank, after.blank)),
      run_(between(before.run, after.run)),
      plates_(between(before.plates, after.plates)),
      finish_(between(before.finish, after.finish)),
      panels_(between(before.panels, after.panels)),
      nest_(between(before.nest, after.nest)) {
  // Does not compile when a job gets another part, until it is kept here, too.
  [[maybe_unused]] const auto& [name, lengths, blank, items, run, unknown, plates, finish, panels, nest] = before;
  const std::vector<Item>&was = before.items, &is = after.items;
  std::size_t tail = 0;
  const std::size_t shorter = std::min(was.size(), is.size());
  while (from_ < shorter && was[from_] == is[from_]) ++from_;
  while (tail < shorter - from_ && was[was.size() - 1 - tail] == is[is.size() - 1 - tail]) ++tail;
  const auto between_both = [&](const std::vector<Item>& all) {
    return std::vector<Item>(all.begin() + static_cast<std::ptrdiff_t>(from_),
                             all.end() - static_cast<std::ptrdiff_t>(tail));
  };
  items_ = {between_both(was), between_both(is)};
}

void JobChange::undo(Job& job) const { turn(job, true); }
void JobChange::redo(Job& job) const { turn(job, false); }

void JobChange::turn(Job& job, bool back) const {
  const auto set = [&](auto& member, const auto& values) {
    if (values) member = back ? values->before : values->after;
  };
  set(job.name, name_);
  set(job.unknown, unknown_);
  set(job.lengths, lengths_);
  set(job.blank, blank_);
  set(job.run, run_);
  set(job.plates, plates_);
  set(job.finish, finish_);
  set(job.panels, panels_);
  set(job.nest, nest_);
  const std::vector<Item>&gone = back ? items_.after : items_.before, &come = back ? items_.before : items_.after;
  const auto at = job.items.begin() + static_cast<std::ptrdiff_t>(from_);
  const auto same = static_cast<std::ptrdiff_t>(std::min(gone.size(), come.size()));
  std::copy(come.begin(), come.begin() + same, at);
  if (come.size() > gone.size())
    job.items.insert(at + same, come.begin() + same, come.end());
  else
    job.items.erase(at + same, at + static_cast<std::ptrdiff_t>(gone.size()));
}

}  // namespace doyen
