// What lies in which cell of an endless grid. Few of all cells have anything, so that they share as many places as
// there are things.
#pragma once

#include <bit>
#include <cstdint>
#include <vector>

namespace doyen {

// Numbers of things by the numbers of cells.
class CellIndex {
 public:
  explicit CellIndex(std::size_t things) : places_(std::bit_ceil(4 * things + 2), kNone) {
    entries_.reserve(2 * things);
  }

  void add(std::uint64_t cell, std::uint32_t thing) {
    std::uint32_t& first = places_[place(cell)];
    entries_.push_back({cell, thing, first});
    first = static_cast<std::uint32_t>(entries_.size() - 1);
  }
  // The last added first, until `go_on` says no; whether it never did.
  template <typename GoOn>
  bool all_in(std::uint64_t cell, const GoOn& go_on) const {
    for (std::uint32_t i = places_[place(cell)]; i != kNone; i = entries_[i].next) {
      if (entries_[i].cell == cell && !go_on(entries_[i].thing)) return false;
    }
    return true;
  }

 private:
  static constexpr std::uint32_t kNone = ~0U;
  struct Entry {
    std::uint64_t cell;
    std::uint32_t thing, next;
  };
  // The golden ratio's multiples spread neighbours well (D. Knuth, The Art of Computer Programming 3, 6.4).
  [[nodiscard]] std::size_t place(std::uint64_t cell) const {
    return (cell * 0x9E37'79B9'7F4A'7C15ULL) >> (64 - std::countr_zero(places_.size()));
  }
  std::vector<std::uint32_t> places_;  // the first entry of each
  std::vector<Entry> entries_;
};

}  // namespace doyen
