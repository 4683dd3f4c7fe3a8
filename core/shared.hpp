// A value that copies share until one of them is changed: what is large and seldom edited, such as a drawing's parts or
// the picture it was traced from. Copying costs a pointer, and so does comparing copies.
#pragma once

#include <atomic>
#include <cstdint>
#include <memory>
#include <utility>

namespace doyen {

template <typename T>
class Shared {
 public:
  Shared() : node_(nothing()) {}
  Shared(T value) : node_(std::make_shared<Node>(std::move(value))) {}
  // Moving copies: what was moved from still holds something.
  Shared(const Shared&) = default;
  Shared& operator=(const Shared&) = default;
  Shared& operator=(T value) {
    node_ = std::make_shared<Node>(std::move(value));
    return *this;
  }

  const T& get() const { return node_->value; }
  operator const T&() const { return get(); }
  const T& operator*() const { return get(); }
  const T* operator->() const { return &get(); }
  // Lists and texts are read as they are.
  [[nodiscard]] auto begin() const { return get().begin(); }
  [[nodiscard]] auto end() const { return get().end(); }
  [[nodiscard]] auto size() const { return get().size(); }
  [[nodiscard]] bool empty() const { return get().empty(); }
  const auto& operator[](std::size_t i) const { return get()[i]; }

  // To be changed: no copy has part in it. The reference holds until this is copied, assigned or cleared.
  T& edit() {
    if (node_.use_count() == 1) {
      std::atomic_thread_fence(std::memory_order_acquire);  // another thread may just have let go of it
      node_->mark = next();
    } else {
      node_ = std::make_shared<Node>(node_->value);
    }
    return node_->value;
  }
  void clear() { node_ = nothing(); }
  // A number that only this content has while the program runs: copies have the same.
  [[nodiscard]] std::uint64_t mark() const { return node_->mark; }

  friend bool operator==(const Shared& a, const Shared& b) { return a.node_ == b.node_ || a.get() == b.get(); }

 private:
  struct Node {
    explicit Node(T v) : value(std::move(v)) {}
    T value;
    std::uint64_t mark = next();
  };
  static std::uint64_t next() {
    static std::atomic<std::uint64_t> last{0};
    return ++last;
  }
  static const std::shared_ptr<Node>& nothing() {
    static const std::shared_ptr<Node> kNothing = std::make_shared<Node>(T{});
    return kNothing;
  }
  std::shared_ptr<Node> node_;
};

}  // namespace doyen
