// What an edit changed of a job, to go back and forth: only what differs is kept, so that a thousand small edits of a
// large job stay small.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "job/job.hpp"

namespace doyen {

class JobChange {
 public:
  JobChange(const Job& before, const Job& after);
  // On a job that is as it was after the change (before it): brings it back (forward).
  void undo(Job& job) const;
  void redo(Job& job) const;

 private:
  template <typename T>
  struct Values {
    T before, after;
  };
  template <typename T>
  static std::optional<Values<T>> between(const T& before, const T& after) {
    if (before == after) return {};
    return Values<T>{before, after};
  }
  void turn(Job& job, bool back) const;

  std::optional<Values<std::string>> name_, unknown_;
  std::optional<Values<LengthStyle>> lengths_;
  std::optional<Values<Blank>> blank_;
  std::optional<Values<RunSettings>> run_;
  std::optional<Values<PlateList>> plates_;
  std::optional<Values<FinishChoices>> finish_;
  std::optional<Values<PanelChoices>> panels_;
  std::optional<Values<NestChoices>> nest_;
  // Of the lists of pieces, what lies between what both begin with and what both end with.
  std::size_t from_ = 0;
  Values<std::vector<Item>> items_;
};

}  // namespace doyen
