// What the wood shall look like when everything is cut, as two bounds on the height at every place. Worked out from
// outlines, treatments, grounds and the board alone: no pass, no groove's plan and no clearing code has a part in it.
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "treatments/asking.hpp"

namespace doyen {

class Wanted {
 public:
  // `side`: of the board; the bounds are in that side's coordinates. Bits give their measured figures.
  Wanted(const std::vector<WantedPiece>& pieces, const Blank& blank, const Rack& rack, Side side, TurnOver turn);
  ~Wanted();
  Wanted(Wanted&&) noexcept;

  // With `likely`: what is most likely between them, too.
  void bounds(const CellGrid& grid, WantedBounds& out, bool likely = false) const;
  // What the bounds inside this box depend on.
  [[nodiscard]] std::uint64_t key(const Box& box) const;
  // The smallest piece round or under a place of this side; empty when there is only bare board.
  [[nodiscard]] std::string piece_at(Point p) const;

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace doyen
