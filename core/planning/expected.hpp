// What a board will look like while it is still being planned: as its job wants it, before any bit was asked.
#pragma once

#include <list>
#include <vector>

#include "grounds/grounds.hpp"
#include "judge/wanted.hpp"
#include "planning/plan.hpp"
#include "relief/picture.hpp"

namespace doyen {

// One look for each ground that the piece lies on. `kept` holds what they point at where there are several.
void add_by_grounds(const WantedPiece& piece, std::list<std::vector<PartOnGround>>& kept,
                    std::vector<WantedPiece>& looks);

// `area` in the coordinates of `side`, cells of `cell` mm. Corners are as sharp as they are drawn, and floors without
// ridges: what bits make of them only the plan knows. Throws Cancelled.
HeightField expected_relief(const SetJob& set, const Box& area, double cell, Side side, const Cancel& cancel = {});

// The lit picture of what is expected, edit after edit: only what differs from the last one is lit again.
class ExpectedPicture {
 public:
  // `shrink` as lit_picture() has it. Throws Cancelled; the next call then lights everything anew.
  const Picture& bring_up(const SetJob& set, const Box& area, double cell, Side side, std::size_t shrink,
                          const Cancel& cancel = {});
  [[nodiscard]] const HeightField& field() const { return field_; }

 private:
  HeightField field_;
  Picture picture_;
  Blank blank_;
  std::size_t shrink_ = 0;
  bool sound_ = false;
};

}  // namespace doyen
