// Carving moves into a height field: the proof of what the machine will do.
#pragma once

#include <cstdint>
#include <memory>
#include <vector>

#include "cancel.hpp"
#include "cutting/pass.hpp"
#include "rack/bit.hpp"
#include "relief/height_field.hpp"

namespace doyen {

// Lowers every cell that the bit sweeps on its way along the passes, plunges included, to the exact envelope of the
// bit's profile (measured diameter and angle, tip flat). Works on all processors, in bands of rows.
void carve(HeightField& field, const std::vector<Pass>& passes, const Bit& bit, const Cancel& cancel = {});

// What one move does to the cells that it lowers, for whoever judges it.
struct CarveWatch {
  std::vector<std::uint16_t> by;  // per cell of the field: the operation that lowered it last
  std::uint16_t operation = 0;    // what is written there
  float limit = 1e9F;             // mm: cells that lose more at once are counted
  // The caller sets these back before each move.
  std::size_t over = 0;  // so many cells lost more than the limit
  float taken = 0;       // mm, the most that the move took off any cell at once
  std::size_t taken_at = 0;
  float above_tip = 0;  // mm above the tip at which wood was still cut
  std::size_t above_at = 0;
};

// The moves of one operation made ready, to be carved one by one, in their order, into fields that each hold a part of
// the board.
class PreparedCut {
 public:
  // `box`: only moves that can touch it are kept; null keeps all.
  PreparedCut(const std::vector<Pass>& passes, const Bit& bit, const Box* box = nullptr);
  ~PreparedCut();
  PreparedCut(PreparedCut&&) noexcept;
  PreparedCut& operator=(PreparedCut&&) noexcept;

  struct MoveOf {
    std::uint32_t pass, leg;  // from the pass's point `leg` to the next
  };
  [[nodiscard]] std::size_t size() const;
  [[nodiscard]] const Box& box(std::size_t move) const;                    // what the move can touch
  [[nodiscard]] double length_in(std::size_t move, const Box& box) const;  // mm of its line in plan
  [[nodiscard]] MoveOf of(std::size_t move) const;
  void carve(HeightField& field, std::size_t move, std::size_t first_row, std::size_t last_row) const;
  void carve_watched(HeightField& field, std::size_t move, CarveWatch& watch) const;

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace doyen
