// A board's relief, its edges as they are rounded over by hand, that follows its plans: after an edit only the part of
// the board is carved again that the changed operations reach.
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "planning/plan.hpp"
#include "relief/picture.hpp"

namespace doyen {

class ReliefKeeper {
 public:
  // Brings the field up to this plan: `area` in the coordinates of `side`, cells of `cell` mm. Returns what was carved
  // again: all of it for another area, cell or side, nothing (an empty box) when the plan cuts there what the last one
  // did. When it is cancelled (Cancelled) the next call carves everything anew.
  Box bring_up(const Plan& plan, const Box& area, double cell, Side side, const Cancel& cancel = {});
  [[nodiscard]] const HeightField& field() const { return field_; }

 private:
  // One operation as it was carved: its piece's plan is kept, so that the address stays its own.
  struct Carved {
    std::shared_ptr<const PiecePlan> piece;
    const Operation* operation;
    Bit bit;
    Box reach;
  };
  static std::vector<Carved> operations_of(const Plan& plan, Side side);
  bool rounds_as_before(const Plan& plan, Side side);  // and takes over how it is now
  HeightField field_;
  Box area_;
  double cell_ = 0;
  Side side_ = Side::Front;
  bool sound_ = false;
  double round_over_ = 0;  // mm
  Region sign_;            // whose edges were rounded; of no interest else
  std::vector<Carved> carved_;
};

// The lit picture of a board's relief that follows its plans in the same way: only what an edit can show is lit again.
class PictureKeeper {
 public:
  // `shrink` as lit_picture() has it. Throws Cancelled; the next call then lights everything anew.
  const Picture& bring_up(const Plan& plan, const Box& area, double cell, Side side, std::size_t shrink,
                          const Cancel& cancel = {});
  [[nodiscard]] const HeightField& field() const { return relief_.field(); }

 private:
  ReliefKeeper relief_;
  Picture picture_;
  Blank blank_;
  std::size_t shrink_ = 0;
  bool sound_ = false;
};

}  // namespace doyen
