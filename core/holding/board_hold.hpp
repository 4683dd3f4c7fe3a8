// Whether the clamps and screws on a board stand what its bits push sideways, far from them as well as near. Newtons,
// common practice (data/strength.json); a vacuum table, tape under the whole board and a hand's wedges are not known.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "cutting/operation.hpp"
#include "job/job.hpp"
#include "rack/bit.hpp"

namespace doyen {

// One place where a bit pushes.
struct PushedAt {
  double newtons = 0;
  Point at;  // mm, on the front
  bool back_up = false;
  std::size_t piece = 0;  // of the job's
  BitId bit{};
};

// The corners of each operation's box, with its bit's push: no point of it is farther from the clamps. Holes push down.
std::vector<PushedAt> pushes_on(const Job& job, const Rack& rack, std::size_t piece,
                                const std::vector<Operation>& operations);

// What this metal stands together: pushed straight, N, and turned about its middle, N·mm: each holds with its friction
// at its own distance, and a clamp's pad, too, about itself.
struct Holds {
  double straight = 0, turning = 0;
  Point middle;
  // How much of what it stands such a push takes, at once as a push and as a turn; above one it gives way.
  [[nodiscard]] double share(const PushedAt& push) const;
};
Holds holds_of(const std::vector<KeepOut>& metal);

// The worst of these pushes, and its share; nothing where no metal is marked, or the board lies against stops, a fence
// or dowels.
struct BoardHeld {
  PushedAt worst;
  double share = 0;
  Holds by;
};
std::optional<BoardHeld> board_held(const Job& job, const std::vector<PushedAt>& pushes);

// Where one more clamp of the usual size makes all of it hold: at an edge of the board, clear of every cut by so much
// that the spindle's nut passes. Nothing where there is no such place.
std::optional<KeepOut> clamp_that_holds(const Job& job, const Rack& rack, const std::vector<PushedAt>& pushes);

}  // namespace doyen
