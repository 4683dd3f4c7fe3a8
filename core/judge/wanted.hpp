// What the wood shall look like when everything is cut, as two bounds on the height at every place. Worked out from
// outlines, treatments, grounds and the board alone: no pass, no groove's plan and no clearing code has a part in it.
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "grounds/grounds.hpp"
#include "judge/outline_distance.hpp"
#include "stock/turn_over.hpp"

namespace doyen {

// mm, heights below the face negative. Kept wood has `low` 0: nobody asked to take anything there.
struct WantedBounds {
  std::vector<float> low;    // no lower than
  std::vector<float> high;   // no higher than, where some bit could come everywhere
  std::vector<float> reach;  // no higher than, with the bits that are chosen: never below `high`
};

struct WantedPiece {
  std::string id;
  const Outlines* outlines = nullptr;  // as seen from the front; null: it cannot be set
  const Treatment* cut = nullptr;
  const Surroundings* around = nullptr;
  bool must = true;          // it is asked for; else it only may be taken
  double smallest_flat = 0;  // mm, diameter of the smallest flat bit that is chosen for it; 0: none
  std::uint64_t key = 0;     // changes whenever anything of the above does
};

class Wanted {
 public:
  // `side`: of the board; the bounds are in that side's coordinates. Bits give their measured figures.
  Wanted(const std::vector<WantedPiece>& pieces, const Blank& blank, const Rack& rack, Side side, TurnOver turn);
  ~Wanted();
  Wanted(Wanted&&) noexcept;

  void bounds(const CellGrid& grid, WantedBounds& out) const;
  // What the bounds inside this box depend on.
  [[nodiscard]] std::uint64_t key(const Box& box) const;
  // The smallest piece round or under a place of this side; empty when there is only bare board.
  [[nodiscard]] std::string piece_at(Point p) const;

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace doyen
