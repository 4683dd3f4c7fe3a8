// Where the blank lies on the machine's bed, and what it lies against there.
#pragma once

#include <optional>

namespace doyen {

struct Fixture {
  // Stops: two along the longer edge and one at the other, and a wedge. Fence: a bar along the longer edge, and one
  // stop. Dowels: three, in the holes of a bed that has them.
  enum class Kind { None, Stops, Fence, Dowels };
  // Of the board as it lies, seen by who stands in front: the one that is pushed home.
  enum class Corner { LeftFront, RightFront, LeftBack, RightBack };
  Kind kind = Kind::None;
  Corner corner = Corner::LeftFront;
  // mm to the right of, and behind, the left front end of the machine's travel: where that corner lies. Both or
  // neither.
  std::optional<double> x{}, y{};
  double stands = 0;  // mm above the bed; 0: half as high as the board is thick (common practice, no source)
  // Of stops, the wedge and the fence, mm: how long they lie along the board's edge, and how wide they are beside it;
  // 0: as is usual.
  double part_long = 0, part_wide = 0;
  // mm from the corner that is pushed home: where the middles of the two along the longer edge stand, and of the one at
  // the other; a sixth of that edge from either end, and in the middle, where it was not said.
  std::optional<double> first{}, second{}, end{};
  [[nodiscard]] bool placed() const { return x && y; }
  [[nodiscard]] bool left() const { return corner == Corner::LeftFront || corner == Corner::LeftBack; }
  [[nodiscard]] bool front() const { return corner == Corner::LeftFront || corner == Corner::RightFront; }
  friend bool operator==(const Fixture&, const Fixture&) = default;
};

}  // namespace doyen
