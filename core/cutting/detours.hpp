// What lies beside a way at the same depth is done on that way, instead of with a lift of its own.
#pragma once

#include <vector>

#include "cutting/keep_away.hpp"
#include "cutting/pass.hpp"

namespace doyen {

// Each of `aside`, all of them at one height, is gone along from the place of `passes` at that height that it costs the
// least way to leave for it and to come back to, where that is no more than `farthest` mm and crosses no edge; then
// the pass goes on; or a closed pass ends where one begins, and goes on along it. What is too far off comes back as it
// was.
struct Detours {
  std::vector<Pass> passes, left;
};
Detours with_detours(std::vector<Pass> passes, std::vector<Pass> aside, const KeepAway& edges, double farthest);

}  // namespace doyen
