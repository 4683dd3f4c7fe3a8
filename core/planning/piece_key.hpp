// By what a worked-out piece is known again: a hash of everything that its plan depends on but the rack, which keeps
// account of that itself.
#pragma once

#include <cstdint>

#include "job/job.hpp"
#include "treatments/surroundings.hpp"

namespace doyen {

struct PieceKey {
  std::uint64_t high = 0, low = 0;  // 122 bits of an SHA-1
  friend bool operator==(const PieceKey&, const PieceKey&) = default;
};

class PieceKeys {
 public:
  PieceKeys(const Job& job, const Item& item);
  [[nodiscard]] PieceKey of_outlines() const;
  [[nodiscard]] PieceKey of_cuts(const Surroundings& around) const;

 private:
  const Item& item_;
  std::string made_from_;  // the piece, its sources, and what matters of the board
};

// The same of a piece that lies where its box begins at zero, by its outlines themselves: alike pieces are one.
PieceKey key_of_cuts(const Outlines& outlines, const Treatment& treatment, const Blank& blank,
                     const Surroundings& around);

}  // namespace doyen

template <>
struct std::hash<doyen::PieceKey> {
  std::size_t operator()(const doyen::PieceKey& key) const noexcept { return key.high ^ key.low; }
};
