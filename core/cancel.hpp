// A request to stop, shared between the thread that works and the one that asks.
#pragma once

#include <atomic>
#include <memory>

#include "problem.hpp"

namespace doyen {

class Cancel {
 public:
  void request() { flag_->store(true, std::memory_order_relaxed); }
  [[nodiscard]] bool requested() const { return flag_->load(std::memory_order_relaxed); }
  // Throws Problem{Cancelled} when a stop was asked for; called between islands, rows and passes.
  void check() const {
    if (requested()) throw Problem(Problem::Kind::Cancelled, "The work was cancelled.");
  }

 private:
  std::shared_ptr<std::atomic<bool>> flag_ = std::make_shared<std::atomic<bool>>(false);
};

}  // namespace doyen
