// A request to stop, shared between the thread that works and the one that asks.
#pragma once

#include <atomic>
#include <memory>
#include <utility>

namespace doyen {

// Thrown where work was asked to stop. No Problem and no std::exception: whoever makes a sentence or the next best
// thing of what went wrong cannot take it for that.
struct Cancelled {};

class Cancel {
 public:
  void request() { flag_->store(true, std::memory_order_relaxed); }
  [[nodiscard]] bool requested() const { return flag_->load(std::memory_order_relaxed); }
  // Throws Cancelled when a stop was asked for; called between islands, rows and passes.
  void check() const {
    if (requested()) throw Cancelled{};
  }

  // While it lives, what works on this thread and is handed no Cancel (geometry, checks) stops at this one's request,
  // too: it calls check_here().
  class Scope {
   public:
    explicit Scope(const Cancel& cancel) : before_(std::exchange(here(), &cancel)) {}
    ~Scope() { here() = before_; }
    Scope(const Scope&) = delete;
    Scope& operator=(const Scope&) = delete;

   private:
    const Cancel* before_;
  };
  // What this thread's work stops at; nobody's where there is none.
  static Cancel current() { return here() == nullptr ? Cancel() : *here(); }
  static void check_here() {
    if (here() != nullptr) here()->check();
  }

 private:
  static const Cancel*& here() {
    thread_local const Cancel* cancel = nullptr;
    return cancel;
  }
  std::shared_ptr<std::atomic<bool>> flag_ = std::make_shared<std::atomic<bool>>(false);
};

}  // namespace doyen
